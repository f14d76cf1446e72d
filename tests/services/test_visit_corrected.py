"""A visit edited whole: as told, at its own time, with what hangs on it, and undone."""

from dataclasses import replace

import pytest

from boxes import ALONE, lying, now, put, visit
from samples import DAY_S, NOW_S
from sandboa.core.box import Closing
from sandboa.core.candling import Disc, Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.rounds import BoxActKind, EggActKind
from sandboa.core.standing import SignKind
from sandboa.records.clutches import Box
from sandboa.records.facts import Act
from sandboa.records.rounds import Visit
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.rounds.correct_visit import correct_visit
from sandboa.services.rounds.recorded_visit import told
from sandboa.services.rounds.visit import BoxVisit, EggSeen, FreshMedium
from sandboa.services.snapshot.cache import SnapshotCache

FULL = BoxVisit(
    key="visit-of-full",
    box="26-01",
    opened_s=NOW_S - 4 * DAY_S - 45,
    closed_s=NOW_S - 4 * DAY_S,
    eggs=(
        EggSeen(1, grade=2, signs=((SignKind.MOULD, "spot"),)),
        EggSeen(2, vessels=Vessels.WEAK, disc=Disc.TOP),
        EggSeen(3, acts=(EggActKind.REMOVED,), mass_g=82.0),
    ),
    signs=(("lid", "edges"), ("smell", "off")),
    mass_g=1310.0,
    water_g=20.0,
    acts=(BoxActKind.AIRED,),
    closing=Closing.SEALED_FILM,
    fresh=FreshMedium("vermiculite", 150.0, 1300.0),
    mass_change_g=-12.0,
    moved=(put(4, to="spare"),),
)


def own(of: Act) -> int:
    """Id of the visit that an act recorded, or put right."""
    (held,) = Visit.ever(act_id=of.id)
    return held.entity_id


def test_it_is_told_as_it_was_told(six: SnapshotCache) -> None:
    visit("spare", days_ago=6.0, moved=(put(5, new=replace(ALONE, name="spare")),))
    seen = visit("full", days_ago=4.0, **_asked(FULL))
    assert told(Visit.now(own(seen.act))) == FULL


def _asked(visit: BoxVisit) -> dict[str, object]:
    left = {"key", "box", "opened_s", "closed_s"}
    return {n: getattr(visit, n) for n in BoxVisit.__dataclass_fields__ if n not in left}


def test_another_grade_another_time_and_undone(six: SnapshotCache) -> None:
    seen = visit("four", days_ago=4.0, eggs=(EggSeen(1, grade=3),), water_g=20.0).act
    earlier = replace(
        told(Visit.now(own(seen))),
        eggs=(EggSeen(2, grade=1),),
        water_g=30.0,
        opened_s=NOW_S - 5 * DAY_S,
        closed_s=NOW_S - 5 * DAY_S,
    )
    correcting = correct_visit(own(seen), earlier, NOW_S)
    assert [egg.grade for egg in now(six).eggs[:2]] == [0, 1]
    assert correcting.at_s == NOW_S - 5 * DAY_S
    assert str(correcting.said).startswith("Corrected: visit to 26-01")
    history = six.current().box(six.current().box_called("26-01").entity_id)
    assert [(w.water_g, w.poured_s) for w in history.waterings] == [(30.0, NOW_S - 5 * DAY_S)]
    assert [v.closed_s for v in history.visits] == [NOW_S - 5 * DAY_S]
    undoing = undo(correcting.id, NOW_S)
    assert [egg.grade for egg in now(six).eggs[:2]] == [3, 0]
    undo(undoing.id, NOW_S)
    assert [egg.grade for egg in now(six).eggs[:2]] == [0, 1]
    # And once more, from there.
    again = correct_visit(own(seen), replace(earlier, eggs=()), NOW_S)
    assert [egg.grade for egg in now(six).eggs[:2]] == [0, 0]
    assert told(Visit.now(own(again))).eggs == ()


def test_an_egg_taken_out_by_mistake_is_back(six: SnapshotCache) -> None:
    seen = visit("four", days_ago=4.0, eggs=(EggSeen(1, acts=(EggActKind.REMOVED,)),)).act
    assert now(six).eggs[0].removed_s is not None
    other = replace(told(Visit.now(own(seen))), eggs=(EggSeen(2, acts=(EggActKind.REMOVED,)),))
    correct_visit(own(seen), other, NOW_S)
    assert [egg.removed_s is None for egg in now(six).eggs[:2]] == [True, False]


def test_eggs_moved_stay_in_their_box_or_come_back(six: SnapshotCache) -> None:
    seen = visit("four", days_ago=4.0, moved=(put(4, 5, new=ALONE),)).act
    as_told = told(Visit.now(own(seen)))
    assert as_told.moved == (put(4, 5, to=ALONE.name),)
    correct_visit(own(seen), replace(as_told, water_g=10.0), NOW_S)
    assert lying(six, "26-01 B") == [4, 5]
    correct_visit(own(seen), replace(as_told, moved=(put(4, to=ALONE.name),)), NOW_S)
    assert (lying(six, "26-01 B"), lying(six, "26-01")) == ([4], [1, 2, 3, 5, 6])
    last = correct_visit(own(seen), replace(as_told, moved=()), NOW_S)
    assert Box.only(name="26-01 B") is None
    undo(last.id, NOW_S)
    assert lying(six, "26-01 B") == [4]


def test_a_box_it_set_up_moves_in_time_with_it_and_stays_once_it_was_opened(
    six: SnapshotCache,
) -> None:
    seen = visit("four", days_ago=4.0, moved=(put(4, new=ALONE),)).act
    as_told = told(Visit.now(own(seen)))
    earlier = {"opened_s": NOW_S - 6 * DAY_S, "closed_s": NOW_S - 6 * DAY_S}
    correct_visit(own(seen), replace(as_told, **earlier), NOW_S)
    assert Box.only(name="26-01 B").from_s == NOW_S - 6 * DAY_S
    assert lying(six, "26-01 B", NOW_S - 5 * DAY_S) == [4]
    visit("alone", box="26-01 B", days_ago=1.0)
    correct_visit(own(seen), replace(as_told, **earlier, moved=()), NOW_S)
    assert Box.only(name="26-01 B") is not None


def test_bad_corrections_are_refused_whole(six: SnapshotCache) -> None:
    seen = visit("four", days_ago=4.0, eggs=(EggSeen(1, grade=2),), mass_g=1390.0).act
    as_told = told(Visit.now(own(seen)))
    before = Act.select().count()
    for wrong, field in (
        (replace(as_told, eggs=(EggSeen(6, grade=1),)), "eggs"),
        (replace(as_told, mass_g=9_000.0), "mass_g"),
        (replace(as_told, closed_s=NOW_S - 40 * DAY_S, opened_s=NOW_S - 40 * DAY_S), "at"),
        (replace(as_told, closed_s=NOW_S + DAY_S, opened_s=NOW_S + DAY_S), "at"),
    ):
        with pytest.raises(NotPlausible) as refused:
            correct_visit(own(seen), wrong, NOW_S)
        assert refused.value.field == field
    visit("spare", days_ago=3.0, moved=(put(5, new=ALONE),))
    with pytest.raises(NotPlausible, match="another box"):
        correct_visit(own(seen), replace(as_told, box="26-01 B", eggs=(), mass_g=None), NOW_S)
    assert Act.select().count() == before + 1
    assert now(six).eggs[0].grade == 2
    undo(seen.id, NOW_S)
    with pytest.raises(NotFound):
        correct_visit(own(seen), as_told, NOW_S)
