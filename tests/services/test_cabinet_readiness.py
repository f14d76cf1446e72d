"""Each cabinet of a house: ready or not yet, which probe fails what, since when."""

import numpy as np
import pytest

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.climate import Requirement
from sandboa.services.climate.readiness import cabinets_readiness
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.readings.commands import read_by_hand, store_readings
from sandboa.services.snapshot.cache import SnapshotCache

HOUR_S = 3600.0


def hang(name: str, shelf: str | None = "lower") -> int:
    place = ProbePlace(cabinet="North", shelf=shelf)
    probe, _ = hang_probe(name, place, NOW_S - 20 * DAY_S, NOW_S)
    return probe.entity_id


def steady(probe: int, celsius: float = 31.5, days: float = 6.0, until_s: float = NOW_S) -> None:
    times = np.arange(NOW_S - days * DAY_S, until_s, 600.0)
    rows = [(int(t), celsius + 0.2 * float(np.sin(t / DAY_S * 2 * np.pi)), None) for t in times]
    store_readings(probe, rows, "csv", "log.csv", NOW_S)


@pytest.fixture
def north(house: SnapshotCache) -> SnapshotCache:
    """A house with one cabinet set to 31.5 °C, nothing measured in it yet."""
    lay_clutch(lay_day(1.0), NOW_S)
    return house


def test_a_house_without_cabinets_has_nothing_to_be_ready(house: SnapshotCache) -> None:
    assert cabinets_readiness(house.current(), NOW_S) == []


def test_without_a_logger_it_is_not_known_and_says_why(north: SnapshotCache) -> None:
    (told,) = cabinets_readiness(north.current(), NOW_S)
    assert (told.cabinet, told.target_c, told.ready) == ("North", 31.5, False)
    assert told.text == (
        "Not known: no logger hangs in it. Readiness is measured, 48 h of readings."
    )
    # A thermometer read by hand is no record of 48 hours.
    read_by_hand(ProbePlace(cabinet="North"), NOW_S - 60, 31.5, None, NOW_S)
    assert "no logger" in cabinets_readiness(north.current(), NOW_S)[0].text


def test_two_steady_days_make_it_ready_since_their_end(north: SnapshotCache) -> None:
    steady(hang("Lower"), days=4.0)
    (told,) = cabinets_readiness(north.current(), NOW_S)
    assert told.ready
    assert told.text == "Ready: steady on target for 48 h."
    assert told.since_s == pytest.approx(NOW_S - 2 * DAY_S, abs=2 * HOUR_S)
    assert [p.probe for p in told.probes] == ["Lower"]


def test_one_shelf_off_target_keeps_the_whole_cabinet_from_being_ready(
    north: SnapshotCache,
) -> None:
    steady(hang("Lower"))
    steady(hang("Air", shelf=None), celsius=32.6)
    (told,) = cabinets_readiness(north.current(), NOW_S)
    assert not told.ready
    assert told.text == "Not yet. Air: its mean is off target."
    ready = {p.probe: p.told.ready for p in told.probes}
    assert ready == {"Air": False, "Lower": True}


def test_a_logger_that_fell_silent_is_named_with_since_when(north: SnapshotCache) -> None:
    probe = hang("Lower")
    silent_since_s = NOW_S - 9 * HOUR_S
    steady(probe, until_s=silent_since_s)
    (told,) = cabinets_readiness(north.current(), NOW_S)
    assert told.text == "Not yet. Lower: a gap in its readings."
    (condition,) = told.probes[0].told.failing
    assert condition.requirement is Requirement.NO_GAP
    assert condition.value == pytest.approx(9.0, abs=0.3)
    assert told.since_s == pytest.approx(silent_since_s + 2 * HOUR_S, abs=HOUR_S)


def test_readings_that_arrive_late_make_it_ready_after_all(north: SnapshotCache) -> None:
    probe = hang("Lower")
    steady(probe, until_s=NOW_S - 9 * HOUR_S)
    assert not cabinets_readiness(north.current(), NOW_S)[0].ready
    steady(probe, days=0.5)
    assert cabinets_readiness(north.current(), NOW_S)[0].ready


def test_a_probe_with_no_reading_at_all_says_so(north: SnapshotCache) -> None:
    hang("Lower")
    assert cabinets_readiness(north.current(), NOW_S)[0].text == "Not yet. Lower: no readings."
