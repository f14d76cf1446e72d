"""Why a message could not be sent, as a keeper reads it."""

import re
from typing import Final

#: characters of a reason that are kept; a mail server may answer with a page of text.
_LONGEST: Final = 200

_NUMBERED: Final = re.compile(r"^\[Errno -?\d+\]\s*")


def reason(error: Exception) -> str:
    """The sentence of an error on one line, without the operating system's number for it."""
    said = _NUMBERED.sub("", " ".join(str(error).split()))
    return said[:_LONGEST] or type(error).__name__
