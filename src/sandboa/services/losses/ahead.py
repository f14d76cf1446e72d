"""Long work on losses, done bit by bit: what is there is told, the rest in its turn."""

from collections.abc import Iterable, Iterator, Sequence

from sandboa.records.clutches import Clutch
from sandboa.services.losses.outcomes import GoesOn, outcomes_by_now, without_end
from sandboa.services.losses.why import ClutchLosses, losses_at_hand, losses_of
from sandboa.services.snapshot.snapshot import Snapshot


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
