"""The temperature at a clutch's box, from the probes there are."""

from sandboa.core.development import (
    DEFAULT_CLOCK,
    BoxTemperature,
    DevelopmentCurve,
    Provenance,
    SetPoints,
    TemperatureSource,
    box_temperature,
    learned_offset_c,
)
from sandboa.core.development.box_temperature import (
    CHECKED_PROBE_SD_C,
    ESTIMATED_SD_C,
    HAND_GAP_S,
    UNCHECKED_PROBE_SD_C,
)
from sandboa.journal.house_now import Facts, HouseNow
from sandboa.records.clutches import Clutch
from sandboa.records.house import Probe


def set_points_of(facts: Facts, clutch: Clutch) -> SetPoints:
    """The set points of the cabinet the clutch's box stands in."""
    shelf = facts.shelves[facts.boxes[clutch.entity].shelf]
    return facts.set_points[shelf.cabinet]


def probes_of(facts: Facts, clutch: Clutch) -> list[Probe]:
    """Probes that can speak for the clutch's box: in the box, on its shelf, in its cabinet."""
    box = facts.boxes[clutch.entity]
    cabinet = facts.shelves[box.shelf].cabinet
    places = (box.entity, box.shelf, cabinet)
    return [probe for place in places for probe in facts.probes_at.get(place, [])]


def development_curve(
    house: HouseNow, facts: Facts, clutch: Clutch, as_of_s: float
) -> DevelopmentCurve:
    """D(t) of a clutch from everything recorded by `as_of_s` (handbook A2)."""
    temperature = _temperature_at_box(house, facts, clutch, as_of_s)
    return DevelopmentCurve(temperature, DEFAULT_CLOCK)


def _temperature_at_box(
    house: HouseNow, facts: Facts, clutch: Clutch, as_of_s: float
) -> BoxTemperature:
    box = facts.boxes[clutch.entity]
    shelf = facts.shelves[box.shelf]
    offset_c = _shelf_offset(house, facts, box.shelf, as_of_s)
    sources = [
        *_sources(house, facts, box.entity, Provenance.BOX_PROBE),
        *_sources(house, facts, box.shelf, Provenance.SHELF_PROBE),
        *_cabinet_sources(house, facts, shelf.cabinet, offset_c),
        *_by_hand(house, facts, (box.entity, box.shelf, shelf.cabinet)),
    ]
    return box_temperature(
        clutch.laid_s,
        max(as_of_s, clutch.laid_s),
        sources,
        facts.set_points[shelf.cabinet],
        shelf_offset_c=offset_c or 0.0,
    )


def _sources(
    house: HouseNow, facts: Facts, place: int, provenance: Provenance
) -> list[TemperatureSource]:
    return [
        TemperatureSource(
            provenance,
            house.series(probe.entity, facts.version),
            sd_c=CHECKED_PROBE_SD_C if probe.checked else UNCHECKED_PROBE_SD_C,
            name=probe.name,
        )
        for probe in facts.probes_at.get(place, [])
        if not probe.by_hand
    ]


def _cabinet_sources(
    house: HouseNow, facts: Facts, cabinet: int, offset_c: float | None
) -> list[TemperatureSource]:
    """The cabinet's probes, moved to the shelf; without a known offset they are a guess there."""
    one_shelf = sum(s.cabinet == cabinet for s in facts.shelves.values()) == 1
    known = offset_c is not None or one_shelf
    return [
        TemperatureSource(
            source.provenance,
            source.series,
            sd_c=source.sd_c if known else ESTIMATED_SD_C,
            offset_c=offset_c or 0.0,
            name=source.name,
        )
        for source in _sources(house, facts, cabinet, Provenance.CABINET_PROBE)
    ]


def _by_hand(house: HouseNow, facts: Facts, places: tuple[int, ...]) -> list[TemperatureSource]:
    return [
        TemperatureSource(
            Provenance.BY_HAND,
            house.series(probe.entity, facts.version),
            sd_c=ESTIMATED_SD_C,
            measured=False,
            longest_gap_s=HAND_GAP_S,
            name=probe.name,
        )
        for place in places
        for probe in facts.probes_at.get(place, [])
        if probe.by_hand
    ]


def _shelf_offset(house: HouseNow, facts: Facts, shelf: int, as_of_s: float) -> float | None:
    """The shelf's learned offset against the cabinet's probe, or None when none can be learned."""
    cabinet = facts.shelves[shelf].cabinet
    here = [p for p in facts.probes_at.get(shelf, []) if not p.by_hand]
    there = [p for p in facts.probes_at.get(cabinet, []) if not p.by_hand]
    if not here or not there:
        return None
    return learned_offset_c(
        house.series(here[0].entity, facts.version),
        house.series(there[0].entity, facts.version),
        as_of_s,
    )
