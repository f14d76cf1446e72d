"""What the forms of a clutch, its boxes and eggs hold now; NotFound for an unknown one."""

from collections.abc import Iterable, Mapping
from dataclasses import asdict
from datetime import UTC, datetime
from typing import Any

from sandboa.core.box import shell_marks
from sandboa.records.animals import Trait
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Clutch,
    ClutchOrigin,
    Egg,
    PossibleSire,
    stay_of_egg,
)
from sandboa.records.hatching import Finding, Hatchling, Opening
from sandboa.records.house import Animal, Cabinet, SetPoint, Shelf
from sandboa.services.acts.preconditions import box_called, clutch_called, egg_of, first_box_of
from sandboa.services.acts.revisions import Form
from sandboa.services.cabinets.commands import set_points
from sandboa.services.forms.people_and_things import form_of_traits
from sandboa.services.lay_day.dam_at_laying import dam_at_laying
from sandboa.services.lay_day.egg_as_laid import egg_as_laid


def clutch_form(code: str) -> Form:
    """A clutch as laid, in the place where its box stands now."""
    clutch = clutch_called(code)
    box = first_box_of(clutch)
    cabinet, shelf = _place(box)
    return {
        "dam": _name(clutch.dam_id),
        "sire": _name(clutch.sire_id) if clutch.sire_id else None,
        "laid_at": datetime.fromtimestamp(clutch.laid_s, UTC).isoformat(),
        "eggs": [
            {"x": x, "y": y, "slug": bool(egg.slug), "shells": shell_marks(egg.shell)}
            for egg in _eggs(clutch)
            for x, y in (_lies(egg),)
        ],
        "box": box.name,
        "medium": box.medium,
        "dry_mass_g": box.dry_mass_g,
        "water_g": box.water_g,
        "closing": box.closing,
        "cabinet": cabinet.name,
        "shelf": shelf.name,
        "set_point_c": set_points(
            list(SetPoint.current(cabinet_id=cabinet.entity_id))
        ).at(clutch.laid_s),
    }  # fmt: skip


def egg_as_laid_form(code: str, number: int) -> Form:
    """What lay day said of an egg."""
    return asdict(egg_as_laid(code, number))


def dam_at_laying_form(code: str) -> Form:
    """What lay day said of a clutch's dam."""
    return asdict(dam_at_laying(code))


def sires_form(code: str) -> Form:
    """The sires a clutch may be of, by their ids; its sire alone where he is known."""
    clutch = clutch_called(code)
    possible = sorted(row.sire_id for row in PossibleSire.current(clutch_id=clutch.entity_id))
    return {"sires": possible or ([clutch.sire_id] if clutch.sire_id is not None else [])}


def origin_form(code: str) -> Form | None:
    """Where a clutch comes from that nobody saw laid; None where it was seen."""
    clutch = clutch_called(code)
    held = ClutchOrigin.only(clutch_id=clutch.entity_id)
    if held is None:
        return None
    known = held.laid_from_s is None and held.stage is None
    moments = {
        "laid_at": clutch.laid_s if known else None,
        "laid_from": held.laid_from_s,
        "laid_until": held.laid_until_s,
        "stage_seen_at": held.stage_seen_s,
        "arrived_at": held.arrived_s,
    }
    return {
        "kind": held.kind,
        "stage": held.stage,
        "before_c": held.before_c,
        **{
            name: None if at_s is None else datetime.fromtimestamp(at_s, UTC).isoformat()
            for name, at_s in moments.items()
        },
    }


def boxes_as_laid(code: str) -> list[str]:
    """The names of the boxes the eggs of a clutch were laid into, in the order of the eggs."""
    names = []
    for egg in _eggs(clutch_called(code)):
        stay = stay_of_egg(egg.entity_id, 0.0)
        box = None if stay is None else Box.now(stay.box_id)
        names.append("" if box is None else box.name)
    return names


def box_form(name: str) -> Form:
    """A box as it was set up."""
    box = box_called(name)
    return {
        "name": box.name,
        "medium": box.medium,
        "closing": box.closing,
        "contact": box.contact,
        "dry_mass_g": box.dry_mass_g,
        "water_g": box.water_g,
        "set_up_mass_g": box.set_up_mass_g,
        "species": box.species,
    }


def opening_form(code: str, number: int) -> Form | None:
    """What was found in a failed egg, None where nobody has looked."""
    egg = egg_of(clutch_called(code), number)
    held = Opening.only(egg_id=egg.entity_id)
    if held is None:
        return None
    findings: dict[str, list[str]] = {}
    for row in Finding.current(egg_id=egg.entity_id):
        findings.setdefault(row.kind, []).append(row.value)
    return form_of_opening(held, findings)


def form_of_opening(held: Opening, findings: Mapping[Any, Iterable[str]]) -> Form:
    """What was found in a failed egg, by kind of finding."""
    return {
        "opened": bool(held.opened),
        "findings": {str(kind): sorted(values) for kind, values in findings.items()},
        "note": held.note,
    }


def hatchling_form(code: str, number: int, part: int) -> Form | None:
    """What came out of an egg, None where nothing is recorded."""
    egg = egg_of(clutch_called(code), number)
    held = Hatchling.only(egg_id=egg.entity_id, part=part)
    if held is None:
        return None
    return form_of_hatchling(held, Trait.current(animal_id=held.entity_id))


def form_of_hatchling(held: Hatchling, traits: Iterable[Trait]) -> Form:
    """A hatchling with its traits; its weights are a list apart."""
    return {
        "sex": held.sex,
        "size": held.size,
        "yolk": held.yolk,
        "traits": form_of_traits(traits),
        "defects": held.defects.split(",") if held.defects else [],
        "note": held.note,
        "plain": bool(held.plain),
    }


def _place(box: Box) -> tuple[Cabinet, Shelf]:
    moves = sorted(BoxMove.current(box_id=box.entity_id), key=lambda move: int(move.from_s))
    shelf = Shelf.now(moves[-1].shelf_id if moves else box.shelf_id)
    assert shelf is not None
    cabinet = Cabinet.now(shelf.cabinet_id)
    assert cabinet is not None
    return cabinet, shelf


def _eggs(clutch: Clutch) -> list[Egg]:
    return sorted(Egg.current(clutch_id=clutch.entity_id), key=lambda egg: int(egg.number))


def _lies(egg: Egg) -> tuple[float, float]:
    """Where an egg lay first."""
    stay = stay_of_egg(egg.entity_id, 0.0)
    return (0.5, 0.5) if stay is None else (stay.x, stay.y)


def _name(animal: int) -> str:
    row = Animal.now(animal)
    assert row is not None
    return str(row.name)
