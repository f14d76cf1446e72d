"""Readings in: once, in any order, all or nothing, and out again by undo."""

import os
import signal
import sqlite3
import subprocess
import sys
import textwrap
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.records import readings
from sandboa.records.database import database
from sandboa.records.facts import Act
from sandboa.records.integrity.check import check
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import lay_clutch
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import read_by_hand, store_file, store_readings
from sandboa.services.snapshot.cache import SnapshotCache


def rows(days: float = 10.0, temperature_c: float = 30.0, every_s: int = 600):
    start = int(NOW_S - days * DAY_S)
    return [(at, temperature_c, 0.9) for at in range(start, int(NOW_S), every_s)]


@pytest.fixture
def probe(house: SnapshotCache) -> int:
    lay_clutch(lay_day(10.0, second_clutch=True), NOW_S)
    hung, _ = hang_probe(
        "Lower", ProbePlace(cabinet="North", shelf="lower"), NOW_S - 20 * DAY_S, NOW_S
    )
    return hung.entity_id


def hours() -> list[tuple]:
    return database.execute_sql("SELECT * FROM reading_hour ORDER BY probe_id, hour").fetchall()


def test_readings_move_the_forecast_and_what_it_rests_on(house: SnapshotCache, probe: int) -> None:
    before = clutch_page(house.current(), "26-01", NOW_S)
    store_readings(probe, rows(), "csv", "log.csv", NOW_S)
    after = clutch_page(house.current(), "26-01", NOW_S)
    assert after.rests_on == "Measured the whole time."
    assert after.now.curve.now == pytest.approx(10 * 11 / 735, rel=1e-3)
    assert after.now.forecast.typical_pip.p50 > before.now.forecast.typical_pip.p50


def test_two_sensors_of_a_file_go_to_their_probes_and_out_again_in_one_go(
    house: SnapshotCache, probe: int
) -> None:
    other, _ = hang_probe("Upper", ProbePlace(cabinet="North"), NOW_S - 20 * DAY_S, NOW_S)
    parts = [(probe, rows()), (other.entity_id, rows(temperature_c=31.0))]
    lower, upper = store_file(parts, "csv", "both.csv", NOW_S)
    assert lower.new == upper.new == len(rows())
    assert lower.act is not None
    assert lower.act == upper.act
    assert lower.act.said == f"{2 * len(rows()):,} readings of Lower and Upper from both.csv"
    # A third file that is news to one of them says so of that one.
    more = [(probe, rows()), (other.entity_id, rows(days=11.0, temperature_c=31.0))]
    known, news = store_file(more, "csv", "more.csv", NOW_S)
    assert (known.new, known.act, known.known) == (0, None, len(rows()))
    assert news.new == 144
    undo(news.act.id, NOW_S)
    undo(lower.act.id, NOW_S)
    assert hours() == []
    with pytest.raises(NotPlausible, match="cannot be one probe"):
        store_file([(probe, rows()), (probe, rows())], "csv", "", NOW_S)
    with pytest.raises(NotFound):
        store_file([(probe, rows()), (9999, rows())], "csv", "", NOW_S)
    assert hours() == []


def test_the_same_file_twice_changes_nothing(house: SnapshotCache, probe: int) -> None:
    first = store_readings(probe, rows(), "csv", "log.csv", NOW_S)
    acts, rolled_up = Act.select().count(), hours()
    again = store_readings(probe, rows(), "csv", "log.csv", NOW_S)
    assert (first.new, again.new, again.known) == (1440, 0, 1440)
    assert again.act is None
    assert Act.select().count() == acts
    assert hours() == rolled_up


def test_a_contradicting_reading_is_told_and_the_first_value_kept(house, probe: int) -> None:
    store_readings(probe, rows(), "csv", "", NOW_S)
    at_s = rows()[5][0]
    told = store_readings(probe, [(at_s, 25.0, 0.9), (at_s + 1, 30.0, None)], "csv", "", NOW_S)
    assert (told.new, told.conflicting) == (1, ((at_s, 25.0, 0.9),))
    assert (at_s, 30.0, 0.9) in readings.all_of(probe)


def test_readings_from_before_the_probe_and_from_the_future_are_left_out(house, probe) -> None:
    early, late = int(NOW_S - 30 * DAY_S), int(NOW_S + DAY_S)
    told = store_readings(probe, [(early, 30.0, None), (late, 30.0, None)], "csv", "", NOW_S)
    assert (told.new, told.before_probe, told.in_future, told.act) == (0, 1, 1, None)
    with pytest.raises(NotFound):
        store_readings(9999, rows(1), "csv", "", NOW_S)


def test_undo_withdraws_a_file_and_redo_restores_it(house: SnapshotCache, probe: int) -> None:
    stored = store_readings(probe, rows(), "csv", "log.csv", NOW_S)
    rolled_up = hours()
    undone = undo(stored.act.id, NOW_S)
    assert readings.tip(probe).readings == 0
    assert hours() == []
    assert clutch_page(house.current(), "26-01", NOW_S).now.curve.temperature.measured_share == 0
    undo(undone.id, NOW_S)
    assert hours() == rolled_up
    assert clutch_page(house.current(), "26-01", NOW_S).now.curve.temperature.measured_share == 1


def test_a_corrected_file_of_the_same_length_replaces_the_undone_one(house, probe: int) -> None:
    """The held series must notice: same times, same number, other values."""
    wrong = store_readings(probe, rows(temperature_c=25.0), "csv", "wrong.csv", NOW_S)
    assert clutch_page(house.current(), "26-01", NOW_S).now.curve.temperature.future_c == 25.0
    undo(wrong.act.id, NOW_S)
    store_readings(probe, rows(temperature_c=31.0), "csv", "right.csv", NOW_S)
    assert clutch_page(house.current(), "26-01", NOW_S).now.curve.temperature.future_c == 31.0


@settings(
    max_examples=12, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(st.randoms(), st.integers(1, 9))
def test_any_order_of_batches_gives_the_same_series_and_roll_ups(house, random, batches) -> None:
    lay_clutch(lay_day(10.0, second_clutch=True), NOW_S)
    known = rows(2.0)
    results = []
    for name in ("in order", "shuffled"):
        hung, _ = hang_probe(
            f"{name} {Act.select().count()}", ProbePlace("26-01"), NOW_S - 9 * DAY_S, NOW_S
        )
        pieces = [known[i::batches] for i in range(batches)] if name == "shuffled" else [known]
        random.shuffle(pieces)
        for piece in pieces:
            store_readings(hung.entity_id, piece, "logger", "", NOW_S)
            series = house.current().readings.series(hung.entity_id, 0.0, NOW_S)
        results.append(
            (
                series.times_s.tolist(),
                [h[1:] for h in hours() if h[0] == hung.entity_id],
                readings.all_of(hung.entity_id),
            )
        )
    assert results[0] == results[1]


def test_by_hand_stands_in_between_and_refuses_what_cannot_be(house: SnapshotCache) -> None:
    lay_clutch(lay_day(3.0), NOW_S)
    box = ProbePlace(box="26-01")
    for days_ago in (3.0, 2.0, 1.0, 0.0):
        read_by_hand(box, NOW_S - days_ago * DAY_S, 30.0, 0.95, NOW_S)
    page = clutch_page(house.current(), "26-01", NOW_S)
    assert page.rests_on == "Not measured by a probe yet: the forecast rests on readings by hand."
    assert page.now.curve.now == pytest.approx(3 * 11 / 735)
    for temperature_c, humidity in (
        (451.0, None),
        (-40.0, None),
        (float("nan"), None),
        (30.0, 1.4),
    ):
        with pytest.raises(NotPlausible):
            read_by_hand(box, NOW_S, temperature_c, humidity, NOW_S)
    with pytest.raises(NotPlausible, match="already"):
        read_by_hand(box, NOW_S, 29.0, None, NOW_S)
    with pytest.raises(NotFound):
        read_by_hand(ProbePlace(cabinet="Nowhere"), NOW_S, 30.0, None, NOW_S)


def test_two_probes_need_two_names_and_silence_is_told(house: SnapshotCache, probe: int) -> None:
    with pytest.raises(Conflict, match="two names"):
        hang_probe("lower", ProbePlace(cabinet="North"), NOW_S, NOW_S)
    assert [p.name for p in today(house.current(), NOW_S).silent] == ["Lower"]
    store_readings(probe, rows(), "csv", "", NOW_S)
    assert today(house.current(), NOW_S).silent == ()
    assert today(house.current(), NOW_S + 3 * 3600).silent == (), "the next file is not due yet"
    assert [p.name for p in today(house.current(), NOW_S + 8 * DAY_S).silent] == ["Lower"]


def test_the_cabinet_probe_speaks_for_a_shelf_with_its_learned_offset(house, probe: int) -> None:
    cabinet, _ = hang_probe("Top", ProbePlace(cabinet="North"), NOW_S - 20 * DAY_S, NOW_S)
    store_readings(cabinet.entity_id, rows(temperature_c=31.5), "csv", "", NOW_S)
    half = [r for r in rows(temperature_c=31.0) if r[0] < NOW_S - 5 * DAY_S]
    store_readings(probe, half, "csv", "", NOW_S)
    temperature = clutch_page(house.current(), "26-01", NOW_S).now.curve.temperature
    assert [s.provenance for s in temperature.stretches] == ["shelf probe", "cabinet probe"]
    assert temperature.stretches[1].temperature_c[0] == pytest.approx(31.0)


def test_a_server_killed_in_the_middle_of_an_import_stores_nothing(tmp_path: Path) -> None:
    """SIGKILL while the rows are in, before the transaction is closed."""
    script = textwrap.dedent(
        f"""
        import os, signal, sys
        sys.path.insert(0, {str(Path(__file__).parents[1])!r})
        from pathlib import Path
        from samples import NOW_S, DAY_S, lay_day
        from sandboa.services.lay_day import lay_clutch
        from sandboa.services.probes.commands import ProbePlace, hang_probe
        from sandboa.services.readings import commands as intake
        from sandboa.records import readings
        from sandboa.records.database import open_database
        open_database(Path({str(tmp_path / "house.sqlite3")!r}))
        lay_clutch(lay_day(), NOW_S)
        probe, _ = hang_probe("P", ProbePlace("26-01"), NOW_S - 9 * DAY_S, NOW_S)
        store = readings.store
        def store_and_die(*arguments):
            store(*arguments)
            os.kill(os.getpid(), signal.SIGKILL)
        readings.store = store_and_die
        rows = [(int(NOW_S) - i, 30.0, None) for i in range(20_000)]
        intake.store_readings(probe.entity_id, rows, "csv", "", NOW_S)
        """
    )
    died = subprocess.run([sys.executable, "-c", script], env={**os.environ}, check=False)
    assert died.returncode == -signal.SIGKILL
    path = tmp_path / "house.sqlite3"
    with sqlite3.connect(path) as connection:
        counts = [
            connection.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
            for table in ("reading", "reading_hour", "batch")
        ]
        acts = [row[0] for row in connection.execute("SELECT kind FROM act")]
    connection.close()
    assert counts == [0, 0, 0]
    assert acts == ["lay", "probe"]
    assert check(path).problems == ()
