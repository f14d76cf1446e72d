"""A checked visit, written under one act: its eggs, the box and what was done."""

from sandboa.core.box import stored_marks
from sandboa.core.notes import clean_note
from sandboa.core.rounds import EggActKind
from sandboa.core.water.mixing import medium_named
from sandboa.records import rounds
from sandboa.records.clutches import Candling, Egg, EggEvent, ShellLook, Turgor, Watering
from sandboa.records.facts import Act
from sandboa.records.notes import Note
from sandboa.services.acts.preconditions import box_called
from sandboa.services.boxes.egg_moves import write_moves
from sandboa.services.boxes.set_up import BoxCommand, write_box
from sandboa.services.cabinets.commands import shelf_called, stand_on
from sandboa.services.rounds.box_under_visit import BoxUnderVisit
from sandboa.services.rounds.visit import EggSeen


def write_visit(visiting: Act, at: BoxUnderVisit, conflicts: tuple[str, ...]) -> None:
    """Record the visit and everything of it under the open act."""
    visit = at.visit
    recorded = rounds.Visit.record(
        visiting,
        box_id=at.box.entity_id,
        key=visit.key,
        opened_s=int(visit.opened_s),
        closed_s=at.at_s,
        conflict="\n".join(conflicts),
        rest_as_before=int(visit.rest_as_before),
    )
    write_findings(visiting, at, recorded.entity_id)


def write_findings(visiting: Act, at: BoxUnderVisit, visit_id: int) -> None:
    """Record under the open act what was seen and done at the visit with that id."""
    visit = at.visit
    if visit.note.strip():
        Note.record(visiting, about_id=visit_id, at_s=at.at_s, text=clean_note(visit.note))
    for seen, egg in zip(visit.eggs, at.eggs, strict=True):
        _write_egg(visiting, at, seen, egg)
    _write_box(visiting, at)
    for moved, eggs in zip(visit.moved, at.moved, strict=True):
        to = (
            box_called(moved.to)
            if moved.to is not None
            else write_box(visiting, moved.new or BoxCommand(), at.at_s, like=at.box)
        )
        write_moves(visiting, eggs, to, at.at_s)


def _write_egg(visiting: Act, at: BoxUnderVisit, seen: EggSeen, row: Egg) -> None:
    egg = row.entity_id
    if seen.grade is not None:
        Turgor.record(visiting, egg_id=egg, seen_s=at.at_s, grade=seen.grade)
    if seen.vessels is not None:
        Candling.record(
            visiting,
            egg_id=egg,
            seen_s=at.at_s,
            vessels=seen.vessels.value,
            disc=seen.disc.value if seen.disc else None,
        )
    if seen.shells is not None:
        shells = stored_marks(seen.shells)
        ShellLook.record(visiting, egg_id=egg, seen_s=at.at_s, shells=shells)
    for kind, value in seen.signs:
        rounds.EggSign.record(visiting, egg_id=egg, seen_s=at.at_s, kind=kind.value, value=value)
    for done in seen.acts:
        EggEvent.record(visiting, egg_id=egg, at_s=at.at_s, kind=done.value)
        if done is EggActKind.REMOVED:
            _take_out(visiting, at, seen, row)


def _take_out(visiting: Act, at: BoxUnderVisit, seen: EggSeen, egg: Egg) -> None:
    """An egg leaves the box with its mass: the reference goes down by as much.

    Unweighed it is no fact yet: the account takes what is usual until somebody knows better.
    """
    mass_g = seen.mass_g or egg.mass_g
    if mass_g:
        _change_mass(visiting, at, -mass_g, f"egg {egg.number}", egg.entity_id)


def _write_box(visiting: Act, at: BoxUnderVisit) -> None:
    visit, box = at.visit, at.box.entity_id
    for kind, value in visit.signs:
        rounds.BoxSign.record(visiting, box_id=box, seen_s=at.at_s, kind=kind, value=value)
    if visit.mass_g is not None:
        rounds.Weighing.record(visiting, box_id=box, at_s=at.at_s, mass_g=visit.mass_g)
    if visit.water_g is not None:
        Watering.record(visiting, box_id=box, poured_s=at.at_s, water_g=visit.water_g)
    if visit.mass_change_g:
        _change_mass(visiting, at, visit.mass_change_g, "put in or taken out")
    for done in visit.acts:
        rounds.BoxDone.record(visiting, box_id=box, at_s=at.at_s, kind=done.value)
    if visit.closing is not None:
        key = {"box_id": box, "from_s": at.at_s}
        rounds.ClosingChange.put(visiting, key, closing=visit.closing.value)
    if visit.fresh is not None:
        rounds.SetUp.record(
            visiting,
            box_id=box,
            at_s=at.at_s,
            medium=medium_named(visit.fresh.medium).name,
            water_g=visit.fresh.water_g,
            mass_g=visit.fresh.mass_g,
        )
    if visit.shelf is not None:
        stand_on(visiting, at.box, shelf_called(*visit.shelf), at.at_s)


def _change_mass(
    visiting: Act, at: BoxUnderVisit, delta_g: float, what: str, egg: int | None = None
) -> None:
    rounds.MassChange.record(
        visiting, box_id=at.box.entity_id, at_s=at.at_s, delta_g=delta_g, what=what, egg_id=egg
    )
