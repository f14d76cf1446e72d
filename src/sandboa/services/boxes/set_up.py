"""Boxes set up, corrected and put away: those for eggs of the house, and those of other species."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.box import BoxKind, Closing
from sandboa.core.errors import NotPlausible
from sandboa.core.methods import Contact
from sandboa.core.names import clean_name, next_box_name
from sandboa.core.units import require_moment, require_range
from sandboa.core.water.mixing import DAMP_PAPER, medium_named
from sandboa.core.water.top_up import BOX_MASS_RANGE_G
from sandboa.records.clutches import Box, box_named
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.preconditions import box_called, require_not_ahead
from sandboa.services.acts.recording import act
from sandboa.services.cabinets.commands import place_of_box, shelf_called

#: g of dry medium or water in one box (assumption).
BOX_CONTENT_G: Final = (0.0, 20_000.0)


@dataclass(frozen=True, slots=True)
class BoxCommand:
    """What a keeper says of a box; None where it is not said.

    `shelf` is (cabinet, shelf). Masses in g. `species` of a box of another
    species, which has neither medium nor closing that matter here.
    """

    name: str | None = None
    kind: BoxKind = BoxKind.INCUBATION
    shelf: tuple[str, str] | None = None
    medium: str | None = None
    closing: Closing | None = None
    contact: Contact | None = None
    dry_mass_g: float | None = None
    water_g: float | None = None
    set_up_mass_g: float | None = None
    species: str | None = None


def add_box(said: BoxCommand, from_s: float, now_s: float) -> tuple[str, Act]:
    """Record a box set up at `from_s`, with a name of its own; returns that and the act.

    Raises NotPlausible for values that cannot be true or are missing, NotFound
    for an unknown shelf, Conflict when the name is taken.
    """
    require_not_ahead(from_s, now_s)
    require_moment("at", from_s)
    if said.name is None:
        raise NotPlausible("name", "what is the box called?")
    with act(ActKind.BOX, "", now_s) as setting_up:
        box = write_box(setting_up, said, from_s)
        setting_up.say(f"Box {box.name} set up")
    return box.name, setting_up


def write_box(setting_up: Act, said: BoxCommand, from_s: float, like: Box | None = None) -> Box:
    """Record a box under an open act; what is not said of it is as in `like`.

    Its name is the next free one beside that box where none is said. Raises as `add_box` does.
    """
    require_box_content(said)
    taken = [box.name for box in Box.current()]
    name = clean_name("name", said.name) if said.name else None
    if name is None:
        if like is None:
            raise NotPlausible("name", "what is the box called?")
        name = next_box_name(like.name, taken)
    require_free_name(name)
    return Box.record(
        setting_up,
        name=name,
        kind=said.kind.value,
        species=_species(said),
        shelf_id=_shelf(said, like, from_s),
        from_s=int(from_s),
        dry_mass_g=said.dry_mass_g,
        water_g=said.water_g,
        set_up_mass_g=said.set_up_mass_g,
        **_method(said, like),
    )


def correct_box(name: str, said: BoxCommand, now_s: float) -> Act:
    """Correct how a box was set up; what is not said stays, and so does where it stands.

    Raises NotFound for an unknown box, NotPlausible, Conflict for a taken name.
    """
    box = box_called(name)
    require_box_content(said)
    values: dict[str, Any] = {
        "medium": medium_named(said.medium).name if said.medium else None,
        "closing": said.closing.value if said.closing else None,
        "contact": said.contact.value if said.contact else None,
        "dry_mass_g": said.dry_mass_g,
        "water_g": said.water_g,
        "set_up_mass_g": said.set_up_mass_g,
        "species": clean_name("species", said.species) if said.species else None,
        "name": clean_name("name", said.name) if said.name else None,
    }
    given = {key: value for key, value in values.items() if value is not None}
    if "name" in given:
        require_free_name(given["name"], besides=box.entity_id)
    with act(ActKind.CORRECT, f"Box {box.name} corrected", now_s) as correcting:
        box.correct_if_changed(correcting, **given)
    return correcting


def put_away(name: str, at_s: float, now_s: float) -> Act:
    """Record that a box of another species is out of the cabinet from `at_s` on.

    Raises NotFound for an unknown box, NotPlausible for one that holds eggs of
    the house (those end with their eggs) or a time before it was set up or ahead.
    """
    box = box_called(name)
    require_not_ahead(at_s, now_s)
    if box.kind != BoxKind.OTHER_SPECIES:
        raise NotPlausible("name", f"box {box.name} is in use as long as eggs lie in it")
    if at_s <= box.from_s:
        raise NotPlausible("at", f"that is before box {box.name} was set up")
    with act(ActKind.BOX, f"Box {box.name} put away", now_s) as putting:
        box.correct(putting, until_s=int(at_s))
    return putting


def require_free_name(name: str, besides: int | None = None) -> None:
    """Raise Conflict when another box has that name."""
    held = box_named(name)
    if held is not None and held.entity_id != besides:
        raise Conflict(f"there is a box {held.name} already: choose another name for this one")


def require_box_content(said: BoxCommand) -> None:
    """Raise NotPlausible for masses that cannot be."""
    for field, mass_g in (("dry_mass_g", said.dry_mass_g), ("water_g", said.water_g)):
        if mass_g is not None:
            require_range(field, mass_g, BOX_CONTENT_G, "g")
    if said.dry_mass_g == 0:
        raise NotPlausible("dry_mass_g", "0 g of medium: leave it empty when it was not weighed")
    if said.set_up_mass_g is not None:
        require_range("set_up_mass_g", said.set_up_mass_g, BOX_MASS_RANGE_G, "g")


def _species(said: BoxCommand) -> str | None:
    if said.kind is not BoxKind.OTHER_SPECIES:
        return None
    if not said.species:
        raise NotPlausible("species", "which species lies in it?")
    return clean_name("species", said.species)


def _shelf(said: BoxCommand, like: Box | None, from_s: float) -> int:
    if said.shelf is not None:
        return int(shelf_called(*said.shelf).entity_id)
    if like is None:
        raise NotPlausible("shelf", "which shelf does it stand on?")
    return int(place_of_box(like, from_s)[1].entity_id)


def _method(said: BoxCommand, like: Box | None) -> Mapping[str, str | None]:
    """Medium, closing and contact: as said, else as in the box beside it."""
    if said.kind is BoxKind.OTHER_SPECIES:
        closing = said.closing.value if said.closing else None
        return {"medium": None, "closing": closing, "contact": None}
    if said.kind is BoxKind.HATCHING:
        closing = said.closing or Closing.SMALL_HOLES
        return {"medium": DAMP_PAPER, "closing": closing.value, "contact": Contact.BEDDED.value}
    medium = medium_named(said.medium).name if said.medium else like.medium if like else None
    closing_name = said.closing.value if said.closing else like.closing if like else None
    if medium is None or closing_name is None:
        raise NotPlausible("medium", "what do the eggs lie in, and how is the box closed?")
    contact = said.contact.value if said.contact else None
    if contact is None and like is not None and said.medium in (None, like.medium):
        contact = like.contact
    if contact is None and medium_named(medium).on_grid:
        contact = Contact.GRID.value
    return {"medium": medium, "closing": closing_name, "contact": contact}
