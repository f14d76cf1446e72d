"""What time it is: the real clock, or one that a demo or a test has stopped."""

import time
from dataclasses import dataclass
from typing import Protocol


class Clock(Protocol):
    def now_s(self) -> float:
        """Seconds since 1970-01-01 UTC."""
        ...


class SystemClock:
    def now_s(self) -> float:
        return time.time()


@dataclass
class StoppedClock:
    """Stands at `at_s`; a test may move it."""

    at_s: float

    def now_s(self) -> float:
        return self.at_s
