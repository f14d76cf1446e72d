"""What finished clutches of the house taught: learned from, one of them left out."""

from collections.abc import Iterator
from dataclasses import dataclass, field

from sandboa.core.development import FinishedClutch, Learned, learn
from sandboa.records import issued_forecasts
from sandboa.records.hatching import Finished
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class Lessons:
    """What finished clutches taught: (clutch, done at s, its lesson), in order of time.

    `maternal` are the clutches whose dam kept them: they teach only their own kind.
    """

    finished: tuple[tuple[int, float, FinishedClutch], ...]
    maternal: frozenset[int] = frozenset()
    _known: dict[tuple[int, int, int | None, bool], Learned] = field(default_factory=dict)

    def learned(
        self, cabinet: int, as_of_s: float, besides: int | None = None, *, maternal: bool = False
    ) -> Learned:
        """The prior in a cabinet from what was finished by `as_of_s`, one clutch left out."""
        by_then = sum(at_s <= as_of_s for _, at_s, _ in self.finished)
        left_out = besides if any(clutch == besides for clutch, *_ in self.finished) else None
        key = (cabinet, by_then, left_out, maternal)
        if key not in self._known:
            taught = [
                f
                for clutch, _, f in self.finished[:by_then]
                if clutch != left_out and (clutch in self.maternal) == maternal
            ]
            self._known[key] = learn(taught, cabinet)
        return self._known[key]


def lessons(snapshot: Snapshot) -> Lessons:
    """The lessons of all clutches that are finished, in order of when; held while they hold."""
    stamp = (snapshot.version, *issued_forecasts.lessons_stamp())
    return snapshot.kept.held("lessons", stamp, lambda: _read_lessons(snapshot))


def _read_lessons(snapshot: Snapshot) -> Lessons:
    kept = issued_forecasts.lessons()
    finished = [
        (
            entity,
            float(done.at_s),
            FinishedClutch(
                kept[entity].cabinet_id,
                kept[entity].log_development,
                kept[entity].sd,
                kept[entity].eggs,
            ),
        )
        for entity, done in closed_clutches(snapshot)
        if entity in kept
    ]
    kept_by_dams = frozenset(
        clutch for clutch, *_ in finished if snapshot.clutch(clutch).kept_by_dam
    )
    return Lessons(tuple(sorted(finished, key=lambda f: (f[1], f[0]))), kept_by_dams)


def closed_clutches(snapshot: Snapshot) -> Iterator[tuple[int, Finished]]:
    """Every closed clutch by its id, and when it was closed."""
    for clutch, held in snapshot.histories.clutches.items():
        if held.finished is not None:
            yield clutch, held.finished
