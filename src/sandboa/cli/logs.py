"""The log on standard error: with times, and lines of one kind counted instead of repeated."""

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass
from threading import Lock
from typing import Final

#: s in which a line is written once; what comes after it is counted (assumption).
SPAN_S: Final = 60.0


@dataclass
class _Kind:
    since_s: float
    more: int = 0


class OncePerKind(logging.Filter):
    """Lets a line of a kind through once a minute, and says with the next how often it came.

    A kind is where in the code the line is written: what a stranger in the
    network sends makes no new kinds.
    """

    def __init__(self, now_s: Callable[[], float] = time.monotonic) -> None:
        super().__init__()
        self._now_s = now_s
        self._kinds: dict[tuple[str, int, int], _Kind] = {}
        self._lock = Lock()

    def filter(self, record: logging.LogRecord) -> bool:
        key = (record.pathname, record.lineno, record.levelno)
        now_s = self._now_s()
        with self._lock:
            kind = self._kinds.get(key)
            if kind is not None and now_s - kind.since_s < SPAN_S:
                kind.more += 1
                return False
            self._kinds[key] = _Kind(now_s)
        if kind is not None and kind.more:
            record.msg = f"{record.getMessage()} ({kind.more} more of these since the last)"
            record.args = ()
        return True


def log_to_stderr() -> None:
    """Write warnings and errors to standard error, with the time."""
    handler = logging.StreamHandler()
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s: %(message)s"))
    handler.addFilter(OncePerKind())
    root = logging.getLogger()
    if not root.handlers:
        root.addHandler(handler)
        root.setLevel(logging.WARNING)
