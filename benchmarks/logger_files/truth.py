"""What two sensors measured over an evening, written down once for all styles."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Final
from zoneinfo import ZoneInfo

#: The clock of loggers that write no zone.
ZONE: Final = ZoneInfo("Europe/Berlin")
#: No day above the twelfth: nothing in a date says which of its numbers is the month.
_FROM: Final = datetime(2026, 4, 3, 16, 30, tzinfo=UTC)


@dataclass(frozen=True, slots=True)
class Measured:
    """At one moment: °C and relative humidity in % of the upper and of the lower shelf."""

    at: datetime
    upper_c: float
    upper_rh: float
    lower_c: float
    lower_rh: float

    @property
    def local(self) -> datetime:
        """As the logger's clock shows it."""
        return self.at.astimezone(ZONE)


MEASURED: Final[Sequence[Measured]] = tuple(
    Measured(
        _FROM + timedelta(minutes=10 * n),
        31.2 + 0.1 * (n % 7),
        88.0 + n % 5,
        30.4 + 0.1 * (n % 3),
        93.0 - n % 4,
    )
    for n in range(30)
)
