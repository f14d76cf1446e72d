"""What time it is: the real clock, or one that a demo or a test has stopped."""

import time
from dataclasses import dataclass, field
from typing import Protocol


class Clock(Protocol):
    def now_s(self) -> float:
        """Seconds since 1970-01-01 UTC."""
        ...

    def behind_s(self) -> float:
        """By how much the machine's clock has been set back since the start, s; 0 usually."""
        ...


@dataclass
class SystemClock:
    """The machine's clock, which never goes back while the application runs.

    When somebody or a time server sets it back, time goes on from where it
    was: readings that are true are not taken for the future, and nothing is
    recorded before what it follows. Set ahead, it is followed.
    """

    _wall_s: float = field(default_factory=lambda: time.time())
    _steady_s: float = field(default_factory=lambda: time.monotonic())

    def now_s(self) -> float:
        steady, wall = time.monotonic(), time.time()
        reached = self._wall_s + (steady - self._steady_s)
        if wall > reached:
            self._wall_s, self._steady_s = wall, steady
            return wall
        return reached

    def behind_s(self) -> float:
        return max(self.now_s() - time.time(), 0.0)


@dataclass
class StoppedClock:
    """Stands at `at_s`; a test may move it."""

    at_s: float

    def now_s(self) -> float:
        return self.at_s

    def behind_s(self) -> float:
        return 0.0
