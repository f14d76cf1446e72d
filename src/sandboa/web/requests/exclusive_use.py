"""The house is used by many, or had alone by one who puts a copy in its place."""

from collections.abc import Iterator
from contextlib import contextmanager
from threading import Condition
from typing import Final

#: s that a restore waits for what is under way: a long export, a slow upload (assumption).
_PATIENCE_S: Final = 60.0


class HouseClosed(Exception):
    """The house cannot be used at this moment; the text is a sentence."""


class Access:
    """Counts who uses the house; safe between threads, and quick enough for the event loop."""

    def __init__(self) -> None:
        self._changed = Condition()
        self._using = 0
        self._closed = False
        #: Why nothing is recorded at this moment, though all is shown; None usually.
        self.only_read: str | None = None

    @contextmanager
    def use(self) -> Iterator[None]:
        """Use the house; HouseClosed while somebody has it alone."""
        with self._changed:
            if self._closed:
                raise HouseClosed("the house is being restored: try again in a moment")
            self._using += 1
        try:
            yield
        finally:
            self._leave()

    @contextmanager
    def use_when_open(self) -> Iterator[None]:
        """As `use`, but waits while somebody has the house alone: for workers of its own."""
        with self._changed:
            self._changed.wait_for(lambda: not self._closed)
            self._using += 1
        try:
            yield
        finally:
            self._leave()

    @contextmanager
    def alone(self, patience_s: float = _PATIENCE_S) -> Iterator[None]:
        """Have the house alone, once all who use it are done; HouseClosed when that takes long."""
        with self._changed:
            if self._closed:
                raise HouseClosed("the house is being restored already")
            self._closed = True
            gone = self._changed.wait_for(lambda: self._using == 0, patience_s)
            if not gone:
                self._closed = False
                self._changed.notify_all()
        if not gone:
            raise HouseClosed("somebody has been busy with the house for a minute: try again")
        try:
            yield
        finally:
            with self._changed:
                self._closed = False
                self._changed.notify_all()

    def _leave(self) -> None:
        with self._changed:
            self._using -= 1
            self._changed.notify_all()
