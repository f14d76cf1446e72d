"""Cabinets, boxes that move, probes that move and are checked: and what the eggs had of it."""

import math

import pytest

from samples import DAY_S, NOW_S, curve_of, lay_day
from sandboa.core.climate.probe_checks import reference_check
from sandboa.core.errors import NotPlausible
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    add_cabinet,
    change_set_point,
    correct_cabinet,
    move_box,
)
from sandboa.services.climate.cabinet_view import cabinet_now
from sandboa.services.climate.trace import climate_trace
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import correct_clutch, lay_clutch
from sandboa.services.probes.commands import (
    ProbePlace,
    check_probe,
    hang_probe,
    leave_out,
    move_probe,
)
from sandboa.services.probes.devices import add_device
from sandboa.services.readings.intake import take_in
from sandboa.services.snapshot.cache import SnapshotCache

NORTH = CabinetCommand("North", CabinetKind.HOME_BUILT, ("upper", "lower"), 400.0, 6.0)


@pytest.fixture
def north(house: SnapshotCache) -> SnapshotCache:
    """North with two shelves and a clutch of ten days on the lower one, its device and probes."""
    began_s = NOW_S - 30 * DAY_S
    add_cabinet(NORTH, 31.5, began_s, began_s)
    lay_clutch(lay_day(), NOW_S - 10 * DAY_S + 60)
    device = add_device("Gateway", began_s).device
    for name, shelf in (("Up", "upper"), ("Low", "lower")):
        hang_probe(name, ProbePlace(cabinet="North", shelf=shelf), began_s, began_s,
                   device=device.entity_id)  # fmt: skip
    for name, degrees in (("Up", 32.0), ("Low", 30.0)):
        rows = [(name, int(began_s + m), degrees, 0.6) for m in range(0, int(30 * DAY_S) + 1, 900)]
        take_in(device, rows, NOW_S)
    return house


def mean_c(house: SnapshotCache) -> float:
    """Mean temperature the clutch had so far."""
    facts = house.current()
    curve = curve_of(facts, facts.clutches[0], NOW_S)
    stretches = curve.temperature.stretches
    weighted = sum(float(s.temperature_c.mean()) * s.seconds for s in stretches)
    return weighted / sum(s.seconds for s in stretches)


def test_a_box_that_moves_has_the_temperature_of_where_it_stood(north: SnapshotCache) -> None:
    assert mean_c(north) == pytest.approx(30.0)
    moved = move_box("26-01", "North", "upper", NOW_S - 5 * DAY_S, NOW_S)
    assert mean_c(north) == pytest.approx(31.0, abs=0.01)
    shelves = {s.shelf.name: s for s in cabinet_now(north.current(), "North", NOW_S).shelves}
    assert [b.box.name for b in shelves["upper"].boxes] == ["26-01"]
    assert shelves["lower"].boxes == ()
    undo(moved.id, NOW_S)
    assert mean_c(north) == pytest.approx(30.0)


def test_a_corrected_clutch_keeps_where_its_box_began(north: SnapshotCache) -> None:
    """The form tells where the box stands now; saved unchanged it rewrites no history."""
    move_box("26-01", "North", "upper", NOW_S - 5 * DAY_S, NOW_S)
    correct_clutch("26-01", lay_day(shelf="upper", code="26-01", set_point_c=31.5), NOW_S)
    facts = north.current()
    stays = facts.box(facts.box_called("26-01").entity_id).locations
    assert [facts.shelves[place].name for place in stays.place] == ["lower", "upper"]
    correct_clutch("26-01", lay_day(shelf="lower", code="26-01", set_point_c=31.5), NOW_S)
    facts = north.current()
    stays = facts.box(facts.box_called("26-01").entity_id).locations
    assert [facts.shelves[place].name for place in stays.place] == ["lower", "lower"]


def test_moves_that_cannot_be_are_refused(north: SnapshotCache) -> None:
    with pytest.raises(NotPlausible, match="already"):
        move_box("26-01", "North", "lower", NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="before box 26-01 was set up"):
        move_box("26-01", "North", "upper", NOW_S - 20 * DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="future"):
        move_box("26-01", "North", "upper", NOW_S + DAY_S, NOW_S)
    with pytest.raises(NotFound, match="no shelf attic"):
        move_box("26-01", "North", "attic", NOW_S, NOW_S)
    with pytest.raises(NotFound, match="no cabinet South"):
        move_box("26-01", "South", "lower", NOW_S, NOW_S)


def test_a_probe_that_moves_leaves_its_readings_where_they_were(north: SnapshotCache) -> None:
    """The lower probe goes into the box for the last two days: the box's own record counts."""
    low = next(p for p in north.current().probes.values() if p.name == "Low")
    move_probe(low.entity_id, ProbePlace("26-01"), NOW_S - 2 * DAY_S, NOW_S)
    facts = north.current()
    stretches = curve_of(facts, facts.clutches[0], NOW_S).temperature.stretches
    assert [s.provenance for s in stretches] == ["shelf probe", "box probe"]
    assert [round(s.seconds / DAY_S) for s in stretches] == [8, 2]
    move_probe(low.entity_id, None, NOW_S - DAY_S, NOW_S)
    facts = north.current()
    stretches = curve_of(facts, facts.clutches[0], NOW_S).temperature.stretches
    assert [s.provenance for s in stretches][-1] == "set point"
    # The shelf's usual difference from the set point holds where nothing measured.
    assert stretches[-1].temperature_c[0] == pytest.approx(30.0, abs=0.01)


def test_an_offset_is_added_from_its_check_on(north: SnapshotCache) -> None:
    low = next(p for p in north.current().probes.values() if p.name == "Low")
    check_probe(low.entity_id, reference_check(NOW_S - 5 * DAY_S, 30.0, 30.6), NOW_S)
    assert mean_c(north) == pytest.approx(30.3, abs=0.01)
    trace = climate_trace(north.current(), "North", NOW_S - 10 * DAY_S, NOW_S)
    (lower,) = (p for p in trace.probes if p.probe.name == "Low")
    assert lower.temperature.low[3] == pytest.approx(30.0)
    assert lower.temperature.high[-3] == pytest.approx(30.6)


def test_readings_left_out_are_kept_and_not_used(north: SnapshotCache) -> None:
    low = next(p for p in north.current().probes.values() if p.name == "Low")
    left = leave_out(low.entity_id, NOW_S - 6 * DAY_S, NOW_S - DAY_S, "it lay on the floor", NOW_S)
    facts = north.current()
    temperature = curve_of(facts, facts.clutches[0], NOW_S).temperature
    assert temperature.measured_share == pytest.approx(0.5, abs=0.01)
    undo(left.id, NOW_S)
    assert mean_c(north) == pytest.approx(30.0)
    with pytest.raises(NotPlausible, match="ends before"):
        leave_out(low.entity_id, NOW_S, NOW_S - 1, "", NOW_S)


def test_a_set_point_is_an_event_with_a_time(north: SnapshotCache) -> None:
    change_set_point("North", 30.0, NOW_S - 3 * DAY_S, NOW_S)
    facts = north.current()
    told = clutch_page(facts, "26-01", NOW_S).now.set_points
    assert [told.at(NOW_S - d * DAY_S) for d in (5, 2)] == [31.5, 30.0]
    events = cabinet_now(north.current(), "North", NOW_S).events
    assert [str(e.text) for e in events if e.kind == "set point"] == [
        "Set to 31.5 °C",
        "Set to 30.0 °C",
    ]
    with pytest.raises(NotPlausible):
        change_set_point("North", 40.0, NOW_S, NOW_S)


def test_a_cabinet_is_corrected_and_shelves_with_a_history_stay(north: SnapshotCache) -> None:
    with pytest.raises(Conflict, match="already"):
        add_cabinet(CabinetCommand("north", CabinetKind.BOUGHT, ("a",)), 31.0, NOW_S, NOW_S)
    with pytest.raises(Conflict, match="stay"):
        correct_cabinet("North", CabinetCommand("North", CabinetKind.BOUGHT, ("upper",)), NOW_S)
    with pytest.raises(NotPlausible, match="two names"):
        correct_cabinet("North", CabinetCommand("North", CabinetKind.BOUGHT, ("a", "A")), NOW_S)
    said = CabinetCommand("Polar", CabinetKind.BOUGHT, ("attic", "lower", "upper"), 300.0, None)
    correct_cabinet("North", said, NOW_S)
    told = cabinet_now(north.current(), "Polar", NOW_S)
    assert [s.shelf.name for s in told.shelves] == ["attic", "lower", "upper"]
    assert (told.cabinet.kind, told.cabinet.volume_l) == ("bought", 300.0)


def test_the_trace_of_a_season_loses_no_peak_and_is_raw_when_short(north: SnapshotCache) -> None:
    device = next(iter(north.current().devices.values()))
    peak_s = int(NOW_S - 12 * DAY_S) + 7
    take_in(device, [("Low", peak_s, 36.4, None), ("Low", peak_s + 60, 24.2, None)], NOW_S)
    season = climate_trace(north.current(), "North", NOW_S - 30 * DAY_S, NOW_S, points=200)
    assert season.count <= 201
    (lower,) = (p for p in season.probes if p.probe.name == "Low")
    assert max(v for v in lower.temperature.high if not math.isnan(v)) == 36.4
    assert min(v for v in lower.temperature.low if not math.isnan(v)) == 24.2
    near = climate_trace(north.current(), "North", peak_s - 3600, peak_s + 3600)
    assert (near.raw, near.bucket_s) == (True, 60.0)
    with pytest.raises(NotPlausible):
        climate_trace(north.current(), "North", NOW_S, NOW_S - 1)


def test_water_left_is_told_by_physics(north: SnapshotCache) -> None:
    told = cabinet_now(north.current(), "North", NOW_S)
    (box,) = told.shelves[1].boxes
    assert box.water is not None
    left = box.water.left
    assert left is not None
    assert 0.9 < left.share < 1.0
    assert left.share_low < left.share < left.share_high


def test_a_clutch_laid_today_is_forecast_from_what_its_shelf_was_before(
    north: SnapshotCache,
) -> None:
    """Half a day without heat on lay day, and no more than that: the weeks to come are as usual."""
    lay_clutch(lay_day(0.25, dam="Tansy"), NOW_S)
    facts = north.current()
    (low,) = (p for p in facts.probes.values() if p.name == "Low")
    device = facts.devices[low.device_id]
    rows = [("Low", int(NOW_S + m), 24.0, 0.6) for m in range(450, int(0.4 * DAY_S), 900)]
    take_in(device, rows, NOW_S + 0.4 * DAY_S)
    later_s = NOW_S + 0.4 * DAY_S
    facts = north.current()
    tansy = facts.clutches[-1]
    curve = curve_of(facts, tansy, later_s)
    assert curve.temperature.future_c == pytest.approx(30.0)
    assert curve.temperature.future.probe == "Low"
    # Set to something else this morning, what was before says nothing any more.
    change_set_point("North", 29.0, NOW_S, later_s)
    facts = north.current()
    changed = curve_of(facts, facts.clutches[-1], later_s).temperature
    assert changed.future.probe is None
    assert changed.future_c != pytest.approx(30.0)
