"""A damp cloth over the eggs: put on, due, and taken off."""

from boxes import visit
from samples import NOW_S
from sandboa.core.rounds import BoxActKind, DueKind
from sandboa.services.acts.recording import undo
from sandboa.services.rounds.round_now import round_now
from sandboa.services.snapshot.cache import SnapshotCache


def test_a_damp_cloth_is_due_until_somebody_took_it_off(six: SnapshotCache) -> None:
    visit("on", days_ago=3.0, acts=(BoxActKind.DAMP_CLOTH,))

    def cloth() -> tuple[bool, bool]:
        (box,) = round_now(six.current(), NOW_S).boxes
        return box.cloth_on, DueKind.CLOTH in [due.kind for due in box.box.due]

    assert cloth() == (True, True)
    off = visit("off", days_ago=1.0, acts=(BoxActKind.CLOTH_OFF,)).act
    assert cloth() == (False, False)
    undo(off.id, NOW_S)
    assert cloth() == (True, True)
