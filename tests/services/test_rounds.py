"""Rounds: a visit is one act, recorded once, with what it says of eggs, water and doors."""

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import pytest

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.box import Closing
from sandboa.core.candling import Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.methods import LastDays, Visits
from sandboa.core.rounds import BoxActKind, DueKind, EggActKind
from sandboa.core.standing import SignKind, Standing
from sandboa.core.water.top_up import top_up
from sandboa.records.database import database
from sandboa.records.rounds import Visit
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import candle_egg, grade_egg
from sandboa.services.boxes.water import OtherClosing
from sandboa.services.climate.cabinet_view import cabinet_now
from sandboa.services.clutches.box_view import what_if_water
from sandboa.services.clutches.clutch_view import ClutchNow, clutch_page
from sandboa.services.clutches.egg_view import egg_page
from sandboa.services.clutches.methods import change_clutch_method, method_of_clutch
from sandboa.services.lay_day import lay_clutch
from sandboa.services.overview.today import attention
from sandboa.services.rounds.close_visit import Closed, close_visit, deliver
from sandboa.services.rounds.postponing import postpone
from sandboa.services.rounds.round_now import RoundBox, round_now
from sandboa.services.rounds.visit import BoxVisit, EggSeen, FreshMedium
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import set_setting

CODE = "26-01"
LAID_DAYS = 20.0


@pytest.fixture
def box(house: SnapshotCache) -> SnapshotCache:
    """Six eggs, the sixth a slug, twenty days in perlite under a cracked corner; weighed."""
    day = lay_day(LAID_DAYS, closing=Closing.CRACKED_CORNER, medium="perlite", set_up_mass_g=1200.0)
    lay_clutch(day, NOW_S - LAID_DAYS * DAY_S + 60)
    return house


def visit(key: str, days_ago: float = 0.0, **more: object) -> BoxVisit:
    closed_s = NOW_S - days_ago * DAY_S
    values: dict[str, object] = {"opened_s": closed_s - 45.0, "closed_s": closed_s, **more}
    return BoxVisit(key=f"visit-key-{key}", box=CODE, **values)  # type: ignore[arg-type]


def recorded_visits(box: SnapshotCache) -> list[Visit]:
    return [v for held in box.current().histories.boxes.values() for v in held.visits]


def now(house: SnapshotCache) -> ClutchNow:
    return clutch_page(house.current(), CODE, NOW_S).now


def on_round(house: SnapshotCache, at_s: float = NOW_S) -> RoundBox:
    (found,) = round_now(house.current(), at_s).boxes
    return found


def due_kinds(house: SnapshotCache, at_s: float = NOW_S) -> list[DueKind]:
    return [due.kind for due in on_round(house, at_s).box.due]


def test_exceptions_are_recorded_and_the_rest_is_as_before(box: SnapshotCache) -> None:
    close_visit(visit("a", 8, eggs=(EggSeen(2, grade=1),)), NOW_S - 8 * DAY_S)
    close_visit(visit("b", eggs=(EggSeen(3, grade=2, signs=((SignKind.MOULD, "spot"),)),)), NOW_S)
    eggs = now(box).eggs
    assert [egg.grade for egg in eggs] == [0, 1, 2, 0, 0, None]
    assert dict(eggs[2].signs) == {"mould": "spot"}
    # Looked at and nothing written: the rest keeps its earlier look when it is not confirmed.
    close_visit(visit("c", rest_as_before=False, signs=(("lid", "edges"),)), NOW_S)
    assert now(box).box.lid == "edges"


def test_a_visit_is_one_act_and_undone_as_one(box: SnapshotCache) -> None:
    closed = close_visit(
        visit(
            "a",
            eggs=(EggSeen(1, grade=3, acts=(EggActKind.POWDERED,)),),
            signs=(("medium", "dry"), ("smell", "off")),
            mass_g=1150.0,
            water_g=50.0,
            acts=(BoxActKind.WIPED_LID,),
            closing=Closing.SEALED_FILM,
        ),
        NOW_S,
    )
    told = now(box)
    assert told.box.water is not None
    assert told.box.water.closing is Closing.SEALED_FILM
    assert told.box.lid == "none"
    assert "45 s open" in closed.act.summary
    assert "50 g of water added" in closed.act.summary
    undo(closed.act.id, NOW_S)
    told = now(box)
    assert told.box.water is not None
    assert told.box.water.closing is Closing.CRACKED_CORNER
    assert [egg.grade for egg in told.eggs] == [None] * 6
    # It was delivered, though it was undone since: it does not come back by itself.
    assert close_visit(visit("a"), NOW_S).known
    assert [egg.grade for egg in now(box).eggs] == [None] * 6


def test_the_same_visit_delivered_twice_is_one(box: SnapshotCache) -> None:
    first = close_visit(visit("a", water_g=30.0), NOW_S)
    again = close_visit(visit("a", water_g=30.0), NOW_S + 60)
    assert (first.known, again.known, again.act.id) == (False, True, first.act.id)
    assert len(box.current().box(now(box).box.box.entity_id).waterings) == 1


def test_what_another_phone_recorded_meanwhile_is_told_and_kept(box: SnapshotCache) -> None:
    seen = on_round(box).seen_act
    mine = visit("mine", 0.001, seen_act=seen, water_g=40.0, eggs=(EggSeen(1, grade=1),))
    other = visit("other", 0.002, seen_act=seen, water_g=45.0, eggs=(EggSeen(1, grade=2),))
    assert close_visit(other, NOW_S).conflicts == ()
    told = close_visit(mine, NOW_S)
    assert any("Another device" in words for words in told.conflicts)
    assert any("85 g" in words for words in told.conflicts)
    assert any("clear dents" in words and "slight dimple" in words for words in told.conflicts)
    assert close_visit(mine, NOW_S).conflicts == told.conflicts
    assert len(box.current().box(now(box).box.box.entity_id).visits) == 2
    assert now(box).eggs[0].grade == 1


def test_a_device_does_not_collide_with_itself(box: SnapshotCache) -> None:
    """Two visits to one box closed offline: the second knew of the first, though no house did."""
    seen = on_round(box).seen_act
    for key, days_ago in (("phone.one", 0.02), ("phone.two", 0.01)):
        said = replace(visit("", days_ago, seen_act=seen, water_g=20.0), key=f"device-{key}")
        assert close_visit(said, NOW_S).conflicts == ()


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"mass_g": 1300.0}, "more than the 1200 g"),
        ({"eggs": (EggSeen(6, grade=1),)}, "slug"),
        ({"eggs": (EggSeen(1, signs=((SignKind.MOULD, "purple"),)),)}, "no sign of mould"),
        ({"eggs": (EggSeen(1, signs=((SignKind.DENTS, "excess"),)),)}, "no sign of dents"),
        ({"eggs": (EggSeen(1, grade=1), EggSeen(1, grade=2))}, "twice"),
        ({"signs": (("lid", "foggy"),)}, "no sign of the box's lid"),
        ({"signs": (("smell", "roses"),)}, "no smell"),
        ({"water_g": 0.5}, "outside"),
        ({"opened_s": NOW_S + 60}, "shut after it is opened"),
        ({"opened_s": NOW_S - DAY_S}, "within 4 hours"),
        ({"closed_s": NOW_S + 3600, "opened_s": NOW_S + 3500}, "in the future"),
        (
            {"closed_s": NOW_S - 30 * DAY_S, "opened_s": NOW_S - 30 * DAY_S},
            "before box 26-01 was set up",
        ),
        ({"key": "short"}, "8 to 64"),
        ({"mass_g": -3.0}, "the box -3 g is outside"),
        ({"eggs": (EggSeen(1, signs=((SignKind.WET, "dry"), (SignKind.WET, "leaking"))),)}, "two"),
        ({"fresh": FreshMedium("sawdust")}, "not a medium"),
    ],
)
def test_what_cannot_be_is_refused_whole(
    box: SnapshotCache, changes: dict[str, object], words: str
) -> None:
    asked = replace(visit("a", eggs=(EggSeen(2, grade=1),)), **changes)  # type: ignore[arg-type]
    with pytest.raises(NotPlausible, match=words):
        close_visit(asked, NOW_S)
    assert recorded_visits(box) == []
    assert [egg.grade for egg in now(box).eggs] == [None] * 6


def test_an_unknown_egg_and_an_unknown_shelf_are_not_found(box: SnapshotCache) -> None:
    with pytest.raises(NotFound, match="no egg 9"):
        close_visit(visit("a", eggs=(EggSeen(9, grade=1),)), NOW_S)
    with pytest.raises(NotFound, match="no shelf"):
        close_visit(visit("a", shelf=("North", "attic")), NOW_S)
    assert recorded_visits(box) == []


def test_a_removed_egg_is_out_of_every_judgement_and_of_the_reference(box: SnapshotCache) -> None:
    taken = EggSeen(2, acts=(EggActKind.REMOVED,), mass_g=80.0)
    close_visit(visit("a", 3, eggs=(taken,)), NOW_S - 3 * DAY_S)
    told = now(box)
    assert told.eggs[1].removed_s == pytest.approx(NOW_S - 3 * DAY_S)
    assert told.eggs[1].standing is None
    assert told.box.judged.box.live_eggs == 4
    assert told.box.water is not None
    assert told.box.water.reference_g == 1120.0
    with pytest.raises(NotPlausible, match="egg 2 was removed"):
        close_visit(visit("b", eggs=(EggSeen(2, grade=1),)), NOW_S)
    for record in (
        lambda: grade_egg(CODE, 2, 1, NOW_S, NOW_S),
        lambda: candle_egg(CODE, 2, Vessels.WEAK, None, NOW_S, NOW_S),
    ):
        with pytest.raises(NotPlausible, match="egg 2 was removed"):
            record()
    # What was seen before it was taken out can still be told.
    close_visit(visit("c", 5, eggs=(EggSeen(2, grade=1),)), NOW_S)


def test_a_box_whose_eggs_were_all_taken_out_waits_for_nothing(box: SnapshotCache) -> None:
    close_visit(visit("a", eggs=(EggSeen(1, acts=(EggActKind.REMOVED,)),)), NOW_S)
    one_less = now(box)
    assert one_less.live_eggs == 4
    assert one_less.forecast is not None
    taken = tuple(EggSeen(n, acts=(EggActKind.REMOVED,)) for n in range(2, 6))
    close_visit(visit("b", eggs=taken), NOW_S)
    assert now(box).forecast is None
    assert round_now(box.current(), NOW_S).boxes == ()
    (told,) = attention(now(box), NOW_S)
    assert told.text.startswith("No egg is left")


def test_two_weighings_at_one_moment_cannot_be_far_apart(box: SnapshotCache) -> None:
    close_visit(visit("a", mass_g=1150.0), NOW_S)
    with pytest.raises(NotPlausible, match="gained 30 g"):
        close_visit(visit("b", mass_g=1180.0), NOW_S)


def test_weighings_learn_the_box_and_give_the_grams(box: SnapshotCache) -> None:
    before = now(box).box.water
    assert before is not None
    assert before.left is not None
    close_visit(visit("a", 10, mass_g=1190.0), NOW_S - 10 * DAY_S)
    close_visit(visit("b", mass_g=1180.0), NOW_S)
    after = now(box).box.water
    assert after is not None
    assert after.left is not None
    assert after.left.loss_g_day == pytest.approx(1.0, abs=0.12)
    assert after.left.loss_g_day < before.left.loss_g_day
    assert after.left.share == pytest.approx(0.90, abs=0.01)
    assert after.add is not None
    assert after.add.add_g == 20.0
    steps = on_round(box).top_ups
    # A phone turns its weighing into grams by this list alone.
    for mass, grams in ((1200, 0), (1180, 20), (1157, 45), (1140, 60), (1000, 200)):
        assert next(s.add_g for s in steps if mass >= s.from_g) == grams
    assert next(s.split for s in steps if s.from_g <= 1000)


def test_boxes_weighed_teach_the_closing_of_the_next(box: SnapshotCache) -> None:
    close_visit(visit("a", 10, mass_g=1195.0), NOW_S - 10 * DAY_S)
    lay_clutch(
        lay_day(5, code="26-02", dam="Tansy", closing=Closing.CRACKED_CORNER, medium="perlite"),
        NOW_S - 5 * DAY_S,
    )
    other = clutch_page(box.current(), "26-02", NOW_S).now.box.water
    own = now(box).box.water
    assert other is not None
    assert own is not None
    assert (other.learned_from, own.learned_from) == (1, 0)
    untaught = clutch_page(box.current(), CODE, NOW_S - 15 * DAY_S).now.box.water
    assert untaught is not None
    assert untaught.left is not None
    assert other.left is not None
    assert other.left.loss_g_day < untaught.left.loss_g_day


def test_fresh_medium_begins_the_account_anew(box: SnapshotCache) -> None:
    fresh = FreshMedium("vermiculite", 150.0, 1100.0)
    close_visit(visit("a", 4, fresh=fresh), NOW_S - 4 * DAY_S)
    water = now(box).box.water
    assert water is not None
    assert (water.medium, water.full_g, water.reference_g) == ("vermiculite", 150.0, 1100.0)
    assert water.left is not None
    assert water.left.share > 0.9


def test_a_box_is_moved_at_its_visit(box: SnapshotCache) -> None:
    lay_clutch(lay_day(2, code="26-02", dam="Tansy", shelf="upper"), NOW_S - 2 * DAY_S)
    close_visit(visit("a", shelf=("North", "upper")), NOW_S)
    assert now(box).box.shelf.name == "upper"


def test_an_egg_is_judged_by_what_rounds_saw_of_it(box: SnapshotCache) -> None:
    signs = ((SignKind.MOULD, "patch"), (SignKind.SMELL, "foul"))
    close_visit(visit("a", 1, eggs=(EggSeen(4, grade=2, signs=signs),)), NOW_S - DAY_S)
    close_visit(visit("b", eggs=(EggSeen(4, vessels=Vessels.NONE),), rest_as_before=False), NOW_S)
    page = egg_page(box.current(), CODE, 4, NOW_S)
    assert page.egg.standing is not None
    assert page.egg.standing.standing is Standing.PROBABLY_LOST
    keys = {line.key for line in page.egg.standing.evidence}
    assert keys == {
        "sign.mould.patch", "sign.smell.foul", "sign.vessels.none", "sign.dents.excess",
        "standing.stage",
    }  # fmt: skip
    assert page.egg.causes[0].cause == "failing egg"
    assert [m.text for m in page.history][:1] == ["no vessels"]
    # The keeper's own weight is used at once.
    set_setting("sign.smell.foul", 0.0, NOW_S)
    weighed = egg_page(box.current(), CODE, 4, NOW_S).egg.standing
    assert weighed is not None
    foul = next(e for e in page.egg.standing.evidence if e.key == "sign.smell.foul")
    assert foul.push < -2.0
    assert weighed.log_odds > page.egg.standing.log_odds + 1.5


def test_a_dry_box_blames_no_egg(box: SnapshotCache) -> None:
    dented = tuple(EggSeen(n, grade=2) for n in (1, 2, 3))
    close_visit(visit("a", eggs=dented), NOW_S)
    eggs = now(box).eggs
    assert all(egg.standing and egg.standing.standing is Standing.SOUND for egg in eggs[:5])
    assert eggs[0].causes[0].cause == "dry box"
    assert DueKind.DENTS in due_kinds(box)


def test_eggs_that_answer_water_are_told_and_those_that_do_not(box: SnapshotCache) -> None:
    dented = tuple(EggSeen(n, grade=2) for n in (1, 2, 3))
    close_visit(visit("a", 8, eggs=dented, water_g=60.0), NOW_S - 8 * DAY_S)
    assert DueKind.DENTS in due_kinds(box, NOW_S - 5 * DAY_S)  # look whether they answered
    answered = (EggSeen(1, grade=0), EggSeen(2, grade=1))
    close_visit(visit("b", 4, eggs=answered), NOW_S - 4 * DAY_S)
    close_visit(visit("c", 1), NOW_S - DAY_S)
    told = now(box)
    assert told.box.judged.answered_water == ("1", "2")
    assert told.box.judged.no_answer == ("3",)
    assert told.eggs[1].causes[0].reasons[-1] == "+ it rounded out after water"


def test_a_visit_takes_the_box_off_the_list_and_postponing_is_remembered(
    box: SnapshotCache,
) -> None:
    assert DueKind.RHYTHM in due_kinds(box)
    putting_off = postpone(CODE, DueKind.RHYTHM, 2, NOW_S)
    assert DueKind.RHYTHM not in due_kinds(box)
    ((due, until_s),) = on_round(box).box.postponed
    assert (due.kind, until_s) == (DueKind.RHYTHM, int(NOW_S + 2 * DAY_S))
    assert DueKind.RHYTHM in due_kinds(box, NOW_S + 2.1 * DAY_S)
    postpone(CODE, DueKind.RHYTHM, 3, NOW_S)
    assert on_round(box).box.postponed[0][1] == int(NOW_S + 3 * DAY_S)
    undo(putting_off.id + 1, NOW_S)
    assert on_round(box).box.postponed[0][1] == int(NOW_S + 2 * DAY_S)
    with pytest.raises(NotPlausible, match="days"):
        postpone(CODE, DueKind.RHYTHM, 60, NOW_S)
    close_visit(visit("a"), NOW_S)
    assert due_kinds(box) == []


def test_set_and_forget_is_not_opened_by_the_calendar(box: SnapshotCache) -> None:
    method = replace(method_of_clutch(now(box).clutch.entity_id), visits=Visits.SET_AND_FORGET)
    change_clutch_method(CODE, method, NOW_S)
    assert DueKind.RHYTHM not in due_kinds(box)


def test_what_if_another_closing_or_a_damper_cabinet(box: SnapshotCache) -> None:
    as_is = what_if_water(box.current(), CODE, NOW_S, OtherClosing())
    sealed = what_if_water(box.current(), CODE, NOW_S, OtherClosing(Closing.SEALED_FILM))
    damp = what_if_water(box.current(), CODE, NOW_S, OtherClosing(humidity=0.9))
    assert as_is is not None
    assert sealed is not None
    assert damp is not None
    assert sealed.loss_g_day < damp.loss_g_day < as_is.loss_g_day
    assert sealed.share == as_is.share
    with pytest.raises(NotFound):
        what_if_water(box.current(), "26-99", NOW_S, OtherClosing())


def test_the_cabinet_draws_the_lid_as_it_was_found(box: SnapshotCache) -> None:
    close_visit(visit("a", signs=(("lid", "raining"),)), NOW_S)
    (shelf,) = cabinet_now(box.current(), "North", NOW_S).shelves
    assert [b.lid for b in shelf.boxes] == ["raining"]


def test_a_lid_that_rains_is_told_of_until_it_is_wiped(box: SnapshotCache) -> None:
    close_visit(visit("a", 1, signs=(("lid", "raining"),)), NOW_S - DAY_S)
    assert next(a.text for a in attention(now(box), NOW_S)).startswith("The lid rains: drops on")
    close_visit(visit("b", acts=(BoxActKind.WIPED_LID,)), NOW_S)
    assert [a for a in attention(now(box), NOW_S) if "lid" in a.text] == []


def test_the_phones_list_gives_what_the_scale_rule_gives(box: SnapshotCache) -> None:
    steps = on_round(box).top_ups
    for mass in range(1000, 1201):
        found = next(s for s in steps if mass >= s.from_g)
        rule = top_up(1200.0, float(mass), 200.0)
        assert (found.add_g, found.today_g, found.split) == (
            rule.add_g, rule.today_g, rule.split,
        ), mass  # fmt: skip


def test_taking_the_grid_out_is_drawn_and_moving_to_paper_ends_the_last_weeks_reminder(
    house: SnapshotCache,
) -> None:
    laid = 57.0
    lay_clutch(lay_day(laid, medium="saturated perlite"), NOW_S - laid * DAY_S + 60)
    method = replace(method_of_clutch(now(house).clutch.entity_id), last_days=LastDays.MOVE)
    change_clutch_method(CODE, method, NOW_S)
    assert now(house).box.on_grid
    assert DueKind.LAST_DAYS in due_kinds(house)
    close_visit(visit("grid", acts=(BoxActKind.REMOVED_GRID,)), NOW_S)
    assert not now(house).box.on_grid
    assert DueKind.LAST_DAYS in due_kinds(house)
    close_visit(visit("paper", acts=(BoxActKind.MOVED_TO_PAPER,)), NOW_S)
    assert DueKind.LAST_DAYS not in due_kinds(house)


def test_a_collision_stands_in_the_log_of_the_clutch_too(box: SnapshotCache) -> None:
    seen = on_round(box).seen_act
    close_visit(visit("other", seen_act=seen), NOW_S)
    told = close_visit(visit("mine", seen_act=seen), NOW_S)
    assert told.act.summary.endswith("collided with another device")


def test_phones_that_deliver_at_once_wait_for_each_other(box: SnapshotCache) -> None:
    """Not for SQLite, which tries again for so long and then says that it is busy."""

    def bring(phone: int) -> list[object]:
        database.execute_sql("PRAGMA busy_timeout = 0")
        try:
            return list(deliver([visit(f"{phone}.{n:03d}") for n in range(120)], NOW_S))
        finally:
            database.close()

    with ThreadPoolExecutor(4) as phones:
        told = [outcome for outcomes in phones.map(bring, range(4)) for outcome in outcomes]
    assert len(told) == 480
    assert all(isinstance(outcome, Closed) and not outcome.known for outcome in told)
