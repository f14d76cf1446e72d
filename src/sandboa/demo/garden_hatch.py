"""Lovage's clutch at hatch: two out, two pipped, one still closed; and its first hatchlings."""

from collections.abc import Callable, Iterator
from functools import partial
from typing import Final

from sandboa.core.animals import TraitForm
from sandboa.core.hatching import Sex, Size, YolkLeft
from sandboa.core.hatching.last_week import LastWeekTask
from sandboa.journal.hatching.at_the_egg import see_emergence, see_pip
from sandboa.journal.hatching.hatchlings import HatchlingSaid, record_hatchling
from sandboa.journal.hatching.watch import tick_last_week
from sandboa.journal.traits import TraitSaid

Event = tuple[float, Callable[[], object]]

_HOUR_S: Final = 3_600.0
#: Egg and hours ago; egg 5 has not pipped.
_PIPPED: Final = ((2, 47.0), (1, 43.5), (3, 31.0), (4, 20.5))
_OUT: Final = ((2, 16.0), (1, 9.5))


def hatch(code: str, now_s: float) -> Iterator[Event]:
    """What is told of the clutch from its last week on."""
    for task, hours_ago in ((LastWeekTask.TUBS, 90.0), (LastWeekTask.TOOLS, 48.0)):
        at_s = now_s - hours_ago * _HOUR_S
        yield at_s, partial(tick_last_week, code, task, True, at_s)
    for number, hours_ago in _PIPPED:
        at_s = now_s - hours_ago * _HOUR_S
        yield at_s, partial(see_pip, code, number, at_s, at_s)
    for number, hours_ago in _OUT:
        at_s = now_s - hours_ago * _HOUR_S
        yield at_s, partial(see_emergence, code, number, at_s, at_s)
    at_s = now_s - 8.0 * _HOUR_S
    first = HatchlingSaid(
        2,
        mass_g=63.5,
        sex=Sex.NOT_SEXED,
        size=Size.USUAL,
        yolk=YolkLeft.ABSORBED,
        traits=(TraitSaid("Mahogany", TraitForm.ONE_COPY),),
    )
    yield at_s, partial(record_hatchling, code, first, at_s)
