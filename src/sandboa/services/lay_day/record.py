"""A clutch recorded whole, in one act."""

from collections.abc import Sequence
from dataclasses import replace

from sandboa.core.act_kinds import ActKind
from sandboa.core.box import BoxKind, LyingEgg, free_places
from sandboa.core.candling import Vessels
from sandboa.core.lay_day import may_be_second_clutch
from sandboa.core.methods import Method, checked
from sandboa.core.names import next_box_name
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.mixing import medium_named
from sandboa.records.animals import Weight
from sandboa.records.clutches import Box, Candling, Clutch, DamCheck, Egg, EggEvent
from sandboa.records.facts import Act
from sandboa.records.methods import ClutchMethod
from sandboa.services.acts.errors import Question
from sandboa.services.acts.preconditions import box_called
from sandboa.services.acts.recording import act
from sandboa.services.boxes.egg_moves import lying, require_room
from sandboa.services.boxes.set_up import require_free_name, write_box
from sandboa.services.clutches.methods import chosen_method, lines_of
from sandboa.services.lay_day.day import EggLaid, LayDay, check_lay_day
from sandboa.services.lay_day.origin import write_origin
from sandboa.services.lay_day.rows import (
    box_values,
    clutch_values,
    contact_of,
    egg_values,
    free_code,
    lay_into,
)
from sandboa.services.snapshot.settings import house_settings


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
    code = free_code(day)
    values = clutch_values(day, laying)
    require_asked_about(values["dam_id"], day.dam, day.laid_at.timestamp(), day.second_clutch)
    clutch = Clutch.record(laying, code=code, **values)
    boxes = _write_boxes(laying, day, clutch)
    for number, egg in enumerate(_placed(day, boxes[0]), start=1):
        row = _write_egg(laying, clutch, number, egg, int(day.handled_s))
        lay_into(laying, row, boxes[egg.box], egg, day.begins_s)
    if day.origin is not None:
        write_origin(laying, clutch, day.origin)
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
    came = day.origin.kind.value if day.origin else "laid"
    laying.say(f"Clutch {code} of {day.dam.strip()} {came}, {day.count}")
    return clutch


def _write_boxes(laying: Act, day: LayDay, clutch: Clutch) -> list[Box]:
    """The boxes the eggs go into: the first, there already or new, and the further ones."""
    if day.into is not None:
        first = box_called(day.into)
        require_room(first, sum(egg.box == 0 for egg in day.eggs), day.begins_s)
    else:
        require_free_name(clutch.code)
        first = Box.record(
            laying,
            name=clutch.code,
            kind=(BoxKind.TUB if day.maternal else BoxKind.INCUBATION).value,
            from_s=day.begins_s,
            **box_values(day, laying),
        )
    boxes = [first]
    for said in day.further:
        name = said.name or next_box_name(clutch.code, [box.name for box in Box.current()])
        boxes.append(write_box(laying, replace(said, name=name), day.begins_s, like=first))
    return boxes


def _placed(day: LayDay, first: Box) -> Sequence[EggLaid]:
    """The eggs with their places; beside eggs that lie there already, at free ones."""
    if day.into is None:
        return day.eggs
    own = [number for number, egg in enumerate(day.eggs) if egg.box == 0]
    taken = [(stay.x, stay.y) for stay in lying(first, day.begins_s)]
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


def _method(day: LayDay) -> Method:
    """The clutch's own copy; its temperature is what its cabinet is set to, whatever was meant."""
    if day.method is not None:
        return replace(
            checked(day.method, house_settings().rules.clock), temperature_c=day.set_point_c
        )
    own = replace(chosen_method(), temperature_c=day.set_point_c)
    if day.medium is None:
        return own
    medium = medium_named(day.medium, house_settings().rules.media)
    return replace(
        own,
        medium=medium.name,
        ratio=own.ratio if medium.name == own.medium else medium.ratio,
        contact=contact_of(day) or own.contact,
        closing=day.closing or own.closing,
    )


def _write_egg(laying: Act, clutch: Clutch, number: int, egg: EggLaid, handled_s: int) -> Egg:
    values = {**egg_values(number, egg), "clump": egg.clump, "mass_g": egg.mass_g}
    row = Egg.record(laying, clutch_id=clutch.entity_id, **values)
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
        EggEvent.record(laying, egg_id=row.entity_id, at_s=handled_s, kind=event.kind.value)
    return row
