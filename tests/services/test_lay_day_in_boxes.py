"""A clutch laid into several boxes, or into one that is there, and corrected there."""

from dataclasses import replace

import pytest

from boxes import now, put, visit
from samples import NOW_S, lay_day
from sandboa.core.box import usual_places
from sandboa.core.errors import NotPlausible
from sandboa.records.clutches import Box, EggStay
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.boxes.set_up import BoxCommand
from sandboa.services.forms.clutch import boxes_as_laid, clutch_form
from sandboa.services.lay_day import EggLaid, correct_clutch, lay_clutch
from sandboa.services.snapshot.cache import SnapshotCache


def laid_in_two(**changes: object) -> str:
    """A clutch of six, three on perlite and three on vermiculite."""
    eggs = tuple(EggLaid(x, y, box=i % 2) for i, (x, y) in enumerate(usual_places(6)))
    day = lay_day(4.0, eggs=eggs, medium="perlite", further=(BoxCommand(medium="vermiculite"),))
    return lay_clutch(replace(day, **changes), NOW_S)[0]  # type: ignore[arg-type]


def test_a_clutch_is_laid_into_two_boxes_half_on_each_medium(house: SnapshotCache) -> None:
    code = laid_in_two()
    told = now(house, code)
    assert [(b.box.name, b.box.medium, len(b.eggs)) for b in told.boxes] == [
        ("26-01", "perlite", 3), ("26-01 B", "vermiculite", 3),
    ]  # fmt: skip
    assert [egg.number for egg in told.boxes[1].eggs] == [2, 4, 6]
    # Both boxes began on lay day, closed alike, on one shelf.
    assert {(b.box.from_s, b.box.closing, b.shelf.name) for b in told.boxes} == {
        (told.clutch.laid_s, "lid with 1-2 pin holes", "lower")
    }


def test_a_clutch_in_two_boxes_is_corrected_and_its_eggs_stay_in_theirs(
    house: SnapshotCache,
) -> None:
    """Eggs of two boxes may have the same place each in its own."""
    same = ((0.3, 0.3), (0.7, 0.3))
    eggs = tuple(EggLaid(x, y, box=box) for box in (0, 1) for x, y in same)
    code = laid_in_two(eggs=eggs)
    as_laid = tuple(EggLaid(x, y) for _ in (0, 1) for x, y in same)
    day = lay_day(4.0, eggs=as_laid, medium="perlite", dam="Tansy")
    correct_clutch(code, day, NOW_S)
    told = now(house, code)
    assert told.dam == "Tansy"
    assert [(b.box.name, b.box.medium, len(b.eggs)) for b in told.boxes] == [
        (code, "perlite", 2), (f"{code} B", "vermiculite", 2),
    ]  # fmt: skip
    on_one_spot = (as_laid[1], *as_laid[1:])
    with pytest.raises(NotPlausible, match="eggs 1 and 2 lie at the same place"):
        correct_clutch(code, replace(day, eggs=on_one_spot), NOW_S)


def test_the_box_that_is_corrected_is_the_clutchs_first_though_most_eggs_lie_in_another(
    house: SnapshotCache,
) -> None:
    eggs = tuple(EggLaid(x, y, box=i > 0) for i, (x, y) in enumerate(usual_places(4)))
    code = laid_in_two(eggs=eggs)
    form = clutch_form(code)
    assert (form["box"], form["medium"]) == (code, "perlite")
    correct_clutch(code, lay_day(4.0, eggs=eggs, medium="half and half", code="26-77"), NOW_S)
    assert {b.box.name: b.box.medium for b in now(house, "26-77").boxes} == {
        "26-77": "half and half", f"{code} B": "vermiculite",
    }  # fmt: skip


def test_what_is_corrected_is_the_box_as_laid_wherever_the_eggs_went(six: SnapshotCache) -> None:
    other = BoxCommand(name="Other", medium="vermiculite")
    visit("moved", days_ago=3, moved=(put(1, 2, 3, 4, 5, new=other),))
    form = clutch_form("26-01")
    assert (form["medium"], boxes_as_laid("26-01")) == ("perlite", ["26-01"] * 6)
    assert [(egg["x"], egg["y"]) for egg in form["eggs"]] == usual_places(6)


def test_a_second_clutch_is_laid_into_a_box_that_has_room(six: SnapshotCache) -> None:
    eggs = tuple(EggLaid(x, y) for x, y in usual_places(3))
    lay_clutch(lay_day(2.0, dam="Tansy", eggs=eggs, into="26-01"), NOW_S)
    box = now(six, "26-02").box
    assert (box.box.name, [c.code for c in box.clutches]) == ("26-01", ["26-01", "26-02"])
    places = [(egg.x, egg.y) for egg in box.eggs]
    assert len(set(places)) == 9
    with pytest.raises(NotPlausible, match="was set up later"):
        lay_clutch(lay_day(30.0, dam="Yarrow", eggs=eggs, into="26-01"), NOW_S)
    with pytest.raises(NotFound, match="no box 26-09"):
        lay_clutch(lay_day(1.0, dam="Yarrow", eggs=eggs, into="26-09"), NOW_S)


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"further": ()}, "an egg lies in a box that is not there"),
        ({"further": (BoxCommand(), BoxCommand())}, "no egg lies in further box 2"),
        ({"further": (BoxCommand(medium="sawdust"),)}, "not a medium"),
        ({"further": (BoxCommand(set_up_mass_g=-3.0),)}, "outside"),
        ({"further": (BoxCommand(name="26-01"),)}, "a box 26-01 already"),
        ({"further": tuple(BoxCommand() for _ in range(6))}, "6 boxes are enough"),
    ],
)
def test_a_lay_day_with_boxes_that_cannot_be_is_refused_whole(
    house: SnapshotCache, changes: dict[str, object], words: str
) -> None:
    with pytest.raises((NotPlausible, Conflict), match=words):
        laid_in_two(**changes)
    assert Box.select().count() == EggStay.select().count() == 0
