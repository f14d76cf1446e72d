"""A clutch recorded whole, in one act; and corrected line by line."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any, Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM, SIRE, require_weight
from sandboa.core.box import BoxKind, Closing, LyingEgg, Shell, free_places, require_distinct_places
from sandboa.core.candling import Disc, Vessels
from sandboa.core.clutch_count import MOST_EGGS, ClutchCount, clutch_count
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EGG_MASS_RANGE_G, EggEvent, Lump, may_be_second_clutch
from sandboa.core.methods import Contact, Method, checked
from sandboa.core.names import clean_code, next_box_name, next_code
from sandboa.core.units import SECONDS_PER_DAY, require_moment, require_range
from sandboa.core.water.mixing import medium_named
from sandboa.core.water.top_up import BOX_MASS_RANGE_G
from sandboa.records.animals import Weight
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Candling,
    Clutch,
    DamCheck,
    Egg,
    EggStay,
    clutch_coded,
    codes_beginning,
)
from sandboa.records.clutches import EggEvent as EggEventFact
from sandboa.records.facts import Act
from sandboa.records.hatching import Cut, Emergence, Pip
from sandboa.records.methods import ClutchMethod
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.preconditions import box_called, main_box_of, require_not_ahead
from sandboa.services.acts.recording import act
from sandboa.services.animals.commands import animal_named
from sandboa.services.boxes.egg_moves import lying, require_room
from sandboa.services.boxes.set_up import (
    BOX_CONTENT_G,
    BoxCommand,
    require_box_content,
    require_free_name,
    write_box,
)
from sandboa.services.cabinets.commands import cabinet_named, set_point_from, shelf_named
from sandboa.services.clutches.methods import chosen_method, lines_of, method_of_clutch
from sandboa.services.snapshot.settings import house_settings

#: Boxes beside the first that one clutch is split over at most (assumption).
MOST_FURTHER: Final = 5


@dataclass(frozen=True, slots=True)
class EggHappening:
    """What happened to an egg on lay day, and when (s)."""

    kind: EggEvent
    at_s: float


@dataclass(frozen=True, slots=True)
class EggLaid:
    """An egg where it lies: x, y as shares of its box; `vessels` None when it was not candled.

    `box` is 0 for the first box of the lay day, 1 for the first of its further ones.
    Eggs of the same `clump` number (1-20) stick together. Mass in g.
    """

    x: float
    y: float
    slug: bool = False
    shell: Shell = Shell.SMOOTH
    vessels: Vessels | None = None
    disc: Disc | None = None
    mass_g: float | None = None
    clump: int | None = None
    events: tuple[EggHappening, ...] = ()
    box: int = 0


@dataclass(frozen=True, slots=True)
class LayDay:
    """A clutch as laid. `code` None takes the next free one of the year laid.

    `method` None is the house's chosen one with this medium and closing. Both
    are None where the dam keeps the eggs: `cabinet` is then her tub. Masses in
    g, None when they were not weighed. `handled_at` is when the eggs were looked
    at and handled; None takes the lay time, never the moment of typing.
    `further` are boxes beside the first, for eggs that say so; what is not said of one is as in the
    first. `into` is the name of a box that is there already, which then is the first.
    """

    dam: str
    laid_at: datetime
    eggs: tuple[EggLaid, ...]
    medium: str | None
    closing: Closing | None
    cabinet: str
    shelf: str
    set_point_c: float
    sire: str | None = None
    code: str | None = None
    dry_mass_g: float | None = None
    water_g: float | None = None
    contact: Contact | None = None
    set_up_mass_g: float | None = None
    method: Method | None = None
    lump: Lump | None = None
    dam_mass_g: float | None = None
    second_clutch: bool = False
    handled_at: datetime | None = None
    further: tuple[BoxCommand, ...] = ()
    into: str | None = None

    @property
    def handled_s(self) -> float:
        """When the eggs were candled, turned and boxed, and the dam looked at (s)."""
        return (self.handled_at or self.laid_at).timestamp()

    @property
    def count(self) -> ClutchCount:
        return clutch_count(len(self.eggs), sum(egg.slug for egg in self.eggs))

    @property
    def maternal(self) -> bool:
        return self.method is not None and self.method.maternal


def lay_clutch(day: LayDay, now_s: float) -> tuple[str, Act]:
    """Record a clutch with its box and eggs; returns its code and the act.

    Raises NotPlausible for a lay date in the future, a count outside 1-20,
    two eggs at one place or other values that cannot be true; Conflict when
    the code is taken; Question when the dam laid within 60 days before or
    after, unless it is said to be a second clutch.
    """
    check_lay_day(day, now_s)
    with act(ActKind.LAY, "", now_s) as laying:
        clutch = write_clutch(laying, day)
    return clutch.code, laying


def write_clutch(laying: Act, day: LayDay) -> Clutch:
    """Record a checked lay day inside an open act, which gets its summary and clutch."""
    code = _free_code(day)
    values = _clutch_values(day, laying)
    require_asked_about(values["dam_id"], day.dam, day.laid_at.timestamp(), day.second_clutch)
    clutch = Clutch.record(laying, code=code, **values)
    boxes = _write_boxes(laying, day, clutch)
    for number, egg in enumerate(_placed(day, boxes[0]), start=1):
        _write_egg(laying, clutch, boxes[egg.box], number, egg, int(day.handled_s))
    ClutchMethod.record(laying, clutch_id=clutch.entity_id, **lines_of(_method(day)))
    if day.lump is not None:
        DamCheck.record(
            laying, clutch_id=clutch.entity_id, at_s=int(day.handled_s), lump=day.lump.value
        )
    if day.dam_mass_g is not None:
        Weight.record(
            laying, animal_id=clutch.dam_id, at_s=_after_laying_s(day), mass_g=day.dam_mass_g
        )
    laying.clutch_id = clutch.entity_id
    laying.say(f"Clutch {code} of {day.dam.strip()} laid, {day.count}")
    return clutch


def _write_boxes(laying: Act, day: LayDay, clutch: Clutch) -> list[Box]:
    """The boxes the eggs go into: the first, there already or new, and the further ones."""
    if day.into is not None:
        first = box_called(day.into)
        require_room(first, sum(egg.box == 0 for egg in day.eggs), clutch.laid_s)
    else:
        require_free_name(clutch.code)
        first = Box.record(
            laying,
            name=clutch.code,
            kind=(BoxKind.TUB if day.maternal else BoxKind.INCUBATION).value,
            from_s=clutch.laid_s,
            **_box_values(day, laying),
        )
    boxes = [first]
    for said in day.further:
        name = said.name or next_box_name(clutch.code, [box.name for box in Box.current()])
        boxes.append(write_box(laying, replace(said, name=name), clutch.laid_s, like=first))
    return boxes


def _placed(day: LayDay, first: Box) -> Sequence[EggLaid]:
    """The eggs with their places; beside eggs that lie there already, at free ones."""
    if day.into is None:
        return day.eggs
    own = [number for number, egg in enumerate(day.eggs) if egg.box == 0]
    taken = [(stay.x, stay.y) for stay in lying(first, day.laid_at.timestamp())]
    eggs = [
        LyingEgg(day.eggs[number].x, day.eggs[number].y, day.eggs[number].clump) for number in own
    ]
    free = dict(zip(own, free_places(taken, eggs), strict=True))
    return [
        replace(egg, x=free[number][0], y=free[number][1]) if number in free else egg
        for number, egg in enumerate(day.eggs)
    ]


def _after_laying_s(day: LayDay) -> int:
    """When she was weighed: after she laid, by a second at least, or it was her weight before."""
    return max(int(day.handled_s), int(day.laid_at.timestamp()) + 1)


def require_asked_about(dam: int, name: str, laid_s: float, second_clutch: bool) -> None:
    """Raise Question when the dam has a clutch within 60 days and nobody said it is a second."""
    if second_clutch:
        return
    within_days = house_settings()["second_clutch_days"]
    for earlier in Clutch.current(dam_id=dam):
        if may_be_second_clutch(earlier.laid_s, laid_s, within_days):
            days = round(abs(laid_s - earlier.laid_s) / SECONDS_PER_DAY)
            apart = f"{days} day{'s' * (days != 1)} apart from" if days else "the same day as"
            raise Question(
                f"{name.strip()} laid {earlier.code} {apart} this. Is this a second clutch?",
                "second_clutch",
            )


def correct_clutch(code: str, day: LayDay, now_s: float) -> tuple[str, Act]:
    """Correct a clutch: only what differs is superseded, the earlier values stay in the log.

    Raises as `lay_clutch` does, and NotFound for an unknown code.
    """
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    day = replace(day, method=method_of_clutch(clutch.entity_id))
    check_lay_day(day, now_s)
    _require_laid_before_it_pipped(clutch, day.laid_at)
    with act(
        ActKind.CORRECT, f"Clutch {clutch.code} corrected", now_s, clutch.entity_id
    ) as correcting:
        new_code = _free_code(day, clutch) if day.code else clutch.code
        _correct_when_different(
            correcting, clutch, {"code": new_code, **_clutch_values(day, correcting)}
        )
        _move_lay_looks(correcting, clutch, int(day.laid_at.timestamp()))
        held_box = main_box_of(clutch, clutch.laid_s)
        box = _box_values(day, correcting, _moves(held_box))
        first = {k: v for k, v in box.items() if v is not None}
        if held_box.from_s == clutch.laid_s:
            first["from_s"] = int(day.laid_at.timestamp())
        if held_box.name.casefold() == clutch.code.casefold() and new_code != clutch.code:
            require_free_name(new_code, besides=held_box.entity_id)
            first["name"] = new_code
        _correct_when_different(correcting, held_box, first)
        method = ClutchMethod.only(clutch_id=clutch.entity_id)
        if method is not None and box["medium"] and box["closing"]:
            shared = {"medium": box["medium"], "closing": box["closing"]}
            _correct_when_different(correcting, method, shared)
        held = {egg.number: egg for egg in Egg.current(clutch_id=clutch.entity_id)}
        for number, egg in enumerate(day.eggs, start=1):
            if number in held:
                _correct_when_different(correcting, held[number], _egg_values(number, egg))
                _correct_place(correcting, held[number], egg)
            else:
                new = Egg.record(correcting, clutch_id=clutch.entity_id, **_egg_values(number, egg))
                _lay_into(correcting, new, held_box, egg, int(day.laid_at.timestamp()))
        for number, gone in held.items():
            if number > len(day.eggs):
                gone.retire(correcting)
                for stay in EggStay.current(egg_id=gone.entity_id):
                    stay.retire(correcting)
    return new_code, correcting


def _require_laid_before_it_pipped(clutch: Clutch, laid_at: datetime) -> None:
    """Raise NotPlausible when eggs of the clutch pipped, or were out, before that lay time."""
    for egg in Egg.current(clutch_id=clutch.entity_id):
        known = [
            *(p.seen_s for p in Pip.current(egg_id=egg.entity_id)),
            *(e.seen_s for e in Emergence.current(egg_id=egg.entity_id)),
            *(c.at_s for c in Cut.current(egg_id=egg.entity_id)),
        ]
        if known and min(known) <= laid_at.timestamp():
            raise NotPlausible(
                "laid_at",
                f"egg {egg.number} was open before that: correct its pip first, or the lay time",
            )


def _move_lay_looks(correcting: Act, clutch: Clutch, laid_s: int) -> None:
    """What was seen and done when the eggs were laid moves with the lay time."""
    if laid_s == clutch.laid_s:
        return
    first = min(row.act_id for row in Clutch.ever(entity_id=clutch.entity_id))
    for egg in Egg.current(clutch_id=clutch.entity_id):
        own = egg.entity_id
        for stay in EggStay.current(egg_id=own, from_s=clutch.laid_s):
            stay.correct(correcting, from_s=laid_s)
        for look in Candling.current(egg_id=own, act_id=first):
            if look.seen_s == clutch.laid_s:
                look.correct(correcting, seen_s=laid_s)
        for event in EggEventFact.current(egg_id=own, act_id=first):
            if event.at_s == clutch.laid_s:
                event.correct(correcting, at_s=laid_s)


def suggested_code(year: int) -> str:
    """The next free code of a year; codes of undone clutches are not given again."""
    return next_code(year, codes_beginning(f"{year % 100:02d}-"))


def check_lay_day(day: LayDay, now_s: float) -> None:
    """Raise NotPlausible for whatever of a lay day cannot be true, at its field."""
    laid_s = day.laid_at.timestamp()
    if laid_s > now_s:
        raise NotPlausible("laid_at", "laid in the future: check the date and the time")
    require_moment("laid_at", laid_s)
    require_handled_between(day.handled_at, laid_s, now_s)
    require_two(day.dam, day.sire)
    if not 1 <= len(day.eggs) <= MOST_EGGS:
        raise NotPlausible("eggs", f"{len(day.eggs)} eggs is outside 1 to {MOST_EGGS}")
    for number, egg in enumerate(day.eggs, start=1):
        if not (0.0 <= egg.x <= 1.0 and 0.0 <= egg.y <= 1.0):
            raise NotPlausible("eggs", f"egg {number} lies outside the box")
    _check_boxes(day)
    for number, egg in enumerate(day.eggs, start=1):
        if egg.mass_g is not None:
            require_range(f"egg {number}", egg.mass_g, EGG_MASS_RANGE_G, "g")
    if day.set_up_mass_g is not None:
        require_range("set_up_mass_g", day.set_up_mass_g, BOX_MASS_RANGE_G, "g")
    if day.dam_mass_g is not None:
        require_weight(day.dam_mass_g, None)
    if not day.maternal and day.into is None and (day.medium is None or day.closing is None):
        raise NotPlausible("medium", "what do the eggs lie in, and how is the box closed?")
    for name, mass_g in (("medium", day.dry_mass_g), ("water", day.water_g)):
        if mass_g is not None:
            require_range(name, mass_g, BOX_CONTENT_G, "g")
    if day.dry_mass_g == 0:
        raise NotPlausible("dry_mass_g", "0 g of medium: leave it empty when it was not weighed")


def _check_boxes(day: LayDay) -> None:
    """Raise NotPlausible where a box has no egg, eggs lie on each other, or masses cannot be."""
    if day.maternal and (day.further or day.into):
        raise NotPlausible("box", "eggs the dam keeps lie in no box")
    if len(day.further) > MOST_FURTHER:
        raise NotPlausible("box", f"{MOST_FURTHER + 1} boxes are enough for one clutch")
    for number in range(len(day.further) + 1):
        own = [at for at, egg in enumerate(day.eggs, start=1) if egg.box == number]
        if not own:
            which = "the first box" if number == 0 else f"further box {number}"
            raise NotPlausible("box", f"no egg lies in {which}: put one in, or leave it out")
        require_distinct_places([(day.eggs[at - 1].x, day.eggs[at - 1].y) for at in own], own)
    if any(not 0 <= egg.box <= len(day.further) for egg in day.eggs):
        raise NotPlausible("box", "an egg lies in a box that is not there")
    for said in day.further:
        require_box_content(said)


def require_handled_between(handled_at: datetime | None, laid_s: float, now_s: float) -> None:
    """Raise NotPlausible when the eggs were handled before they were laid, or later than now."""
    if handled_at is None:
        return
    if handled_at.timestamp() < laid_s:
        raise NotPlausible("handled_at", "that is before the eggs were laid: check both times")
    require_not_ahead(handled_at.timestamp(), now_s)


def require_two(dam: str, sire: str | None) -> None:
    """Raise NotPlausible when an animal is named as its own mate."""
    if sire is not None and sire.casefold() == dam.casefold():
        raise NotPlausible("sire", f"{dam} is the dam: name another sire, or leave it empty")


def _free_code(day: LayDay, own: Clutch | None = None) -> str:
    if day.code is None:
        return suggested_code(day.laid_at.year)
    code = clean_code(day.code)
    holder = clutch_coded(code)
    if holder is not None and (own is None or holder.entity_id != own.entity_id):
        raise Conflict(f"there is a clutch {holder.code} already: choose another code")
    return code


def _clutch_values(day: LayDay, recording: Act) -> dict[str, Any]:
    return {
        "dam_id": animal_named(recording, DAM, day.dam).entity_id,
        "sire_id": animal_named(recording, SIRE, day.sire).entity_id if day.sire else None,
        "laid_s": int(day.laid_at.timestamp()),
    }


def _box_values(day: LayDay, recording: Act, moves: Sequence[BoxMove] = ()) -> dict[str, Any]:
    """What is recorded of the box. One that has moved keeps the shelf it began on: the place
    told is where it stands now, and corrects its last move."""
    cabinet = cabinet_named(recording, day.cabinet)
    shelf = shelf_named(recording, cabinet.entity_id, day.shelf).entity_id
    if moves:
        if moves[-1].shelf_id != shelf:
            moves[-1].correct(recording, shelf_id=shelf)
    else:
        set_point_from(recording, cabinet.entity_id, int(day.laid_at.timestamp()), day.set_point_c)
    contact = _contact(day)
    return {
        "shelf_id": None if moves else shelf,
        "medium": medium_named(day.medium).name if day.medium else None,
        "dry_mass_g": day.dry_mass_g,
        "water_g": day.water_g,
        "closing": day.closing.value if day.closing else None,
        "contact": contact.value if contact else None,
        "set_up_mass_g": day.set_up_mass_g,
    }


def _method(day: LayDay) -> Method:
    """The clutch's own copy; its temperature is what its cabinet is set to, whatever was meant."""
    if day.method is not None:
        return replace(checked(day.method), temperature_c=day.set_point_c)
    own = replace(chosen_method(), temperature_c=day.set_point_c)
    if day.medium is None:
        return own
    medium = medium_named(day.medium)
    return replace(
        own,
        medium=medium.name,
        ratio=own.ratio if medium.name == own.medium else medium.ratio,
        contact=_contact(day) or own.contact,
        closing=day.closing or own.closing,
    )


def _contact(day: LayDay) -> Contact | None:
    """As said; nothing said, some media carry their eggs on a grid anyway."""
    if day.contact is None and day.medium and medium_named(day.medium).on_grid:
        return Contact.GRID
    return day.contact


def _write_egg(
    laying: Act, clutch: Clutch, box: Box, number: int, egg: EggLaid, handled_s: int
) -> None:
    values = {**_egg_values(number, egg), "clump": egg.clump, "mass_g": egg.mass_g}
    row = Egg.record(laying, clutch_id=clutch.entity_id, **values)
    _lay_into(laying, row, box, egg, clutch.laid_s)
    if egg.vessels is not None or egg.disc is not None:
        # Who noted where the disc lies has looked, whatever the vessels were.
        Candling.record(
            laying,
            egg_id=row.entity_id,
            seen_s=handled_s,
            vessels=(egg.vessels or Vessels.UNSURE).value,
            disc=egg.disc.value if egg.disc else None,
        )
    for event in egg.events:
        EggEventFact.record(laying, egg_id=row.entity_id, at_s=handled_s, kind=event.kind.value)


def _lay_into(laying: Act, row: Egg, box: Box, egg: EggLaid, from_s: int) -> None:
    EggStay.record(
        laying, egg_id=row.entity_id, box_id=box.entity_id, from_s=from_s, x=egg.x, y=egg.y
    )


def _correct_place(correcting: Act, row: Egg, egg: EggLaid) -> None:
    """Where an egg lay when it was laid."""
    stays = sorted(EggStay.current(egg_id=row.entity_id), key=lambda stay: stay.from_s)
    if stays and (stays[0].x, stays[0].y) != (egg.x, egg.y):
        stays[0].correct(correcting, x=egg.x, y=egg.y)


def _egg_values(number: int, egg: EggLaid) -> dict[str, Any]:
    return {
        "number": number,
        "slug": int(egg.slug),
        "shell": egg.shell.value,
    }


def _moves(box: Box) -> list[BoxMove]:
    """The moves of a box, in order of time."""
    moves = BoxMove.current(box_id=box.entity_id)
    return sorted(moves, key=lambda move: move.from_s)


def _correct_when_different(
    correcting: Act, fact: Clutch | Box | Egg | ClutchMethod, values: dict[str, Any]
) -> None:
    held = fact.values()
    if any(held[name] != value for name, value in values.items()):
        fact.correct(correcting, **values)
