"""What has to be ready before the first egg, counted back from the lay window."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.development.windows import Window
from sandboa.core.units import SECONDS_PER_DAY


class PreparationTask(StrEnum):
    """In the order in which they fall due."""

    NEST = "nest"
    STOP_CLEANING = "stop cleaning"
    CABINET_ON = "cabinet on"
    BOX_WARM = "box warm"


#: Days before the earliest likely egg: better from .. at the latest (rule P1;
#: the nest spot takes the dates of the cleaning, an assumption).
DAYS_BEFORE: Final = {
    PreparationTask.NEST: (14.0, 7.0),
    PreparationTask.STOP_CLEANING: (14.0, 7.0),
    PreparationTask.CABINET_ON: (7.0, 2.0),
    PreparationTask.BOX_WARM: (4.0, 2.0),
}

WORDS: Final = {
    PreparationTask.NEST: "Give her a nest spot.",
    PreparationTask.STOP_CLEANING: "Stop routine cleaning of her tub.",
    PreparationTask.CABINET_ON: (
        "Cabinet on and steady: at least 48 hours, better a week, before the first egg."
    ),
    PreparationTask.BOX_WARM: "Box with damp medium inside the cabinet, so that all is warm.",
}


@dataclass(frozen=True, slots=True)
class Preparation:
    """One thing to prepare: best from `from_s`, at the latest by `by_s`."""

    task: PreparationTask
    from_s: float
    by_s: float
    text: str


def preparation(window: Window) -> tuple[Preparation, ...]:
    """The preparation list of a lay window, in the order in which things fall due.

    Counted from the window's early end (p10), for the eggs do not wait for
    its middle. Source: rule P1 (keeper practice).
    """
    first_egg_s = window.p10
    return tuple(
        Preparation(
            task,
            first_egg_s - better * SECONDS_PER_DAY,
            first_egg_s - latest * SECONDS_PER_DAY,
            WORDS[task],
        )
        for task, (better, latest) in DAYS_BEFORE.items()
    )
