"""Boxes hold eggs: put by themselves, together, onto damp paper, and what that changes."""

from collections.abc import Callable
from dataclasses import replace

import pytest

from boxes import ALONE, LAID_DAYS, lying, now, put, visit
from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.box import BoxKind, Closing, usual_places
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.core.rounds import EggActKind
from sandboa.records.clutches import Box, EggStay
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.mass_ledger import account_in
from sandboa.services.boxes.set_up import BoxCommand, add_box, correct_box, put_away
from sandboa.services.cabinets.commands import change_set_point, move_box
from sandboa.services.climate.cabinet_view import cabinet_now
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.hatching.egg_events import see_pip
from sandboa.services.lay_day import EggLaid, lay_clutch
from sandboa.services.losses.why import clutch_losses
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.rounds.round_now import round_now
from sandboa.services.rounds.visit import EggSeen, EggsMoved
from sandboa.services.seasons.counted import counted_clutches, grouped
from sandboa.services.seasons.dimensions import Dimension
from sandboa.services.snapshot.cache import SnapshotCache


def test_one_egg_is_put_by_itself_with_the_method_of_its_box(six: SnapshotCache) -> None:
    closed = visit("alone", moved=(put(3, new=ALONE),))
    assert "egg 3 moved to a new box 26-01 B" in closed.act.summary
    told = now(six)
    assert [(box.box.name, len(box.eggs)) for box in told.boxes] == [("26-01", 5), ("26-01 B", 1)]
    made = told.boxes[1].box
    assert (made.medium, made.closing) == ("perlite", "film with a cracked corner")
    assert [egg.number for egg in told.eggs] == [1, 2, 3, 4, 5, 6]
    assert [egg.box for egg in told.eggs] == [
        "26-01",
        "26-01",
        "26-01 B",
        "26-01",
        "26-01",
        "26-01",
    ]
    # Both are on the round, and both are of Today.
    assert [box.box.box.box.name for box in round_now(six.current(), NOW_S).boxes] == [
        "26-01", "26-01 B",
    ]  # fmt: skip
    assert [box.box.box.name for box in today(six.current(), NOW_S).boxes] == ["26-01", "26-01 B"]


def test_a_box_made_at_a_visit_goes_with_it_and_comes_back_with_it(six: SnapshotCache) -> None:
    before = [egg.values() for egg in EggStay.current()]
    closed = visit("alone", moved=(put(3, new=BoxCommand()),))
    assert lying(six, "26-01 B") == [3]
    undoing = undo(closed.act.id, NOW_S)
    assert [egg.values() for egg in EggStay.current()] == before
    assert [box.name for box in Box.current()] == ["26-01"]
    undo(undoing.id, NOW_S)
    assert lying(six, "26-01 B") == [3]


def test_a_box_that_later_holds_another_egg_does_not_go_with_its_visit(six: SnapshotCache) -> None:
    first = visit("first", days_ago=2, moved=(put(3, new=ALONE),))
    visit("second", days_ago=1, moved=(put(4, to="26-01 B"),))
    with pytest.raises(Conflict, match="other eggs lie in that box"):
        undo(first.act.id, NOW_S)
    assert lying(six, "26-01 B") == [3, 4]


def test_eggs_take_their_mass_along(six: SnapshotCache) -> None:
    visit("weighed", days_ago=6, mass_g=1396.0)
    visit("split", days_ago=5, moved=(put(1, 2, new=ALONE),))
    facts = six.current()
    assert account_in(facts, facts.box_called("26-01"), NOW_S).ledger.reference_g(NOW_S) == 1240.0
    # A new box was set up with its eggs in it.
    assert account_in(facts, facts.box_called("26-01 B"), NOW_S).ledger.changes == ()
    visit("back", box="26-01 B", days_ago=1, moved=(put(1, to="26-01"),))
    facts = six.current()
    assert account_in(facts, facts.box_called("26-01"), NOW_S).ledger.reference_g(NOW_S) == 1320.0
    assert [
        change.delta_g
        for change in account_in(facts, facts.box_called("26-01 B"), NOW_S).ledger.changes
    ] == [-80.0]


def test_each_egg_is_forecast_by_the_heat_of_its_own_way(six: SnapshotCache) -> None:
    lay_clutch(lay_day(1, dam="Tansy", cabinet="Cool", shelf="shelf", set_point_c=28.5), NOW_S)
    whole = now(six).forecast
    visit("split", days_ago=10, moved=(put(4, 5, new=replace(ALONE, shelf=("Cool", "shelf"))),))
    told = now(six)
    warm, cool = (told.eggs[n].share for n in (0, 3))
    assert warm == pytest.approx((LAID_DAYS * 12.5) / 735)
    assert cool == pytest.approx((10 * 12.5 + 10 * 9.5) / 735)
    assert told.forecast is not None
    assert whole is not None
    assert told.forecast.first_pip is not None
    assert told.forecast.last_pip is not None
    assert whole.first_pip is not None
    assert whole.last_pip is not None
    # The warm ones pip as they would have; the last is one of the cool ones.
    assert abs(told.forecast.first_pip.p50 - whole.first_pip.p50) < 0.6 * DAY_S
    assert told.forecast.last_pip.p50 > whole.last_pip.p50 + 5 * DAY_S


def test_a_pip_in_one_box_says_something_of_the_eggs_in_the_other(six: SnapshotCache) -> None:
    visit("split", days_ago=10, moved=(put(4, 5, new=ALONE),))
    later = NOW_S + 38 * DAY_S
    before = now(six, at_s=later).forecast
    assert before is not None
    see_pip("26-01", 1, later - 3600, later)
    told = now(six, at_s=later).forecast
    assert told is not None
    assert (told.pipped, told.first_pip) == (1, None)
    assert told.next_pip is not None
    assert told.next_pip.p10 >= later


def test_two_clutches_share_a_box_and_each_egg_is_called_by_its_own(six: SnapshotCache) -> None:
    lay_clutch(lay_day(8, dam="Tansy", medium="perlite"), NOW_S)
    visit("together", box="26-02", days_ago=3, moved=(put(1, 2, to="26-01"),))
    (shared,) = [b for b in round_now(six.current(), NOW_S).boxes if b.box.box.box.name == "26-01"]
    assert [egg.name for egg in shared.box.box.eggs][-3:] == ["26-01/6", "26-02/1", "26-02/2"]
    assert [now.clutch.code for now in shared.box.clutches] == ["26-01", "26-02"]
    with pytest.raises(NotPlausible, match="whose is egg 1"):
        visit("unclear", eggs=(EggSeen(1, grade=1),))
    visit("clear", eggs=(EggSeen(1, clutch="26-02", grade=1),), signs=(("lid", "edges"),))
    assert now(six, "26-02").eggs[0].grade == 1
    assert now(six).eggs[0].grade == 0
    # Each is judged for its own stage.
    assert now(six).eggs[0].share > now(six, "26-02").eggs[0].share
    assert now(six, "26-02").eggs[0].box == "26-01"
    kinds = [entry.act.kind for entry in clutch_page(six.current(), "26-02", NOW_S).log]
    assert kinds.count("visit") == 2


def test_a_clump_lies_in_its_new_box_as_it_lay(house: SnapshotCache) -> None:
    eggs = tuple(
        EggLaid(x, y, clump=1 if i < 3 else None) for i, (x, y) in enumerate(usual_places(5))
    )
    lay_clutch(lay_day(9, eggs=eggs), NOW_S)
    lay_clutch(lay_day(4, dam="Tansy"), NOW_S)
    before = [(egg.x, egg.y) for egg in now(house).eggs[:3]]
    visit("together", days_ago=1, moved=(put(1, 2, 3, to="26-02"),))
    after = [(egg.x, egg.y) for egg in now(house).eggs[:3]]
    assert after != before
    for at in (1, 2):
        for side in (0, 1):
            was, lies = before[at][side] - before[0][side], after[at][side] - after[0][side]
            assert lies == pytest.approx(was)


def test_boxes_put_together_leave_the_empty_one_behind(six: SnapshotCache) -> None:
    visit("split", days_ago=4, moved=(put(4, 5, new=ALONE),))
    visit("joined", box="26-01 B", moved=(put(4, 5, to="26-01"),))
    assert [box.box.name for box in now(six).boxes] == ["26-01"]
    assert [b.box.box.box.name for b in round_now(six.current(), NOW_S).boxes] == ["26-01"]
    # As it stood before: the past is not rewritten.
    assert lying(six, "26-01 B", NOW_S - DAY_S) == [4, 5]


def test_pipped_eggs_go_to_a_hatching_box_of_damp_paper(house: SnapshotCache) -> None:
    lay_clutch(lay_day(57.0), NOW_S)
    see_pip("26-01", 2, NOW_S - 3600, NOW_S)
    hatching = BoxCommand(name="26-01 B", kind=BoxKind.HATCHING)
    visit("paper", moved=(put(2, new=hatching),))
    box = now(house).boxes[1]
    assert (box.kind, box.box.medium, box.on_grid) == (BoxKind.HATCHING, "damp paper", False)
    assert box.water is not None
    assert box.water.left is None
    (paper,) = [b for b in round_now(house.current(), NOW_S).boxes if b.box.box is not None][1:]
    assert not any(due.kind == "last days" for due in paper.box.due)


def test_a_box_of_another_species_has_a_place_and_no_forecast(six: SnapshotCache) -> None:
    other = BoxCommand(
        name="Carpet pythons", kind=BoxKind.OTHER_SPECIES, shelf=("North", "lower"),
        species="carpet python",
    )  # fmt: skip
    add_box(other, NOW_S - DAY_S, NOW_S)
    shelf = cabinet_now(six.current(), "North", NOW_S).shelves[0]
    assert [box.box.name for box in shelf.boxes] == ["26-01", "Carpet pythons"]
    assert shelf.boxes[1].eggs == ()
    assert [b.box.box.name for b in today(six.current(), NOW_S).boxes] == ["26-01"]
    with pytest.raises(NotPlausible, match="another species"):
        visit("not here", moved=(put(1, to="Carpet pythons"),))
    with pytest.raises(NotPlausible, match="another species"):
        visit("nor this", box="Carpet pythons")
    put_away("Carpet pythons", NOW_S - 60, NOW_S)
    shelf = cabinet_now(six.current(), "North", NOW_S).shelves[0]
    assert [box.box.name for box in shelf.boxes] == ["26-01"]
    with pytest.raises(NotPlausible, match="in use as long as eggs"):
        put_away("26-01", NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="which species"):
        add_box(replace(other, name="More", species=None), NOW_S, NOW_S)


def rows() -> list[tuple[dict[str, object], int | None]]:
    return [
        (row.values(), row.superseded_by_id) for table in (Box, EggStay) for row in table.ever()
    ]


Bad = Callable[[SnapshotCache], object]


@pytest.mark.parametrize(
    ("tried", "words"),
    [
        (lambda _: visit("wrong", moved=(put(1, to="26-01"),)), "lies in box 26-01 already"),
        (lambda _: visit("wrong", moved=(put(1, new=ALONE), put(1, new=ALONE))), "into two boxes"),
        (lambda _: visit("wrong", moved=(EggsMoved((), "26-01"),)), "which eggs"),
        (lambda _: visit("wrong", moved=(put(2, to="26-01 C"),)), "no box 26-01 C"),
        (lambda _: visit("wrong", moved=(put(9, new=ALONE),)), "has no egg 9"),
        (lambda _: visit("wrong", moved=(put(2, new=BoxCommand("26-01")),)), "26-01 already"),
        (lambda _: visit("wrong", moved=(put(2, new=BoxCommand("!")),)), "at least one letter"),
        (lambda _: visit("wrong", box="26-01 Z"), "no box 26-01 Z"),
        (lambda _: move_box("26-01 D", "North", "lower", NOW_S, NOW_S), "no box 26-01 D"),
        (
            lambda _: visit("wrong", days_ago=1, moved=(put(2, to="Late"),)),
            "box Late was set up later",
        ),
        (
            lambda _: visit("wrong", moved=(put(4, new=ALONE),), eggs=(
                EggSeen(4, acts=(EggActKind.REMOVED,)),
            )),
            "taken out of its box",
        ),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_and_nothing_is_half_stored(
    six: SnapshotCache, tried: Bad, words: str
) -> None:
    late = BoxCommand(
        name="Late", shelf=("North", "lower"), medium="perlite", closing=Closing.PIN_HOLES
    )
    add_box(late, NOW_S - 3600, NOW_S)
    held = [
        (row.values(), row.superseded_by_id) for table in (Box, EggStay) for row in table.ever()
    ]
    acts = Act.select().count()
    with pytest.raises((NotPlausible, NotFound, Conflict), match=words):
        tried(six)
    assert held == rows()
    assert Act.select().count() == acts


def test_an_egg_that_was_out_stays_where_it_was(house: SnapshotCache) -> None:
    lay_clutch(lay_day(58.0), NOW_S)
    close_clutch("26-01", NOW_S - DAY_S, egg1=Fate.HATCHED)
    with pytest.raises(NotPlausible, match="was out, or had ended"):
        visit("late", moved=(put(1, new=ALONE),))


def test_a_full_box_takes_no_more(six: SnapshotCache) -> None:
    for number, dam in enumerate(("Tansy", "Yarrow")):
        eggs = tuple(EggLaid(x, y) for x, y in usual_places(20))
        lay_clutch(lay_day(9 - number, dam=dam, eggs=eggs), NOW_S)
    twenty = tuple((None, n) for n in range(1, 21))
    visit("first", box="26-02", days_ago=3, moved=(EggsMoved(twenty, "26-01"),))
    with pytest.raises(NotPlausible, match="has room for 4 more: 30 eggs are a full box"):
        visit("second", box="26-03", days_ago=2, moved=(EggsMoved(twenty, "26-01"),))
    assert len(lying(six, "26-01")) == 26


def test_two_phones_that_move_one_egg_are_told_and_the_later_counts(six: SnapshotCache) -> None:
    seen = round_now(six.current(), NOW_S).boxes[0].seen_act
    visit("phoneone.a", days_ago=0.02, seen_act=seen, moved=(put(2, new=ALONE),))
    other = visit(
        "phonetwo.b", days_ago=0.01, seen_act=seen,
        moved=(put(3, new=replace(ALONE, name="26-01 C")),),
    )  # fmt: skip
    assert any("Another device" in words for words in other.conflicts)
    # The same egg from the box it no longer lies in: told, and nothing stored.
    with pytest.raises(NotPlausible, match="did not lie in box 26-01 then"):
        visit("phonetwo.c", days_ago=0.005, seen_act=seen, moved=(put(2, to="26-01 C"),))
    # Entered late from before the other move: both are kept, the later one counts.
    late = visit("phonetwo.d", days_ago=0.03, seen_act=seen, moved=(put(2, new=replace(
        ALONE, name="26-01 D"
    )),))  # fmt: skip
    assert any("had been moved to 26-01 B meanwhile" in words for words in late.conflicts)
    assert lying(six, "26-01 B") == [2]


def test_a_box_is_corrected_and_its_name_with_it(six: SnapshotCache) -> None:
    correct_box("26-01", BoxCommand(name="Blue lid", set_up_mass_g=1410.0), NOW_S)
    box = now(six).boxes[0].box
    assert (box.name, box.set_up_mass_g, box.medium) == ("Blue lid", 1410.0, "perlite")
    probe, _ = hang_probe("In it", ProbePlace("Blue lid"), NOW_S - DAY_S, NOW_S)
    assert [p.entity_id for p in clutch_page(six.current(), "26-01", NOW_S).probes] == [
        probe.entity_id
    ]
    with pytest.raises(NotFound):
        correct_box("26-01", BoxCommand(name="Other"), NOW_S)


def test_seasons_count_each_egg_where_it_lay(house: SnapshotCache) -> None:
    lay_clutch(lay_day(70.0, medium="perlite"), NOW_S)
    other = BoxCommand(name="26-01 B", medium="vermiculite", closing=Closing.SEALED_FILM)
    visit("split", days_ago=66.0, moved=(put(1, 2, new=other),))
    change_set_point("North", 31.5, NOW_S - 66 * DAY_S, NOW_S)
    close_clutch("26-01", NOW_S - 5 * DAY_S, egg1=Fate.DEAD_IN_EGG)
    counted = counted_clutches(house.current(), NOW_S)
    media = grouped(counted, Dimension.MEDIUM)
    assert {name: [t.n for t in tallies] for name, tallies in media.items()} == {
        "perlite": [3], "vermiculite": [2],
    }  # fmt: skip
    closings = grouped(counted, Dimension.CLOSING)
    assert sum(t.n for t in closings["sealed film"]) == 2
    # One dam, one clutch: those are counted whole.
    assert [t.n for t in grouped(counted, Dimension.DAM)["Sorrel"]] == [5]


def test_seasons_and_losses_say_when_an_egg_changed_where_it_lay(house: SnapshotCache) -> None:
    lay_clutch(lay_day(70.0, medium="perlite"), NOW_S)
    other = BoxCommand(name="26-01 B", medium="vermiculite", closing=Closing.SEALED_FILM)
    visit("split", days_ago=45.0, moved=(put(1, 2, new=other),))
    change_set_point("North", 31.5, NOW_S - 66 * DAY_S, NOW_S)
    close_clutch("26-01", NOW_S - 5 * DAY_S, egg1=Fate.DEAD_IN_EGG)
    (counted,) = counted_clutches(house.current(), NOW_S)
    (change,) = [c for c in counted.changes[Dimension.MEDIUM] if 2 in c.numbers]
    assert change.spells == ((0, "perlite"), (25, "vermiculite"))
    assert change.counted == "vermiculite"
    assert all(set(c.numbers) <= {1, 2} for c in counted.changes[Dimension.MEDIUM])
    assert Dimension.CABINET not in counted.changes
    lost = clutch_losses(house.current(), "26-01", NOW_S).lost[0]
    assert [(stay.box, stay.medium) for stay in lost.lain] == [
        ("26-01", "perlite"), ("26-01 B", "vermiculite"),
    ]  # fmt: skip
    assert lost.lain[1].start_s == NOW_S - 45 * DAY_S
    # The death is not told as later than it was: what came after it is no part of where it lay.
    assert lost.lain[-1].end_s <= lost.end.died_by_s
