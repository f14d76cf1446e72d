"""The version of a form that was seen, said by whoever changes it (RFC 9110, If-Match)."""

from typing import Annotated, Final

from fastapi import Depends, Header
from pydantic import Field

#: Of a form, as its page told it; `*` for whatever is recorded now.
MATCH: Final = "If-Match"


class NotSeen(Exception):
    """A form is to be changed by somebody who does not say which version they saw."""


def _seen(
    if_match: Annotated[str | None, Header(alias=MATCH, max_length=400)] = None,
) -> tuple[str, ...]:
    """The revisions that were seen; quotes and a mark of weakness are no part of them."""
    tags = (said.strip().removeprefix("W/").strip('"') for said in (if_match or "").split(","))
    seen = tuple(tag for tag in tags if tag)
    if not seen:
        raise NotSeen(
            f"say with {MATCH} which revision of this was seen, as its page told it, or * for any"
        )
    return seen


#: The revisions of the form that whoever asks has seen.
Seen = Annotated[tuple[str, ...], Depends(_seen)]
#: What a page tells of a form, to be said again when it is changed.
Revision = Annotated[str, Field(max_length=40)]
