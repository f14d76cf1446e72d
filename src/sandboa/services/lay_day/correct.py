"""A clutch as laid corrected, line by line: earlier values stay in the log."""

from collections.abc import Iterable
from dataclasses import replace
from datetime import datetime

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.clutches import (
    Box,
    Candling,
    Clutch,
    ClutchOrigin,
    Egg,
    EggEvent,
    EggStay,
    PossibleSire,
    clutch_coded,
    stay_of_egg,
)
from sandboa.records.facts import Act
from sandboa.records.methods import ClutchMethod
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import first_box_of
from sandboa.services.acts.recording import act
from sandboa.services.boxes.set_up import require_free_name
from sandboa.services.clutches.methods import method_of_clutch
from sandboa.services.lay_day.dam_at_laying import move_with_lay_time
from sandboa.services.lay_day.day import EggLaid, LayDay, check_laid
from sandboa.services.lay_day.origin import require_laid_before_it_pipped
from sandboa.services.lay_day.rows import (
    box_values,
    clutch_values,
    egg_values,
    free_code,
    lay_into,
    moves_of,
)


def correct_clutch(code: str, day: LayDay, now_s: float) -> tuple[str, Act]:
    """Correct a clutch: only what differs is superseded, the earlier values stay in the log.

    Raises as `lay_clutch` does, and NotFound for an unknown code.
    """
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    held = {egg.number: egg for egg in Egg.current(clutch_id=clutch.entity_id)}
    held_box = first_box_of(clutch)
    day = replace(
        day,
        method=method_of_clutch(clutch.entity_id),
        eggs=tuple(_in_their_boxes(day.eggs, held, held_box)),
    )
    check_laid(day, now_s)
    require_laid_before_it_pipped(clutch, day.laid_at.timestamp())
    _require_as_reckoned(clutch, day.laid_at)
    with act(
        ActKind.CORRECT, f"Clutch {clutch.code} corrected", now_s, clutch.entity_id
    ) as correcting:
        new_code = free_code(day, clutch) if day.code else clutch.code
        clutch.correct_if_changed(correcting, code=new_code, **clutch_values(day, correcting))
        if day.sire:
            # Who it is of is known now.
            for possible in PossibleSire.current(clutch_id=clutch.entity_id):
                possible.retire(correcting)
        laid_s = int(day.laid_at.timestamp())
        if laid_s != clutch.laid_s:
            _move_lay_looks(correcting, clutch, laid_s)
            move_with_lay_time(correcting, clutch, laid_s, laid_s)
        box = box_values(day, correcting, moves_of(held_box))
        first = {k: v for k, v in box.items() if v is not None}
        if held_box.from_s == clutch.laid_s:
            first["from_s"] = laid_s
        if held_box.name.casefold() == clutch.code.casefold() and new_code != clutch.code:
            require_free_name(new_code, besides=held_box.entity_id)
            first["name"] = new_code
        held_box.correct_if_changed(correcting, **first)
        method = ClutchMethod.only(clutch_id=clutch.entity_id)
        if method is not None and box["medium"] and box["closing"]:
            shared = {"medium": box["medium"], "closing": box["closing"]}
            method.correct_if_changed(correcting, **shared)
        for number, egg in enumerate(day.eggs, start=1):
            if number in held:
                held[number].correct_if_changed(correcting, **egg_values(number, egg))
                _correct_place(correcting, held[number], egg)
            else:
                new = Egg.record(correcting, clutch_id=clutch.entity_id, **egg_values(number, egg))
                lay_into(correcting, new, held_box, egg, laid_s)
        for number, gone in held.items():
            if number > len(day.eggs):
                gone.retire(correcting)
                for stay in EggStay.current(egg_id=gone.entity_id):
                    stay.retire(correcting)
    return new_code, correcting


def _in_their_boxes(eggs: Iterable[EggLaid], held: dict[int, Egg], first: Box) -> Iterable[EggLaid]:
    """The eggs told apart by the box each was laid into; new ones go into the first."""
    for number, egg in enumerate(eggs, start=1):
        stay = stay_of_egg(held[number].entity_id, 0.0) if number in held else None
        yield replace(egg, box=first.entity_id if stay is None else stay.box_id)


def _require_as_reckoned(clutch: Clutch, laid_at: datetime) -> None:
    """Raise NotPlausible for another lay time of a clutch of which nobody knows it."""
    origin = ClutchOrigin.only(clutch_id=clutch.entity_id)
    if origin is None or int(laid_at.timestamp()) == clutch.laid_s:
        return
    raise NotPlausible(
        "laid_at", "nobody saw them laid: correct where they come from, on the clutch's page"
    )


def _move_lay_looks(correcting: Act, clutch: Clutch, laid_s: int) -> None:
    """What was seen and done when the eggs were laid moves with the lay time."""
    first = min(row.act_id for row in Clutch.ever(entity_id=clutch.entity_id))
    for egg in Egg.current(clutch_id=clutch.entity_id):
        own = egg.entity_id
        for stay in EggStay.current(egg_id=own, from_s=clutch.laid_s):
            stay.correct(correcting, from_s=laid_s)
        for look in Candling.current(egg_id=own, act_id=first):
            if look.seen_s == clutch.laid_s:
                look.correct(correcting, seen_s=laid_s)
        for event in EggEvent.current(egg_id=own, act_id=first):
            if event.at_s == clutch.laid_s:
                event.correct(correcting, at_s=laid_s)


def _correct_place(correcting: Act, row: Egg, egg: EggLaid) -> None:
    """Where an egg lay when it was laid."""
    stays = sorted(EggStay.current(egg_id=row.entity_id), key=lambda stay: stay.from_s)
    if stays and (stays[0].x, stays[0].y) != (egg.x, egg.y):
        stays[0].correct(correcting, x=egg.x, y=egg.y)
