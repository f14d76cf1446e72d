"""One act on several boxes, clutches or animals: all or none, and one undo takes it back."""

from dataclasses import replace

import pytest

from samples import NOW_S, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.core.methods import STANDARD, Visits
from sandboa.core.rounds import DueKind
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.log import log_about
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import AnimalCommand, add_animal, retire
from sandboa.services.clutches.methods import add_method, copy_to_clutches, method_of_clutch
from sandboa.services.lay_day import lay_clutch
from sandboa.services.rounds.postponing import postpone_several
from sandboa.services.rounds.round_now import round_now
from sandboa.services.snapshot.cache import SnapshotCache

CODES = ("26-01", "26-02", "26-03")
NOTHING: dict[str, list[DueKind]] = {code: [] for code in CODES}


@pytest.fixture
def boxes(house: SnapshotCache) -> SnapshotCache:
    """Three clutches, 20 days in their boxes and not opened since."""
    for number, code in enumerate(CODES):
        lay_clutch(lay_day(20.0, code=code, dam=f"Dam {number}"), NOW_S - 20 * 86_400 + 60)
    return house


def put_off(boxes: SnapshotCache) -> dict[str, list[DueKind]]:
    return {
        box.box.box.box.name: [due.kind for due, _ in box.box.postponed]
        for box in round_now(boxes.current(), NOW_S).boxes
    }


def test_what_is_due_at_several_boxes_is_put_off_in_one_act(boxes: SnapshotCache) -> None:
    reasons = [(code, DueKind.RHYTHM) for code in CODES[:2]]
    act = postpone_several(reasons, 2, NOW_S)
    assert str(act.said) == "Put off the usual visit at 2 boxes for 2 days"
    assert put_off(boxes) == {
        "26-01": [DueKind.RHYTHM], "26-02": [DueKind.RHYTHM], "26-03": [],
    }  # fmt: skip
    undo(act.id, NOW_S)
    assert put_off(boxes) == NOTHING


@pytest.mark.parametrize(
    ("name", "days", "refused"), [("26-99", 1, NotFound), ("26-02", 30, NotPlausible)]
)
def test_where_one_cannot_be_none_is(
    boxes: SnapshotCache, name: str, days: float, refused: type[Exception]
) -> None:
    with pytest.raises(refused):
        postpone_several([("26-01", DueKind.RHYTHM), (name, DueKind.RHYTHM)], days, NOW_S)
    assert put_off(boxes) == NOTHING


def test_clutches_follow_a_house_method_and_each_tells_so_in_its_log(boxes: SnapshotCache) -> None:
    method = replace(STANDARD, name="Hands off", visits=Visits.SET_AND_FORGET)
    add_method(method, NOW_S, chosen=False)
    of = {clutch.code: clutch.entity_id for clutch in boxes.current().clutches}
    act = copy_to_clutches("Hands off", CODES[:2], NOW_S)
    names = [method_of_clutch(of[code]).name for code in CODES]
    assert names[:2] == ["Hands off"] * 2
    assert names[2] != "Hands off"
    assert log_about(of["26-02"])[0].act.id == act.id
    undo(act.id, NOW_S)
    assert method_of_clutch(of["26-01"]).name != "Hands off"
    with pytest.raises(NotFound):
        copy_to_clutches("Nothing such", CODES, NOW_S)
    with pytest.raises(NotFound):
        copy_to_clutches("Hands off", ["26-03", "26-99"], NOW_S)
    assert method_of_clutch(of["26-03"]).name != "Hands off"


def test_several_animals_retire_and_breed_again(house: SnapshotCache) -> None:
    ids = [add_animal(AnimalCommand("dam", f"Dam {n}"), NOW_S)[0] for n in range(3)]

    def retired() -> list[bool]:
        animals = house.current().herd.animals
        return [bool(animals[entity].retired) for entity in ids]

    act = retire(ids[:2], NOW_S)
    assert str(act.said) == "2 animals retired"
    assert retired() == [True, True, False]
    assert str(retire(ids[:1], NOW_S, retired=False).said) == "Dam 0 breeding again"
    assert retired() == [False, True, False]
    with pytest.raises(NotFound):
        retire([ids[2], 10_000], NOW_S)
    assert retired() == [False, True, False]
