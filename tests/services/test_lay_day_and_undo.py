"""Recording, correcting and undoing on a real database: nothing is overwritten, all comes back."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.box import Shell
from sandboa.core.errors import NotPlausible
from sandboa.records.clutches import Clutch, Egg, Turgor
from sandboa.records.facts import Act
from sandboa.records.house import SetPoint
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import grade_egg, water_box
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import EggLaid, correct_clutch, lay_clutch
from sandboa.services.overview.today import today
from sandboa.services.snapshot.cache import SnapshotCache


def codes(house: SnapshotCache) -> list[str]:
    return [c.box.box.name for c in today(house.current(), NOW_S).boxes]


def test_a_clutch_laid_shows_with_day_count_and_next_code(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(10.0), NOW_S)
    again, _ = lay_clutch(lay_day(3.0, dam="Tansy"), NOW_S)
    assert (code, again) == ("26-01", "26-02")
    page = clutch_page(house.current(), "26-01", NOW_S)
    assert str(page.now.count) == "6-1"
    assert page.now.forecast.day == pytest.approx(10.0)
    assert page.now.forecast.development == pytest.approx(10 * 12.5 / 735)
    assert page.rests_on.startswith("Not measured by a probe yet")


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"laid_at": datetime(2027, 1, 1, tzinfo=UTC)}, "laid_at"),
        ({"laid_at": datetime(1979, 12, 31, tzinfo=UTC)}, "laid_at"),
        ({"eggs": ()}, "eggs"),
        ({"eggs": tuple(EggLaid(0.02 * i, 0.3) for i in range(40))}, "eggs"),
        ({"eggs": (EggLaid(0.5, 0.5), EggLaid(0.5, 0.5))}, "eggs"),
        ({"eggs": (EggLaid(1.5, 0.5),)}, "eggs"),
        ({"dam": "🐍"}, "dam"),
        ({"dam": "a" * 10_000}, "dam"),
        ({"medium": "sawdust"}, "medium"),
        ({"water_g": float("nan")}, "water"),
        ({"dry_mass_g": 0.0}, "dry_mass_g"),
        ({"set_point_c": 451.0}, "set point"),
        ({"cabinet": ""}, "cabinet"),
    ],
)
def test_bad_input_names_its_field_and_leaves_no_trace(
    house: SnapshotCache, changes, field
) -> None:
    with pytest.raises(NotPlausible) as refusal:
        lay_clutch(replace(lay_day(), **changes), NOW_S)
    assert refusal.value.field == field
    assert Act.select().count() == 0
    assert house.current().cabinets == {}
    assert house.current().animals == {}


def test_a_code_twice_and_a_sire_as_dam_are_refused(house: SnapshotCache) -> None:
    lay_clutch(lay_day(code="26-07"), NOW_S)
    with pytest.raises(Conflict, match="26-07"):
        lay_clutch(lay_day(code="26-07", dam="Tansy"), NOW_S)
    with pytest.raises(Conflict, match="recorded as a sire"):
        lay_clutch(lay_day(dam="Flint", sire=None), NOW_S)
    assert codes(house) == ["26-07"]


def test_undo_takes_a_clutch_away_with_all_it_brought_and_redo_brings_it_back(house) -> None:
    code, laying = lay_clutch(lay_day(), NOW_S)
    grade_egg(code, 2, 1, NOW_S, NOW_S)
    undone = undo(laying.id, NOW_S)
    assert codes(house) == []
    assert house.current().cabinets == {}
    with pytest.raises(NotFound):
        clutch_page(house.current(), code, NOW_S)
    with pytest.raises(Conflict, match="undone already"):
        undo(laying.id, NOW_S)
    undo(undone.id, NOW_S)
    assert codes(house) == [code]
    page = clutch_page(house.current(), code, NOW_S)
    assert page.now.eggs[1].grade == 1
    assert [e.undone for e in page.log if e.act.id == laying.id] == [False]


def test_undoing_the_first_clutch_leaves_later_ones_their_cabinet_and_animals(house) -> None:
    """The first clutch brought the cabinet, shelf, set point and sire that others use."""
    first, laying = lay_clutch(lay_day(20.0), NOW_S)
    second, _ = lay_clutch(lay_day(10.0, dam="Tansy"), NOW_S)
    undone = undo(laying.id, NOW_S)
    assert codes(house) == [second]
    now = clutch_page(house.current(), second, NOW_S).now
    assert (now.box.cabinet, now.box.shelf.name, now.sire, now.set_point_c) == (
        "North",
        "lower",
        "Flint",
        31.5,
    )
    assert "Sorrel" not in {a.name for a in house.current().animals.values()}
    undo(undone.id, NOW_S)
    assert codes(house) == [first, second]
    assert clutch_page(house.current(), first, NOW_S).now.dam == "Sorrel"


def test_undoing_a_clutch_withdraws_the_set_point_it_changed(house: SnapshotCache) -> None:
    lay_clutch(lay_day(20.0), NOW_S)
    _, laying = lay_clutch(lay_day(5.0, dam="Tansy", set_point_c=30.0), NOW_S)
    assert clutch_page(house.current(), "26-01", NOW_S).now.set_point_c == 30.0
    undo(laying.id, NOW_S)
    assert clutch_page(house.current(), "26-01", NOW_S).now.set_point_c == 31.5


def test_a_redone_clutch_whose_code_was_given_away_says_so(house: SnapshotCache) -> None:
    _, laying = lay_clutch(lay_day(code="26-05"), NOW_S)
    undone = undo(laying.id, NOW_S)
    lay_clutch(lay_day(code="26-05", dam="Tansy", cabinet="Small"), NOW_S)
    with pytest.raises(Conflict, match="given to something else"):
        undo(undone.id, NOW_S)
    assert codes(house) == ["26-05"]


def test_the_automatic_code_is_never_that_of_an_undone_clutch(house: SnapshotCache) -> None:
    code, laying = lay_clutch(lay_day(), NOW_S)
    undo(laying.id, NOW_S)
    again, _ = lay_clutch(lay_day(), NOW_S)
    assert (code, again) == ("26-01", "26-02")


def test_a_correction_supersedes_only_what_differs_and_keeps_the_earlier_value(house) -> None:
    day = lay_day()
    code, _ = lay_clutch(day, NOW_S)
    rough = replace(day.eggs[0], shells=(Shell.ROUGH,))
    earlier = datetime.fromtimestamp(NOW_S - 12 * DAY_S, UTC)
    _, correcting = correct_clutch(
        code, replace(day, eggs=(rough, *day.eggs[1:]), laid_at=earlier), NOW_S
    )
    page = clutch_page(house.current(), code, NOW_S)
    assert page.now.forecast.day == pytest.approx(12.0)
    assert page.now.eggs[0].shells == (Shell.ROUGH,)
    assert Egg.select().where(Egg.act_id == correcting.id).count() == 1
    assert Clutch.select().where(Clutch.superseded_by_id == correcting.id).count() == 1
    undo(correcting.id, NOW_S)
    page = clutch_page(house.current(), code, NOW_S)
    assert page.now.forecast.day == pytest.approx(10.0)
    assert page.now.eggs[0].shells == ()


def test_a_correction_of_the_day_and_of_a_place_is_undone_and_done_again(
    house: SnapshotCache,
) -> None:
    """It changes where an egg lies twice: since which moment, and at which place."""
    day = lay_day(10.0)
    code, _ = lay_clutch(day, NOW_S)
    moved = tuple(replace(egg, x=round(egg.x * 0.9, 4)) for egg in day.eggs)
    earlier = lay_day(11.0, eggs=moved)
    _, correcting = correct_clutch(code, earlier, NOW_S)

    def places() -> tuple[int, list[float]]:
        page = clutch_page(house.current(), code, NOW_S).now
        return page.day, [round(egg.x, 4) for egg in page.eggs]

    corrected = (11, [egg.x for egg in moved])
    assert places() == corrected
    undoing = undo(correcting.id, NOW_S)
    assert places() == (10, [round(egg.x, 4) for egg in day.eggs])
    undo(undoing.id, NOW_S)
    assert places() == corrected


def test_what_a_correction_changed_cannot_be_undone_past_it(house: SnapshotCache) -> None:
    day = lay_day()
    code, laying = lay_clutch(day, NOW_S)
    correct_clutch(code, replace(day, dam="Tansy"), NOW_S)
    with pytest.raises(Conflict, match="undo that first"):
        undo(laying.id, NOW_S)
    assert clutch_page(house.current(), code, NOW_S).now.dam == "Tansy"


def test_eggs_can_be_added_and_taken_off_by_correction(house: SnapshotCache) -> None:
    day = lay_day()
    code, _ = lay_clutch(day, NOW_S)
    correct_clutch(code, replace(day, eggs=day.eggs[:4]), NOW_S)
    assert str(clutch_page(house.current(), code, NOW_S).now.count) == "4-0"
    correct_clutch(code, replace(day, eggs=(*day.eggs, EggLaid(0.9, 0.9))), NOW_S)
    assert str(clutch_page(house.current(), code, NOW_S).now.count) == "7-1"


def test_set_points_are_recorded_once_and_hold_from_their_day(house: SnapshotCache) -> None:
    lay_clutch(lay_day(20.0), NOW_S)
    lay_clutch(lay_day(10.0, dam="Tansy"), NOW_S)
    assert SetPoint.select().count() == 1
    lay_clutch(lay_day(5.0, dam="Yarrow", set_point_c=30.0), NOW_S)
    first = clutch_page(house.current(), "26-01", NOW_S).now
    assert first.set_point_c == 30.0
    assert first.set_points.at(first.clutch.laid_s) == 31.5
    assert first.curve.now == pytest.approx((15 * 12.5 + 5 * 11.0) / 735)


def test_grades_make_the_judgement_of_egg_and_box_and_water_is_seen_to_help(house) -> None:
    code, _ = lay_clutch(lay_day(20.0), NOW_S)
    for number in (1, 2, 3):
        grade_egg(code, number, 2, NOW_S - 3 * DAY_S, NOW_S)
    then = clutch_page(house.current(), code, NOW_S - 2.9 * DAY_S).now
    assert then.box.judged.box.scope == "box"
    assert then.box.judged.box.early_eggs == ("1", "2", "3")
    water_box(code, 45.0, NOW_S - 2.5 * DAY_S, NOW_S)
    for number in (1, 2, 3):
        grade_egg(code, number, 0, NOW_S - 0.1 * DAY_S, NOW_S)
    now = clutch_page(house.current(), code, NOW_S).now
    assert now.box.judged.box.scope == "none"
    assert now.box.judged.answered_water == ("1", "2", "3")


@pytest.mark.parametrize(
    ("number", "grade", "days_ago", "error"),
    [
        (6, 1, 0.0, NotPlausible),  # a slug
        (9, 1, 0.0, NotFound),
        (1, 7, 0.0, NotPlausible),
        (1, 1, 11.0, NotPlausible),  # before lay
        (1, 1, -1.0, NotPlausible),  # tomorrow
    ],
)
def test_looks_that_cannot_be(house: SnapshotCache, number, grade, days_ago, error) -> None:
    code, _ = lay_clutch(lay_day(), NOW_S)
    with pytest.raises(error):
        grade_egg(code, number, grade, NOW_S - days_ago * DAY_S, NOW_S)
    assert Turgor.select().count() == 0


@settings(
    max_examples=15, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(st.lists(st.integers(0, 4), min_size=1, max_size=6), st.randoms())
def test_undoing_everything_in_any_allowed_order_leaves_what_was_before(house, grades, random):
    """Whatever is graded and undone, the clutch ends as it began."""
    code, _ = lay_clutch(lay_day(second_clutch=True), NOW_S)
    acts = [grade_egg(code, 1 + i % 5, g, NOW_S, NOW_S) for i, g in enumerate(grades)]
    random.shuffle(acts)
    for act in acts:
        undo(act.id, NOW_S)
    assert all(egg.grade is None for egg in clutch_page(house.current(), code, NOW_S).now.eggs)


def test_today_orders_by_cabinet_shelf_and_code_and_says_what_needs_attention(house) -> None:
    lay_clutch(lay_day(56.0, dam="Tansy"), NOW_S)
    code, _ = lay_clutch(lay_day(20.0, dam="Yarrow", cabinet="Attic", shelf="top"), NOW_S)
    lay_clutch(lay_day(90.0, dam="Borage", shelf="middle"), NOW_S)
    slugs = (EggLaid(0.4, 0.4, slug=True), EggLaid(0.6, 0.4, slug=True))
    lay_clutch(lay_day(1.0, dam="Hyssop", shelf="middle", eggs=slugs), NOW_S)
    grade_egg(code, 1, 3, NOW_S, NOW_S)
    standing = today(house.current(), NOW_S).boxes
    assert [(c.box.cabinet, c.box.shelf.name) for c in standing] == [
        ("Attic", "top"), ("North", "lower"), ("North", "middle"), ("North", "middle"),
    ]  # fmt: skip
    texts = {c.clutches[0].dam: " ".join(a.text for a in c.attention) for c in standing}
    assert "First pip likely in" in texts["Tansy"]
    assert "Egg 1" in texts["Yarrow"]
    assert "more than nine in ten that none will pip" in texts["Borage"]
    assert "Slugs only" in texts["Hyssop"]
