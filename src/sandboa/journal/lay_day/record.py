"""Lay day, short form: record a clutch in its box, or correct what was recorded."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from sandboa.core.box import Closing, Shell, require_distinct_places
from sandboa.core.clutch_count import MOST_EGGS, ClutchCount, clutch_count
from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_code, clean_name, next_code
from sandboa.core.units import require_moment, require_range
from sandboa.core.water import medium_named
from sandboa.journal.acts import act
from sandboa.journal.cabinets import cabinet_named, set_point_from, shelf_named
from sandboa.journal.errors import Conflict, NotFound
from sandboa.records.clutches import Box, Clutch, Egg, clutch_coded, codes_beginning
from sandboa.records.facts import Act
from sandboa.records.house import DAM, SIRE, Animal

#: g of dry medium or water in one box (assumption).
_BOX_CONTENT_G: Final = (0.0, 20_000.0)


@dataclass(frozen=True, slots=True)
class EggLaid:
    """An egg where it lies: x, y as shares of the box."""

    x: float
    y: float
    slug: bool = False
    shell: Shell = Shell.SMOOTH


@dataclass(frozen=True, slots=True)
class LayDay:
    """What the short form asks. `code` None takes the next free one of the year laid."""

    dam: str
    laid_at: datetime
    eggs: tuple[EggLaid, ...]
    medium: str
    closing: Closing
    cabinet: str
    shelf: str
    set_point_c: float
    sire: str | None = None
    code: str | None = None
    dry_mass_g: float | None = None
    water_g: float | None = None

    @property
    def count(self) -> ClutchCount:
        return clutch_count(len(self.eggs), sum(egg.slug for egg in self.eggs))


def lay_clutch(day: LayDay, now_s: float) -> tuple[str, Act]:
    """Record a clutch with its box and eggs; returns its code and the act.

    Raises NotPlausible for a lay date in the future, a count outside 1-20,
    two eggs at one place or other values that cannot be true; Conflict when
    the code is taken.
    """
    _check(day, now_s)
    with act("lay", "", now_s) as laying:
        code = _free_code(day)
        clutch = Clutch.record(laying, code=code, **_clutch_values(day, laying))
        Box.record(laying, clutch=clutch.entity, **_box_values(day, laying))
        for number, egg in enumerate(day.eggs, start=1):
            Egg.record(laying, clutch=clutch.entity, **_egg_values(number, egg))
        laying.clutch = clutch.entity
        laying.summary = f"Clutch {code} of {day.dam.strip()} laid, {day.count}"
    return code, laying


def correct_clutch(code: str, day: LayDay, now_s: float) -> tuple[str, Act]:
    """Correct a clutch: only what differs is superseded, the earlier values stay in the log.

    Raises as `lay_clutch` does, and NotFound for an unknown code.
    """
    _check(day, now_s)
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    with act("correct", f"Clutch {clutch.code} corrected", now_s, clutch.entity) as correcting:
        new_code = _free_code(day, clutch) if day.code else clutch.code
        _correct_when_different(
            correcting, clutch, {"code": new_code, **_clutch_values(day, correcting)}
        )
        _correct_when_different(correcting, Box.of(clutch), _box_values(day, correcting))
        held = {egg.number: egg for egg in Egg.current(Egg.clutch == clutch.entity)}
        for number, egg in enumerate(day.eggs, start=1):
            if number in held:
                _correct_when_different(correcting, held[number], _egg_values(number, egg))
            else:
                Egg.record(correcting, clutch=clutch.entity, **_egg_values(number, egg))
        for number, gone in held.items():
            if number > len(day.eggs):
                gone.retire(correcting)
    return new_code, correcting


def suggested_code(year: int) -> str:
    """The next free code of a year; codes of undone clutches are not given again."""
    return next_code(year, codes_beginning(f"{year % 100:02d}-"))


def _check(day: LayDay, now_s: float) -> None:
    laid_s = day.laid_at.timestamp()
    if laid_s > now_s:
        raise NotPlausible("laid_at", "laid in the future: check the date and the time")
    require_moment("laid_at", laid_s)
    if not 1 <= len(day.eggs) <= MOST_EGGS:
        raise NotPlausible("eggs", f"{len(day.eggs)} eggs is outside 1 to {MOST_EGGS}")
    for number, egg in enumerate(day.eggs, start=1):
        if not (0.0 <= egg.x <= 1.0 and 0.0 <= egg.y <= 1.0):
            raise NotPlausible("eggs", f"egg {number} lies outside the box")
    require_distinct_places([(egg.x, egg.y) for egg in day.eggs])
    for name, mass_g in (("medium", day.dry_mass_g), ("water", day.water_g)):
        if mass_g is not None:
            require_range(name, mass_g, _BOX_CONTENT_G, "g")
    if day.dry_mass_g == 0:
        raise NotPlausible("dry_mass_g", "0 g of medium: leave it empty when it was not weighed")


def _free_code(day: LayDay, own: Clutch | None = None) -> str:
    if day.code is None:
        return suggested_code(day.laid_at.year)
    code = clean_code(day.code)
    holder = clutch_coded(code)
    if holder is not None and (own is None or holder.entity != own.entity):
        raise Conflict(f"there is a clutch {holder.code} already: choose another code")
    return code


def _clutch_values(day: LayDay, recording: Act) -> dict[str, Any]:
    return {
        "dam": _animal(recording, DAM, day.dam).entity,
        "sire": _animal(recording, SIRE, day.sire).entity if day.sire else None,
        "laid_s": int(day.laid_at.timestamp()),
    }


def _box_values(day: LayDay, recording: Act) -> dict[str, Any]:
    cabinet = cabinet_named(recording, day.cabinet)
    set_point_from(recording, cabinet.entity, int(day.laid_at.timestamp()), day.set_point_c)
    return {
        "shelf": shelf_named(recording, cabinet.entity, day.shelf).entity,
        "medium": medium_named(day.medium).name,
        "dry_mass_g": day.dry_mass_g,
        "water_g": day.water_g,
        "closing": day.closing.value,
    }


def _egg_values(number: int, egg: EggLaid) -> dict[str, Any]:
    return {
        "number": number,
        "x": egg.x,
        "y": egg.y,
        "slug": int(egg.slug),
        "shell": egg.shell.value,
    }


def _correct_when_different(
    correcting: Act, fact: Clutch | Box | Egg, values: dict[str, Any]
) -> None:
    held = fact.values()
    if any(held[name] != value for name, value in values.items()):
        fact.correct(correcting, **values)


def _animal(recording: Act, role: str, name: str) -> Animal:
    name = clean_name(role, name)
    other = SIRE if role == DAM else DAM
    same_name = [a for a in Animal.current() if a.name.casefold() == name.casefold()]
    for animal in same_name:
        if animal.role == role:
            return animal
    if same_name:
        raise Conflict(f"{same_name[0].name} is recorded as a {other}: a {role} needs another name")
    return Animal.record(recording, role=role, name=name)
