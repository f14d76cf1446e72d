"""Long work on losses, done bit by bit: what is there is told, the rest in its turn."""

from collections.abc import Callable, Iterable, Iterator, Sequence

from sandboa.records.clutches import Clutch
from sandboa.services.losses.outcomes import ClutchOutcomes, ends_at_hand, ends_of
from sandboa.services.losses.why import ClutchLosses, losses_at_hand, losses_of
from sandboa.services.moment.lessons import lessons
from sandboa.services.snapshot.snapshot import Snapshot

#: Says whether more may be worked out now.
GoesOn = Callable[[], bool]


def without_end() -> bool:
    """For whoever waits until all is worked out."""
    return True


def outcomes_by_now(
    snapshot: Snapshot, as_of_s: float, goes_on: GoesOn = without_end
) -> tuple[list[ClutchOutcomes], int]:
    """The ends of clutches laid by `as_of_s`, in order of laying, and of how many they wait.

    Those at hand, and others for as long as it may.
    """
    known, laid = lessons(snapshot), [c for c in snapshot.clutches if c.laid_s < as_of_s]
    found = [
        ends_of(snapshot, clutch, known, as_of_s)
        for clutch in laid
        if ends_at_hand(snapshot, clutch, as_of_s) or goes_on()
    ]
    return found, len(laid) - len(found)


def losses_by_now(
    snapshot: Snapshot, clutches: Iterable[Clutch], as_of_s: float, goes_on: GoesOn = without_end
) -> Iterator[ClutchLosses]:
    """Losses of clutches, the latest first: those at hand, and others for as long as it may.

    Why an egg was lost rests on how all others ended: before that is known, nothing is told.
    """
    _, waiting = outcomes_by_now(snapshot, as_of_s, goes_on)
    for clutch in sorted(clutches, key=lambda c: -c.laid_s):
        if losses_at_hand(snapshot, clutch, as_of_s) or (not waiting and goes_on()):
            yield losses_of(snapshot, clutch, as_of_s)


def go_on_with_losses(
    snapshot: Snapshot, clutches: Sequence[Clutch], as_of_s: float, goes_on: GoesOn
) -> bool:
    """Work on for as long as it may; returns whether all of it is at hand."""
    return sum(1 for _ in losses_by_now(snapshot, clutches, as_of_s, goes_on)) == len(clutches)
