"""What a lay day writes: the values of a clutch, its first box and its eggs."""

from collections.abc import Sequence
from typing import Any

from sandboa.core.animals import DAM, SIRE
from sandboa.core.box import stored_marks
from sandboa.core.methods import Contact
from sandboa.core.names import clean_code, next_code
from sandboa.core.water.mixing import medium_named
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Clutch,
    Egg,
    EggStay,
    clutch_coded,
    codes_beginning,
)
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict
from sandboa.services.animals.commands import animal_named
from sandboa.services.animals.individuals import individual, require_not_left
from sandboa.services.cabinets.commands import cabinet_named, set_point_from, shelf_named
from sandboa.services.lay_day.day import EggLaid, LayDay


def free_code(day: LayDay, own: Clutch | None = None) -> str:
    """The code of the clutch: as said, else the next free one; Conflict where it is taken."""
    if day.code is None:
        return suggested_code(day.laid_at.year)
    code = clean_code(day.code)
    holder = clutch_coded(code)
    if holder is not None and (own is None or holder.entity_id != own.entity_id):
        raise Conflict(f"there is a clutch {holder.code} already: choose another code")
    return code


def clutch_values(day: LayDay, recording: Act) -> dict[str, Any]:
    """What is recorded of the clutch; animals nobody knew are recorded under the act.

    NotPlausible when the dam had left the house by then.
    """
    dam = animal_named(recording, DAM, day.dam).entity_id
    require_not_left(individual(dam), day.laid_at.timestamp(), "dam")
    return {
        "dam_id": dam,
        "sire_id": animal_named(recording, SIRE, day.sire).entity_id if day.sire else None,
        "laid_s": int(day.laid_at.timestamp()),
    }


def box_values(day: LayDay, recording: Act, moves: Sequence[BoxMove] = ()) -> dict[str, Any]:
    """What is recorded of the box. One that has moved keeps the shelf it began on: the place
    told is where it stands now, and corrects its last move."""
    cabinet = cabinet_named(recording, day.cabinet)
    shelf = shelf_named(recording, cabinet.entity_id, day.shelf).entity_id
    if moves:
        if moves[-1].shelf_id != shelf:
            moves[-1].correct(recording, shelf_id=shelf)
    else:
        set_point_from(recording, cabinet.entity_id, day.begins_s, day.set_point_c)
    contact = contact_of(day)
    return {
        "shelf_id": None if moves else shelf,
        "medium": medium_named(day.medium).name if day.medium else None,
        "dry_mass_g": day.dry_mass_g,
        "water_g": day.water_g,
        "closing": day.closing.value if day.closing else None,
        "contact": contact.value if contact else None,
        "set_up_mass_g": day.set_up_mass_g,
    }


def contact_of(day: LayDay) -> Contact | None:
    """As said; nothing said, some media carry their eggs on a grid anyway."""
    if day.contact is None and day.medium and medium_named(day.medium).on_grid:
        return Contact.GRID
    return day.contact


def lay_into(laying: Act, row: Egg, box: Box, egg: EggLaid, from_s: int) -> None:
    """Record where an egg lies from `from_s` (s) on."""
    EggStay.record(
        laying, egg_id=row.entity_id, box_id=box.entity_id, from_s=from_s, x=egg.x, y=egg.y
    )


def egg_values(number: int, egg: EggLaid) -> dict[str, Any]:
    """What is recorded of an egg and may be corrected."""
    return {
        "number": number,
        "slug": int(egg.slug),
        "shell": stored_marks(egg.shells),
    }


def moves_of(box: Box) -> list[BoxMove]:
    """The moves of a box, in order of time."""
    moves = BoxMove.current(box_id=box.entity_id)
    return sorted(moves, key=lambda move: move.from_s)


def suggested_code(year: int) -> str:
    """The next free code of a year; codes of undone clutches are not given again."""
    return next_code(year, codes_beginning(f"{year % 100:02d}-"))
