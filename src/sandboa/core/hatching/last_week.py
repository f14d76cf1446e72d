"""What has to be ready before the first pip, by the method's school of the last days."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.methods import LastDays


class LastWeekTask(StrEnum):
    """In the order of work."""

    PAPER_BOX = "paper box"
    GRID = "grid"
    TUBS = "tubs"
    TOOLS = "tools"


#: rule P8 (keeper practice).
WORDS: Final = {
    LastWeekTask.PAPER_BOX: (
        "A fresh box with damp paper, warmed to the cabinet's temperature, for eggs that have "
        "pipped or are full term."
    ),
    LastWeekTask.GRID: "Grid out from under the eggs: hatchlings catch on its edges.",
    LastWeekTask.TUBS: "A tub for each hatchling, warm, on damp paper until its first shed.",
    LastWeekTask.TOOLS: "Lamp, scale, clean towels and blunt-nosed scissors at hand.",
}


@dataclass(frozen=True, slots=True)
class LastWeekLine:
    task: LastWeekTask
    text: str


def last_week(last_days: LastDays, *, on_grid: bool) -> tuple[LastWeekLine, ...]:
    """The list for a clutch: no paper box where the method leaves the eggs as they are, and a
    grid only where there is one."""
    wanted = {
        LastWeekTask.PAPER_BOX: last_days is LastDays.MOVE,
        LastWeekTask.GRID: on_grid,
        LastWeekTask.TUBS: True,
        LastWeekTask.TOOLS: True,
    }
    return tuple(LastWeekLine(task, WORDS[task]) for task in LastWeekTask if wanted[task])
