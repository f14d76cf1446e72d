"""Numbers as loggers write them: decimal point or comma, with or without a unit."""

import math
import re

_NUMBER = re.compile(
    r"\s*([+-]?\d+(?:[.,]\d+)?(?:[eE][+-]?\d+)?)\s*(?:[°º]?\s*[CcFfKk]|[℃℉K]|%(?:\s*rh)?)?\s*",
    re.IGNORECASE,
)
#: What loggers write where they have no reading.
_MISSING = re.compile(
    r"\s*(?:nan|n/?a|null|none|no\s?data|err(?:or)?|#n/?a|[-–—.]+)?\s*", re.IGNORECASE
)


def number(text: str) -> float | None:
    """The number in a cell, or None when there is none; NaN and infinity are none."""
    match = _NUMBER.fullmatch(text)
    if match is None:
        return None
    value = float(match[1].replace(",", "."))
    return value if math.isfinite(value) else None


def is_missing(text: str) -> bool:
    """Whether a cell says that there is no reading: empty, "NaN", "n/a", "--"."""
    return _MISSING.fullmatch(text) is not None
