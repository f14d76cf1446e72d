"""The log on standard error and in a file: with times, and lines of one kind counted."""

import logging
import time
from collections.abc import Callable
from dataclasses import dataclass
from logging.handlers import RotatingFileHandler
from pathlib import Path
from threading import Lock
from typing import Final

#: s in which a line is written once; what comes after it is counted (assumption).
SPAN_S: Final = 60.0
#: Files of the log, the one that is written and those before it, and bytes of each (assumptions: a
#: year of a quiet house, and no more of a small computer's card than a few photos take).
FILES: Final = 3
FILE_BYTES: Final = 2**20
_LINE: Final = "%(asctime)s %(levelname)s %(name)s: %(message)s"

#: What the house itself does is told at the level of information, what others do is not.
_own = logging.getLogger("sandboa")


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
    handler.setFormatter(_formatter())
    handler.addFilter(OncePerKind())
    handler.setLevel(logging.WARNING)
    root = logging.getLogger()
    if not root.handlers:
        root.addHandler(handler)
        root.setLevel(logging.WARNING)


def _formatter() -> logging.Formatter:
    """Lines with the time and its offset (ISO 8601): clocks go back in the middle of a night."""
    return logging.Formatter(_LINE, datefmt="%Y-%m-%dT%H:%M:%S%z")


def log_to_file(path: Path) -> Callable[[], None]:
    """Keep warnings, and what the house itself does, in a file that is begun anew when it is full.

    Returns what ends that. A file that cannot be written is said on standard
    error, and is no reason not to run.
    """
    try:
        handler = RotatingFileHandler(
            path, maxBytes=FILE_BYTES, backupCount=FILES - 1, encoding="utf-8"
        )
    except OSError as error:
        _own.warning("no log can be kept in %s: %s", path, error.strerror or error)
        return lambda: None
    handler.setFormatter(_formatter())
    handler.addFilter(OncePerKind())
    logging.getLogger().addHandler(handler)
    _own.setLevel(logging.INFO)

    def end() -> None:
        logging.getLogger().removeHandler(handler)
        handler.close()

    return end
