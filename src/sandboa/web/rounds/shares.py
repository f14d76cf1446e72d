"""Who opens which cabinet on a round that several people make together.

Said between people in the room, no fact of the house: it is kept in memory for half a day, and
gone when the program stops. Every box is then anybody's again, and visits still say when two
people opened the same one.
"""

from collections.abc import Iterable
from dataclasses import dataclass, field
from threading import Lock
from typing import Final

#: How long a cabinet stays somebody's (assumption): longer than a round, shorter than to the next.
SHARED_FOR_S: Final = 12 * 3_600


@dataclass(frozen=True, slots=True)
class Share:
    """A cabinet that a person opens, both by entity, since when (s)."""

    cabinet: int
    person: int
    since_s: float


@dataclass
class RoundShares:
    """The cabinets that are somebody's now; `change` rises with everything said about them."""

    change: int = 0
    _by_cabinet: dict[int, Share] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)

    def take(self, cabinet: int, person: int, now_s: float) -> None:
        """The cabinet is that person's from now on, whoever had it before."""
        with self._lock:
            self._by_cabinet[cabinet] = Share(cabinet, person, now_s)
            self.change += 1

    def leave(self, cabinet: int) -> None:
        """The cabinet is anybody's again; nothing happens where it was."""
        with self._lock:
            if self._by_cabinet.pop(cabinet, None) is not None:
                self.change += 1

    def held(self, now_s: float, people: Iterable[int]) -> list[Share]:
        """What is shared at `now_s` (s): not what is too long ago, nor of who is no more here."""
        here = frozenset(people)
        with self._lock:
            return [
                share
                for share in self._by_cabinet.values()
                if now_s - share.since_s < SHARED_FOR_S and share.person in here
            ]
