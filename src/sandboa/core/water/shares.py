"""Shares of a box's set-up water at which it is told (rule D4)."""

from dataclasses import dataclass
from typing import Final

#: At which to top up, and at which it counts as dry (rule D4).
TOP_UP_SHARE: Final = 0.50
DRY_SHARE: Final = 0.25


@dataclass(frozen=True, slots=True)
class WaterShares:
    """Shares in force at which to top up, and at which a box counts as dry."""

    top_up: float = TOP_UP_SHARE
    dry: float = DRY_SHARE


DEFAULT_SHARES: Final = WaterShares()
