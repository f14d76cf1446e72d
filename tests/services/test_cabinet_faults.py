"""A fan that stopped, as the house knows it: its shelves, what it cost, the clutches it touched."""

import pytest

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.climate.faults import FaultKind
from sandboa.devices.simulation import CabinetModel, Mishap, MishapKind, log_probe, run
from sandboa.devices.simulation.probes import Sensor
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    add_cabinet,
    move_box,
)
from sandboa.services.climate.faults import CabinetFault, cabinet_faults, clutch_faults
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import lay_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe, move_probe
from sandboa.services.probes.devices import add_device
from sandboa.services.readings.intake import take_in
from sandboa.services.snapshot.cache import SnapshotCache

SHELVES = ("upper", "middle", "lower")
STOPPED_S, TURNS_S = NOW_S - 6 * DAY_S, NOW_S - 4 * DAY_S


@pytest.fixture
def north(house: SnapshotCache) -> SnapshotCache:
    """Three shelves with a probe each, thirty days of them, the fan still for two; two clutches."""
    began_s = NOW_S - 30 * DAY_S
    add_cabinet(CabinetCommand("North", CabinetKind.BOUGHT, SHELVES), 31.5, began_s, began_s)
    device = add_device("Gateway", began_s).device
    model = CabinetModel(
        air_j_k=6_000.0,
        gain_per_c=0.2,
        heater_share=(0.74, 0.22, 0.04),
        still_air_w_k=0.06,
        mishaps=(Mishap(MishapKind.FAN_STOPS, STOPPED_S, TURNS_S),),
    )
    was = run(model, began_s, NOW_S, 300.0)
    for number, shelf in enumerate(SHELVES):
        hang_probe(shelf, ProbePlace(cabinet="North", shelf=shelf), began_s, began_s,
                   device=device.entity_id)  # fmt: skip
        logged = log_probe(shelf, was, number, sensor=Sensor(every_s=600.0), seed=number)
        take_in(device, [(shelf, *row) for row in logged.rows()], NOW_S)
    lay_clutch(lay_day(20.0, shelf="lower"), NOW_S)
    lay_clutch(lay_day(20.0, shelf="upper", dam="Tansy"), NOW_S)
    return house


def fan(house: SnapshotCache) -> CabinetFault:
    facts = house.current()
    (cabinet,) = facts.cabinets.values()
    found = cabinet_faults(facts, cabinet, NOW_S)
    (told,) = (f for f in found if f.fault.kind is FaultKind.FAN)
    return told


def test_the_fault_names_its_shelves_and_what_it_cost(north: SnapshotCache) -> None:
    told = fan(north)
    assert "lower" in told.shelves
    assert told.fault.start_s == pytest.approx(STOPPED_S, abs=3600)
    assert told.fault.end_s == pytest.approx(TURNS_S, abs=3600)
    # Two days at some 5 °C below 31.5: about 5/12.5 of them.
    assert 0.4 < told.delay_days < 1.2
    assert told.fault.degree_hours > 20


def test_the_delay_told_is_what_the_forecast_moved(north: SnapshotCache) -> None:
    """Two days after the fan turned again, against the hour before it stopped."""
    before = clutch_page(north.current(), "26-01", STOPPED_S - 3600).now.forecast
    after = clutch_page(north.current(), "26-01", TURNS_S + 2 * DAY_S).now.forecast
    moved_days = (after.typical_pip.p50 - before.typical_pip.p50) / DAY_S
    assert moved_days == pytest.approx(fan(north).delay_days, abs=0.25)


def test_a_clutch_is_told_of_what_touched_its_shelf_since_it_was_laid(north: SnapshotCache) -> None:
    def kinds(code: str) -> list[FaultKind]:
        now = clutch_page(north.current(), code, NOW_S).now
        return [told.fault.kind for told in clutch_faults(north.current(), now, NOW_S)]

    assert FaultKind.FAN in kinds("26-01")
    lay_clutch(lay_day(2.0, shelf="lower", dam="Yarrow"), NOW_S)
    assert kinds("26-03") == []


def test_a_probe_taken_down_is_not_silent(north: SnapshotCache) -> None:
    facts = north.current()
    (cabinet,) = facts.cabinets.values()
    lower = next(p for p in facts.probes.values() if p.name == "lower")
    move_probe(lower.entity_id, None, NOW_S - 60, NOW_S)
    later_s = NOW_S + 5 * 3600
    found = cabinet_faults(north.current(), cabinet, later_s)
    silent = {name for f in found if f.fault.kind is FaultKind.UNPLUGGED for name in f.fault.probes}
    assert silent == {"upper", "middle"}


def test_what_was_recognised_holds_until_something_changes(north: SnapshotCache) -> None:
    facts = north.current()
    (cabinet,) = facts.cabinets.values()
    first = cabinet_faults(facts, cabinet, NOW_S)
    assert cabinet_faults(facts, cabinet, NOW_S) is first
    move_box("26-01", "North", "upper", NOW_S, NOW_S)
    assert cabinet_faults(north.current(), cabinet, NOW_S) is not first
