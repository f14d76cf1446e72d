"""Eggs moved from box to box: one put by itself, a clutch split, boxes put together."""

from collections.abc import Sequence

from sandboa.core.box import MOST_IN_BOX, BoxKind, LyingEgg, free_places
from sandboa.core.errors import NotPlausible
from sandboa.core.rounds import EggActKind
from sandboa.records.clutches import Box, Clutch, Egg, EggEvent, EggStay, box_of_egg, stay_of_egg
from sandboa.records.facts import Act
from sandboa.records.hatching import EggFate, Emergence


def write_moves(moving: Act, eggs: Sequence[Egg], to: Box, at_s: float) -> None:
    """Record under an open act that eggs lie in another box from `at_s` on, at free places.

    Raises NotPlausible for an egg that lay there already, was out of its shell or of its box, or
    was not laid yet; for a box not set up then, a full one, a dam's tub or one of another species.
    """
    require_room(to, len(eggs), at_s)
    for egg in eggs:
        _require_movable(egg, to, at_s)
    taken = [(stay.x, stay.y) for stay in lying(to, at_s)]
    places = free_places(taken, [_as_it_lies(egg, at_s) for egg in eggs])
    for egg, (x, y) in zip(eggs, places, strict=True):
        # A move of the same moment is corrected: an egg lies in one box.
        key = {"egg_id": egg.entity_id, "from_s": int(at_s)}
        EggStay.put(moving, key, box_id=to.entity_id, x=x, y=y)


def _as_it_lies(egg: Egg, at_s: float) -> LyingEgg:
    """Where the egg lay before; it sticks to eggs of its clump that come from the same box."""
    stay = stay_of_egg(egg.entity_id, at_s)
    if stay is None:
        raise LookupError(f"no box is known of egg {egg.number}")
    clump = None if egg.clump is None else (egg.clutch_id, egg.clump, stay.box_id)
    return LyingEgg(stay.x, stay.y, clump)


def require_room(to: Box, eggs: int, at_s: float) -> None:
    """Raise NotPlausible for a box that cannot take so many eggs of the house at that time."""
    if to.kind == BoxKind.OTHER_SPECIES:
        raise NotPlausible("to", f"box {to.name} holds eggs of another species")
    if to.kind == BoxKind.TUB:
        raise NotPlausible("to", f"in {to.name} the dam keeps her own eggs")
    if at_s < to.from_s:
        raise NotPlausible("to", f"box {to.name} was set up later than that")
    room = MOST_IN_BOX - len(lying(to, at_s))
    if eggs > room:
        raise NotPlausible(
            "to",
            f"box {to.name} has room for {max(room, 0)} more: {MOST_IN_BOX} eggs are a full box",
        )


def _require_movable(egg: Egg, to: Box, at_s: float) -> None:
    clutch = Clutch.now(egg.clutch_id)
    if clutch is None or at_s < clutch.laid_s:
        raise NotPlausible("eggs", f"egg {egg.number} was not laid then")
    own = egg.entity_id
    removed = EggEvent.only(egg_id=own, kind=EggActKind.REMOVED.value)
    if removed is not None and removed.at_s <= at_s:
        raise NotPlausible("eggs", f"egg {egg.number} was taken out of its box before that")
    ended = [
        *(float(row.seen_s) for row in Emergence.current(egg_id=own)),
        *(float(row.at_s) for row in EggFate.current(egg_id=own)),
    ]
    if ended and min(ended) <= at_s:
        raise NotPlausible("eggs", f"egg {egg.number} was out, or had ended, before that")
    if box_of_egg(own, at_s) == to.entity_id:
        raise NotPlausible("eggs", f"egg {egg.number} lies in box {to.name} already")


def lying(box: Box, at_s: float) -> list[EggStay]:
    """The stays of eggs that lie in a box at a time and were not taken out."""
    found = []
    for stay in EggStay.current(box_id=box.entity_id):
        gone = EggEvent.only(egg_id=stay.egg_id, kind=EggActKind.REMOVED.value)
        if box_of_egg(stay.egg_id, at_s) == box.entity_id and (gone is None or gone.at_s > at_s):
            found.append(stay)
    return list({stay.egg_id: stay for stay in found}.values())
