"""The Bench's what-if against the clutch itself, the log of the house, and Today's words."""

from dataclasses import replace

import pytest

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.development.bench import BenchClutch, what_if
from sandboa.core.errors import NotPlausible
from sandboa.services.acts.log import house_log
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import grade_egg, water_box
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import lay_clutch, suggested_code
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import store_readings
from sandboa.services.snapshot.cache import SnapshotCache


def test_the_bench_gives_the_numbers_of_the_clutch_for_the_same_input(house: SnapshotCache) -> None:
    """One logger in the box, not checked, with a gap: what scripts rely on."""
    code, _ = lay_clutch(lay_day(20.0), NOW_S)
    probe, _ = hang_probe("Box", ProbePlace(code), NOW_S - 20 * DAY_S, NOW_S)
    laid_s = int(NOW_S - 20 * DAY_S)
    rows = [(laid_s + i * 600, 30.0 + (i % 5) / 10, 0.95) for i in range(2880) if not 500 < i < 700]
    store_readings(probe.entity_id, rows, "csv", "", NOW_S)
    clutch = clutch_page(house.current(), code, NOW_S).now
    bench = what_if(BenchClutch(laid_s, NOW_S, 31.5, 5, rows))
    assert clutch.forecast is not None
    assert bench.forecast.none_alive == pytest.approx(clutch.forecast.none_alive)
    assert replace(bench.forecast, none_alive=0.0) == replace(clutch.forecast, none_alive=0.0)
    assert bench.rests_on == clutch_page(house.current(), code, NOW_S).rests_on
    assert bench.rests_on.endswith("1 gap filled from the set point.")


def test_a_cooler_set_point_is_later_and_the_past_stays_measured(house: SnapshotCache) -> None:
    laid_s = NOW_S - 30 * DAY_S
    rows = [(int(laid_s + i * 3600), 31.5, None) for i in range(721)]
    told = what_if(BenchClutch(laid_s, NOW_S, 31.5, 6, rows), other_set_point_c=30.0)
    left = 1 - 30 * 12.5 / 735
    assert told.shift_days == pytest.approx(left * (735 / 11 - 735 / 12.5), abs=0.02)
    assert told.other.development == pytest.approx(told.forecast.development)


@pytest.mark.parametrize(
    "arguments",
    [
        (NOW_S, NOW_S - DAY_S, 31.5, 6),
        (NOW_S - DAY_S, NOW_S, 45.0, 6),
        (NOW_S - DAY_S, NOW_S, float("nan"), 6),
        (NOW_S - DAY_S, NOW_S, 31.5, 0),
        (NOW_S - DAY_S, NOW_S, 31.5, 40),
    ],
)
def test_what_ifs_that_cannot_be(arguments: tuple) -> None:
    with pytest.raises(NotPlausible):
        what_if(BenchClutch(*arguments))


def test_the_same_reading_twice_in_a_file_counts_once_with_its_first_value() -> None:
    laid_s = NOW_S - DAY_S
    rows = [(int(laid_s + i * 3600), 30.0, None) for i in range(25)]
    double = [*rows, (rows[3][0], 15.0, None)]
    assert what_if(BenchClutch(laid_s, NOW_S, 31.5, 6, double)).forecast == (
        what_if(BenchClutch(laid_s, NOW_S, 31.5, 6, rows)).forecast
    )


def test_the_log_of_the_house_shows_all_newest_first_with_what_is_undone(
    house: SnapshotCache,
) -> None:
    code, _ = lay_clutch(lay_day(), NOW_S)
    grading = grade_egg(code, 1, 1, NOW_S, NOW_S)
    hang_probe("Lower", ProbePlace(cabinet="North"), NOW_S - DAY_S, NOW_S)
    undone = undo(grading.id, NOW_S)
    log = house_log()
    assert [entry.act.kind for entry in log] == ["undo", "probe", "grade", "lay"]
    assert [entry.undone for entry in log] == [False, False, True, False]
    again = undo(undone.id, NOW_S)
    assert [entry.undone for entry in house_log()] == [False, True, False, False, False]
    undo(again.id, NOW_S)
    assert clutch_page(house.current(), code, NOW_S).now.eggs[0].grade is None
    assert house_log(limit=2)[0].act.kind == "undo"


def test_today_says_that_water_helped_and_how_soon_pips_come(house: SnapshotCache) -> None:
    code, _ = lay_clutch(lay_day(25.0), NOW_S)
    grade_egg(code, 1, 2, NOW_S - 4 * DAY_S, NOW_S)
    water_box(code, 40.0, NOW_S - 3 * DAY_S, NOW_S)
    grade_egg(code, 1, 0, NOW_S - DAY_S, NOW_S)
    (line,) = today(house.current(), NOW_S).boxes
    assert [a.text for a in line.attention] == [
        "After watering, egg 1 rounded out: it had been short of water."
    ]
    assert line.urgency == "none"
    near = today(house.current(), NOW_S + 33 * DAY_S).boxes[0]
    assert any("First pip likely in" in a.text for a in near.attention)
    assert not any("watering" in a.text for a in near.attention)


def test_codes_run_on_through_the_year(house: SnapshotCache) -> None:
    assert suggested_code(2026) == "26-01"
    lay_clutch(lay_day(code="26-41"), NOW_S)
    lay_clutch(lay_day(code="GR-1", dam="Tansy"), NOW_S)
    assert (suggested_code(2026), suggested_code(2027)) == ("26-42", "27-01")
