"""Probes: where they hang and hung, checks, readings left out, and the thermometer read by hand."""

import math
from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.climate.probe_checks import Check, CheckKind
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature
from sandboa.core.names import clean_name
from sandboa.core.units import CLOCK_GRACE_S
from sandboa.records.facts import Act
from sandboa.records.house import LeftOut, ProbeCheck, ProbeMove, named
from sandboa.records.house import Probe as Probe
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.preconditions import box_called, of_this_moment, require_not_ahead
from sandboa.services.acts.recording import act
from sandboa.services.cabinets.commands import cabinet_called, shelf_called
from sandboa.services.probes.devices import find_device


@dataclass(frozen=True, slots=True)
class ProbePlace:
    """Where a probe hangs: in a box, else on a shelf, else in a cabinet."""

    box: str | None = None
    cabinet: str | None = None
    shelf: str | None = None


def hang_probe(
    name: str,
    place: ProbePlace,
    since_s: float,
    now_s: float,
    *,
    checked: bool = False,
    device: int | None = None,
) -> tuple[Probe, Act]:
    """Record a logger's probe hanging at a place since a time.

    `checked`: compared with a reference thermometer and found right. `device`
    sends its readings. Raises NotFound for an unknown place or device,
    Conflict when the name is taken, NotPlausible for a time in the future.
    """
    name = clean_name("probe", name)
    where, words = find_place(place)
    if since_s > now_s + CLOCK_GRACE_S:
        raise NotPlausible("since", "a probe cannot hang there from a time in the future")
    if named(Probe, name) is not None:
        raise Conflict(f"there is a probe {name} already: two probes need two names")
    with act(ActKind.PROBE, f"Probe {name} hung in {words}", now_s) as hanging:
        probe = Probe.record(
            hanging,
            name=name,
            place_id=where,
            since_s=int(since_s),
            checked=int(checked),
            by_hand=0,
            device_id=find_device(device).entity_id if device is not None else None,
        )
    return probe, hanging


def move_probe(entity: int, place: ProbePlace | None, at_s: float, now_s: float) -> Act:
    """Record that a probe was hung elsewhere, or taken down (None), at a time.

    Raises NotFound for an unknown probe or place; NotPlausible when it hangs there now
    and is told to be hung there now, or for a time before it first hung or ahead.
    """
    probe = logger_probe(entity)
    where, words = find_place(place) if place is not None else (None, "nowhere")
    _require_since_hung(probe, at_s, now_s)
    moves = sorted(ProbeMove.current(probe_id=entity), key=lambda m: m.from_s)
    hangs = next((m.place_id for m in reversed(moves) if m.from_s <= at_s), probe.place_id)
    if hangs == where and of_this_moment(at_s, now_s):
        raise NotPlausible("place", f"{probe.name} hangs there already")
    what = f"hung in {words}" if where else "taken down"
    with act(ActKind.PROBE, f"Probe {probe.name} {what}", now_s) as moving:
        same_time = next((m for m in moves if m.from_s == int(at_s)), None)
        if same_time is not None:
            same_time.correct(moving, place_id=where)
        else:
            ProbeMove.record(moving, probe_id=entity, place_id=where, from_s=int(at_s))
    return moving


def check_probe(entity: int, check: Check, now_s: float) -> Act:
    """Record a check against a reference or the salt test; its offset holds from its time.

    Raises NotFound for an unknown probe, NotPlausible for a time before it hung or ahead.
    """
    probe = logger_probe(entity)
    _require_since_hung(probe, check.at_s, now_s)
    if check.kind is CheckKind.REFERENCE:
        summary = Message(
            "Probe {probe} showed {shown} beside a reference of {reference}",
            probe=probe.name, shown=Temperature(check.shown, 2),
            reference=Temperature(check.expected, 2),
        )  # fmt: skip
    else:
        summary = Message(
            "Probe {probe} showed {shown:.1f} % over salt of {reference:.1f} %",
            probe=probe.name, shown=100 * check.shown, reference=100 * check.expected,
        )  # fmt: skip
    with act(ActKind.PROBE_CHECK, summary, now_s) as checking:
        ProbeCheck.record(
            checking,
            probe_id=entity,
            at_s=int(check.at_s),
            kind=check.kind.value,
            shown=check.shown,
            expected=check.expected,
        )
    return checking


def leave_out(entity: int, from_s: float, until_s: float, reason: str, now_s: float) -> Act:
    """Leave a probe's readings from..until out of what the eggs are judged by.

    They are kept, and drawn. Raises NotFound, or NotPlausible for an empty span.
    """
    probe = logger_probe(entity)
    if until_s <= from_s:
        raise NotPlausible("until", "it ends before it begins")
    why = " ".join(reason.split())[:200]
    summary = f"Readings of {probe.name} left out: {why or 'not believed'}"
    with act(ActKind.LEFT_OUT, summary, now_s) as leaving:
        LeftOut.record(
            leaving, probe_id=entity, from_s=int(from_s), until_s=math.ceil(until_s), reason=why
        )
    return leaving


def logger_probe(entity: int) -> Probe:
    """The logger's probe of that id; NotFound for none, NotPlausible for one read by hand."""
    probe = find_probe(entity)
    if probe.by_hand:
        raise NotPlausible("probe", "that is a thermometer read by hand, not a logger's probe")
    return probe


def _require_since_hung(probe: Probe, at_s: float, now_s: float) -> None:
    require_not_ahead(at_s, now_s)
    if at_s < probe.since_s:
        raise NotPlausible("at", f"that is before {probe.name} first hung anywhere")


def hand_thermometer(recording: Act, place: ProbePlace, since_s: float) -> Probe:
    """The thermometer read by hand at a place, recorded on first use."""
    where, words = find_place(place)
    held = Probe.only(place_id=where, by_hand=1)
    if held is not None:
        if held.since_s > since_s:
            return held.correct(recording, since_s=int(since_s))
        return held
    return Probe.record(
        recording,
        name=f"By hand, {words}"[:60],
        place_id=where,
        since_s=int(since_s),
        checked=0,
        by_hand=1,
    )


def find_probe(entity: int) -> Probe:
    """The probe with that id; NotFound otherwise."""
    probe = Probe.now(entity)
    if probe is None:
        raise NotFound("there is no such probe")
    return probe


def find_place(place: ProbePlace) -> tuple[int, str]:
    """Entity and words of a place; NotFound when there is none such."""
    if place.box:
        box = box_called(place.box)
        return box.entity_id, f"box {box.name}"
    cabinet = cabinet_called(place.cabinet or "")
    if not place.shelf:
        return cabinet.entity_id, cabinet.name
    shelf = shelf_called(cabinet.name, place.shelf)
    return shelf.entity_id, f"{cabinet.name}, {shelf.name}"
