"""What the forms of animals, cabinets, traits, messengers and people hold now.

They raise NotFound where there is no such thing.
"""

import json
from collections.abc import Iterable

from sandboa.records.alarms import Messenger
from sandboa.records.animals import Trait
from sandboa.records.hatching import Gene
from sandboa.records.house import Shelf
from sandboa.records.people import Person
from sandboa.services.acts.revisions import Form
from sandboa.services.alarms.delivery import SEALED
from sandboa.services.animals.commands import find_animal
from sandboa.services.cabinets.commands import cabinet_called
from sandboa.services.probes.heard_values import Source, values_of


def animal_form(entity: int) -> Form:
    """An animal, with its traits by name."""
    row = find_animal(entity)
    return {
        "role": row.role,
        "name": row.name,
        "code": row.code,
        "hatch_year": row.hatch_year,
        "traits_text": row.traits,
        "traits": form_of_traits(Trait.current(animal_id=entity)),
        "dam": row.dam_id,
        "sire": row.sire_id,
        "retired": bool(row.retired),
    }


def form_of_traits(rows: Iterable[Trait]) -> list[Form]:
    """The traits of an animal or a hatchling, by name."""
    return [{"name": row.name, "form": row.form} for row in sorted(rows, key=lambda t: str(t.name))]


def cabinet_form(name: str) -> Form:
    """A cabinet, with its shelves from top to bottom."""
    row = cabinet_called(name)
    shelves = sorted(Shelf.current(cabinet_id=row.entity_id), key=lambda s: int(s.position))
    return {
        "name": row.name,
        "kind": row.kind,
        "shelves": [shelf.name for shelf in shelves],
        "volume_l": row.volume_l,
        "ballast_l": row.ballast_l,
    }


def form_of_gene(row: Gene) -> Form:
    """A trait of the house's list."""
    return {"name": row.name, "inheritance": row.inheritance, "double_form": row.double_form}


def form_of_messenger(row: Messenger) -> Form:
    """A messenger without its secrets: they are given anew or stay as they are."""
    target = json.loads(row.target)
    target.pop(SEALED, None)
    return {
        "kind": row.kind,
        "name": row.name,
        "zone": row.zone,
        "temperature_unit": row.temperature_unit,
        "quiet_from_min": row.quiet_from_min,
        "quiet_until_min": row.quiet_until_min,
        "gravity": row.gravity,
        "life_at_min": row.life_at_min,
        "target": target,
    }


def form_of_person(row: Person) -> Form:
    """A person's name and role."""
    return {"name": row.name, "role": row.role}


def heard_form(source: Source) -> Form:
    """What the values of a source's messages are: unit and probe by path."""
    return {row.path: f"{row.unit} {row.probe_id}" for row in values_of(source)}
