"""Where a thing was, and until when: boxes on shelves, probes in places."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise


@dataclass(frozen=True, slots=True)
class LocationHistory:
    """From `from_s[i]` on at `place[i]` (None: nowhere); `from_s` rises strictly, at least one.

    Before the first stay it counts as at the first place: the record begins there.
    """

    from_s: tuple[float, ...]
    place: tuple[int | None, ...]

    def __post_init__(self) -> None:
        if len(self.from_s) != len(self.place) or not self.from_s:
            raise ValueError("as many places as times, and at least one")
        if any(later <= earlier for earlier, later in pairwise(self.from_s)):
            raise ValueError("stays follow each other in time")

    @classmethod
    def of(
        cls, first_s: float, first: int, moves: Sequence[tuple[float, int | None]]
    ) -> "LocationHistory":
        """The first place, then moves (time s, place) in any order.

        A move at or before `first_s` replaces the first place.
        """
        by_time: dict[float, int | None] = {first_s: first}
        for at_s, place in sorted(moves, key=lambda move: move[0]):
            by_time[max(at_s, first_s)] = place
        return cls(tuple(by_time), tuple(by_time.values()))

    def at(self, time_s: float) -> int | None:
        """The place at `time_s`."""
        place = self.place[0]
        for from_s, there in zip(self.from_s, self.place, strict=True):
            if from_s > time_s:
                break
            place = there
        return place

    @property
    def last(self) -> int | None:
        return self.place[-1]

    @property
    def since_s(self) -> float:
        """When the last stay began."""
        return self.from_s[-1]

    def pieces(self, start_s: float, end_s: float) -> Iterator[tuple[float, float, int | None]]:
        """Split start..end at the moves: (from s, until s, place) each, none of them empty."""
        cuts = [start_s, *(t for t in self.from_s if start_s < t < end_s), end_s]
        for left, right in pairwise(cuts):
            if right > left:
                yield left, right, self.at(left)
