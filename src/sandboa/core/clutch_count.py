"""The count on a clutch card: "7-2" is 7 laid of which 2 slugs."""

import re
from dataclasses import dataclass
from typing import Final

from sandboa.core.errors import NotPlausible

#: Eggs one ball python lays: usually 4-8 (rule P2); above 20 it is a slip (assumption).
MOST_EGGS: Final = 20


@dataclass(frozen=True, slots=True)
class ClutchCount:
    """`laid` counts everything, slugs included."""

    laid: int
    slugs: int

    @property
    def fertile(self) -> int:
        return self.laid - self.slugs

    def __str__(self) -> str:
        return f"{self.laid}-{self.slugs}"


def clutch_count(laid: int, slugs: int = 0) -> ClutchCount:
    """Check a count: 1-20 laid, slugs among them. Raises NotPlausible."""
    if not 1 <= laid <= MOST_EGGS:
        raise NotPlausible("laid", f"{laid} eggs is outside 1 to {MOST_EGGS}")
    if not 0 <= slugs <= laid:
        raise NotPlausible(
            "slugs", f"{slugs} slugs, but only {laid} laid: write total first, like 7-2"
        )
    return ClutchCount(laid, slugs)


def parse_clutch_count(text: str) -> ClutchCount:
    """Read "7-2", "7 - 2" or "7". Raises NotPlausible."""
    match = re.fullmatch(r"\s*(\d{1,3})\s*(?:[-\u2013/]\s*(\d{1,3})\s*)?", text)
    if match is None:
        raise NotPlausible(
            "count", f'"{text[:20]}" is not a count: write 7-2 for 7 laid of which 2 slugs'
        )
    return clutch_count(int(match[1]), int(match[2] or 0))
