"""Streams that open pages follow: so many, so that none is kept open for nobody."""

from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field

from sandboa.web.intake_gate import TooMany


@dataclass
class Streams:
    """How many are open, in all and of one person or address (assumptions: a tab has one).

    Used from the event loop only, so its counts need no lock.
    """

    most: int = 120
    most_of_one: int = 24
    _open: Counter[str] = field(default_factory=Counter)

    @contextmanager
    def follow(self, who: str) -> Iterator[None]:
        """Count one for as long as it is open; TooMany where it is one too many."""
        if self._open[who] >= self.most_of_one or self._open.total() >= self.most:
            raise TooMany("too many pages are open already: close some")
        self._open[who] += 1
        try:
            yield
        finally:
            self._open[who] -= 1
            if self._open[who] <= 0:
                del self._open[who]
