"""A measured ratio and its aim; repeated timing that a busy machine disturbs little."""

import time
from collections.abc import Callable
from dataclasses import dataclass


def met(good: bool) -> str:
    """Whether an aim was met, as every report says it."""
    return "met" if good else "MISSED"


@dataclass(frozen=True)
class Ratio:
    """`what` took `ratio` times as long as `against`; `aim` is the most wanted, if any."""

    what: str
    against: str
    ratio: float
    aim: float | None
    note: str = ""

    def line(self) -> str:
        aim = "no aim" if self.aim is None else f"aim {self.aim:g}"
        mark = "" if self.aim is None else f"  {met(self.ratio <= self.aim)}"
        note = f"  ({self.note})" if self.note else ""
        return f"{self.ratio:8.2f}x  {aim:<8}{mark:<8} {self.what}, against {self.against}{note}"


def best_s(*works: Callable[[], object], rounds: int = 15, repeat: int = 1) -> list[float]:
    """Shortest time (s) of each work over `rounds`, each the mean of `repeat` calls.

    The shortest is the least disturbed by whatever else the machine does, and
    taking turns lets a slow minute fall on all of them alike.
    """
    best = [float("inf")] * len(works)
    for _ in range(rounds):
        for i, work in enumerate(works):
            start = time.perf_counter()
            for _ in range(repeat):
                work()
            best[i] = min(best[i], (time.perf_counter() - start) / repeat)
    return best
