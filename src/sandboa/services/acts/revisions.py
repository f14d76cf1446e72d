"""Two people at one form: the second one is shown what the first one recorded."""

import hashlib
import json
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from typing import Any, Final

from sandboa.records.database import transaction

#: What a form holds, by the names its request has; of values that JSON knows.
Form = dict[str, Any]

#: As a revision: whatever is recorded now.
ANY: Final = "*"
#: The revision of a form that nobody has filled in yet.
NEW: Final = "new"


class Outdated(Exception):
    """The form was changed since it was read; `now` is what it holds, None when it was emptied."""

    def __init__(self, now: Form | None) -> None:
        super().__init__("somebody changed this since it was opened here")
        self.now = now


def revision_of(form: Form | None) -> str:
    """The same text for the same content, and another one for any other; NEW for none."""
    if form is None:
        return NEW
    said = json.dumps(form, sort_keys=True, separators=(",", ":"))
    return hashlib.sha256(said.encode()).hexdigest()[:20]


@contextmanager
def saved_over(seen: Sequence[str], now: Callable[[], Form | None]) -> Iterator[None]:
    """Do the body in one transaction with the proof that the form is still what was seen.

    `seen` are revisions, ANY among them; `now` reads what the form holds.
    Raises Outdated, and whatever `now` and the body raise; then nothing is stored.
    """
    with transaction():
        form = now()
        if ANY not in seen and revision_of(form) not in seen:
            raise Outdated(form)
        yield
