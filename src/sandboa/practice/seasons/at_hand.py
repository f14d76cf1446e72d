"""Seasons that go on just now, kept in memory as they stand: what was done is not lived through
again for each thing more that is done.
"""

from collections import OrderedDict
from pathlib import Path
from threading import Lock
from typing import Final

from sandboa.practice.seasons.replay import Replayed

#: Seasons kept at hand: more than people keep at once in one house (assumption).
_MOST: Final = 12

#: Whose file, which session by number and when it began (s), at which revision.
Key = tuple[Path, int, float, int]


class SeasonsAtHand:
    """Who takes a season has it alone; what was done to it in vain is not put back."""

    def __init__(self) -> None:
        self._seasons: OrderedDict[Key, Replayed] = OrderedDict()
        self._lock = Lock()

    def take(self, key: Key) -> Replayed | None:
        """The season as it stood then; None where it is not at hand."""
        with self._lock:
            return self._seasons.pop(key, None)

    def put(self, key: Key, season: Replayed) -> None:
        """Keep a season; the one not asked for longest makes room."""
        with self._lock:
            self._seasons[key] = season
            while len(self._seasons) > _MOST:
                self._seasons.popitem(last=False)
