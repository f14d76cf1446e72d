"""Which of many copies are kept: the newest of each of the last days, weeks and months."""

from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Final

#: Days, ISO weeks and months of which the newest copy is kept (product requirement).
KEPT_DAYS: Final = 7
KEPT_WEEKS: Final = 5
KEPT_MONTHS: Final = 12


def kept(moments_s: Iterable[float]) -> set[float]:
    """The moments (s since 1970) whose copies are kept; the others may go.

    Of every UTC day the newest copy stands for the day, likewise for ISO weeks
    and calendar months; kept are those of the newest 7 days, 5 weeks and 12
    months that have a copy. Days without a copy use up no place, so that a
    house that slept all winter keeps what it has.
    """
    newest_first = sorted(set(moments_s), reverse=True)
    keep: set[float] = set()
    for most, pattern in ((KEPT_DAYS, "%Y-%m-%d"), (KEPT_WEEKS, "%G-%V"), (KEPT_MONTHS, "%Y-%m")):
        seen: dict[str, float] = {}
        for moment_s in newest_first:
            seen.setdefault(datetime.fromtimestamp(moment_s, UTC).strftime(pattern), moment_s)
        keep |= set(list(seen.values())[:most])
    return keep
