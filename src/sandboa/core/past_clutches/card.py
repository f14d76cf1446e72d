"""A clutch of before Sandboa, as a card tells it: what of it can be true."""

from dataclasses import dataclass
from datetime import UTC, date, datetime, time
from typing import Final

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.errors import NotPlausible
from sandboa.core.laying.origin import BEFORE_RANGE_C
from sandboa.core.units import CELSIUS, SECONDS_PER_DAY, require_moment, require_range

#: Days from lay to the first pip that are believed of a card: at steady temperatures between those
#: eggs live at, and a week to either side (assumption).
PIP_RANGE_DAYS: Final = (44, 105)


@dataclass(frozen=True, slots=True)
class ClutchCard:
    """`hatched` eggs of it hatched, None where the card does not say, as with the first pip; it was
    kept at about `kept_c` (°C), None where nobody knows."""

    laid: date
    count: ClutchCount
    hatched: int | None = None
    first_pip: date | None = None
    kept_c: float | None = None

    @property
    def laid_s(self) -> float:
        return noon_s(self.laid)

    @property
    def first_pip_s(self) -> float | None:
        return None if self.first_pip is None else noon_s(self.first_pip)

    @property
    def days_to_pip(self) -> int | None:
        """Days from lay to the first pip."""
        return None if self.first_pip is None else (self.first_pip - self.laid).days


def noon_s(day: date) -> float:
    """Noon UTC of a day (s): the moment kept where a card tells only the day, which is the same day
    in nearly every zone."""
    return datetime.combine(day, time(12), UTC).timestamp()


def require_past_day(field: str, day: date, now_s: float) -> None:
    """Raise NotPlausible at `field` for a day to come, or before 1980."""
    at_s = noon_s(day)
    require_moment(field, at_s)
    if at_s > now_s + SECONDS_PER_DAY / 2:
        raise NotPlausible(field, f"{day} is in the future")


def check_past_clutch(clutch: ClutchCard, now_s: float) -> None:
    """Raise NotPlausible, at its field, for what cannot be true of a past clutch.

    A first pip 44 to 105 days after laying is believed (assumption), more hatched than were fertile
    or a temperature at which no egg lives is not.
    """
    require_past_day("laid", clutch.laid, now_s)
    if clutch.hatched is not None and not 0 <= clutch.hatched <= clutch.count.fertile:
        fertile, laid = clutch.count.fertile, clutch.count.laid
        raise NotPlausible(
            "hatched", f"{clutch.hatched} hatched, but {fertile} of {laid} eggs were fertile"
        )
    if clutch.first_pip is not None and clutch.days_to_pip is not None:
        require_past_day("first_pip", clutch.first_pip, now_s)
        low, high = PIP_RANGE_DAYS
        if not low <= clutch.days_to_pip <= high:
            raise NotPlausible(
                "first_pip",
                f"that is {clutch.days_to_pip} days after laying, and eggs pip after "
                f"{low} to {high}: check both dates",
            )
        if clutch.count.fertile == 0:
            raise NotPlausible("first_pip", f"all of {clutch.count} were slugs: none can pip")
    if clutch.kept_c is not None:
        require_range("kept", clutch.kept_c, BEFORE_RANGE_C, CELSIUS)
