"""Probes: where they hang, since when, and the thermometer read by hand."""

from dataclasses import dataclass

from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_name
from sandboa.core.units import CLOCK_GRACE_S
from sandboa.journal.acts import act
from sandboa.journal.errors import Conflict, NotFound
from sandboa.records.clutches import Box, clutch_coded
from sandboa.records.facts import Act
from sandboa.records.house import Cabinet, Probe, Shelf, named


@dataclass(frozen=True, slots=True)
class ProbePlace:
    """Where a probe hangs: in a clutch's box, else on a shelf, else in a cabinet."""

    clutch: str | None = None
    cabinet: str | None = None
    shelf: str | None = None


def hang_probe(
    name: str, place: ProbePlace, since_s: float, now_s: float, *, checked: bool = False
) -> tuple[Probe, Act]:
    """Record a logger's probe hanging at a place since a time.

    `checked`: compared with a reference thermometer. Raises NotFound for an
    unknown place, Conflict when the name is taken, NotPlausible for a time in
    the future.
    """
    name = clean_name("probe", name)
    where, words = find_place(place)
    if since_s > now_s + CLOCK_GRACE_S:
        raise NotPlausible("since", "a probe cannot hang there from a time in the future")
    if named(Probe, name) is not None:
        raise Conflict(f"there is a probe {name} already: two probes need two names")
    with act("probe", f"Probe {name} hung in {words}", now_s) as hanging:
        probe = Probe.record(
            hanging,
            name=name,
            place=where,
            since_s=int(since_s),
            checked=int(checked),
            by_hand=0,
        )
    return probe, hanging


def hand_thermometer(recording: Act, place: ProbePlace, since_s: float) -> Probe:
    """The thermometer read by hand at a place, recorded on first use."""
    where, words = find_place(place)
    held = Probe.only(Probe.place == where, Probe.by_hand == 1)
    if held is not None:
        if held.since_s > since_s:
            return held.correct(recording, since_s=int(since_s))
        return held
    return Probe.record(
        recording,
        name=f"By hand, {words}"[:60],
        place=where,
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
    if place.clutch:
        clutch = clutch_coded(place.clutch)
        if clutch is None:
            raise NotFound(f"there is no clutch {place.clutch}")
        box = Box.of(clutch)
        return box.entity, f"box {clutch.code}"
    cabinet = named(Cabinet, place.cabinet or "")
    if cabinet is None:
        raise NotFound(f"there is no cabinet {place.cabinet or 'without a name'}")
    if not place.shelf:
        return cabinet.entity, cabinet.name
    shelf = next(
        (
            s
            for s in Shelf.current(Shelf.cabinet == cabinet.entity)
            if s.name.casefold() == place.shelf.casefold()
        ),
        None,
    )
    if shelf is None:
        raise NotFound(f"cabinet {cabinet.name} has no shelf {place.shelf}")
    return shelf.entity, f"{cabinet.name}, {shelf.name}"
