"""Is each cabinet ready for eggs? Answered from what its probes measured."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from sandboa.core.climate import Condition, Readiness, Requirement, readiness
from sandboa.core.climate.readiness import LOOK_BACK_HOURS, STEADY_HOURS
from sandboa.core.development import ReadingSeries
from sandboa.core.units import SECONDS_PER_HOUR
from sandboa.records.house import Cabinet, Probe
from sandboa.services.probes.calibrated_readings import record_of
from sandboa.services.snapshot.snapshot import Snapshot

#: Without the numbers: those go beside it, in the keeper's unit.
_WORDS = {
    Requirement.NO_GAP: "a gap in its readings",
    Requirement.DAILY_SWING: "swings too far within a day",
    Requirement.WHOLE_SWING: "drifts too far within 48 h",
    Requirement.MEAN: "its mean is off target",
}


@dataclass(frozen=True, slots=True)
class ProbeReadiness:
    probe: str
    told: Readiness


@dataclass(frozen=True, slots=True)
class CabinetReadiness:
    """`ready` when every logger's probe in the cabinet is; `text` says what is wrong, since when.

    `since_s` is None when it was so for as long as 14 days tell.
    """

    cabinet: str
    target_c: float | None
    ready: bool
    since_s: float | None
    text: str
    probes: tuple[ProbeReadiness, ...]


def cabinets_readiness(snapshot: Snapshot, now_s: float) -> list[CabinetReadiness]:
    """Every cabinet of the house, by name."""
    cabinets = sorted(snapshot.cabinets.values(), key=lambda c: c.name.casefold())
    return [_cabinet(snapshot, cabinet, now_s) for cabinet in cabinets]


def _cabinet(snapshot: Snapshot, cabinet: Cabinet, now_s: float) -> CabinetReadiness:
    set_points = snapshot.cabinet(cabinet.entity_id).set_points
    target_c = set_points.at(now_s) if set_points else None
    loggers = list(_loggers(snapshot, cabinet))
    rules = snapshot.settings.rules.climate
    if target_c is None or not loggers:
        why = "no set point is recorded" if target_c is None else "no logger hangs in it"
        text = f"Not known: {why}. Readiness is measured, 48 h of readings."
        return CabinetReadiness(cabinet.name, target_c, False, None, text, ())
    told = tuple(
        ProbeReadiness(p.name, readiness(_record(snapshot, p, now_s), target_c, now_s, rules))
        for p in loggers
    )
    ready = all(p.told.ready for p in told)
    sinces = [p.told.since_s for p in told if p.told.ready is ready]
    known = [s for s in sinces if s is not None]
    if ready:
        since_s = max(known, default=None)
    else:
        since_s = None if len(known) < len(sinces) else min(known, default=None)
    return CabinetReadiness(cabinet.name, target_c, ready, since_s, _text(told, ready), told)


def _record(snapshot: Snapshot, probe: Probe, now_s: float) -> ReadingSeries:
    """What the probe measured where it hangs now, offsets added, as far as readiness looks back."""
    place = snapshot.probe(probe.entity_id).locations.last
    assert place is not None, "a probe taken down is not asked"
    from_s = now_s - (LOOK_BACK_HOURS + STEADY_HOURS + 3) * SECONDS_PER_HOUR
    return record_of(snapshot, probe, place, from_s, now_s)


def _loggers(snapshot: Snapshot, cabinet: Cabinet) -> Iterator[Probe]:
    shelves = [s.entity_id for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id]
    for place in (cabinet.entity_id, *shelves):
        yield from (p for p in snapshot.probes_at.get(place, []) if not p.by_hand)


def _text(told: tuple[ProbeReadiness, ...], ready: bool) -> str:
    if ready:
        return "Ready: steady on target for 48 h."
    parts = [f"{p.probe}: {_failing(p.told.failing)}" for p in told if not p.told.ready]
    return f"Not yet. {'; '.join(parts)}."


def _failing(conditions: Sequence[Condition]) -> str:
    if any(condition.value is None for condition in conditions):
        return "no readings"
    return " and ".join(_WORDS[condition.requirement] for condition in conditions)
