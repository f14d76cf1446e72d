"""What every act at a box begins with: the clutch, the egg, and a time that can be."""

from collections import Counter

from sandboa.core.errors import NotPlausible
from sandboa.core.rounds import EggActKind
from sandboa.core.units import CLOCK_GRACE_S
from sandboa.records.clutches import (
    Box,
    Clutch,
    ClutchOrigin,
    Egg,
    EggEvent,
    box_named,
    box_of_egg,
    clutch_coded,
)
from sandboa.services.acts.errors import NotFound


def clutch_called(code: str) -> Clutch:
    """The clutch of that code, upper and lower case alike; NotFound otherwise."""
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    return clutch


def egg_of(clutch: Clutch, number: int) -> Egg:
    """The clutch's egg of that number; NotFound otherwise."""
    egg = Egg.only(clutch_id=clutch.entity_id, number=number)
    if egg is None:
        raise NotFound(f"clutch {clutch.code} has no egg {number}")
    return egg


def box_called(name: str) -> Box:
    """The box of that name, upper and lower case alike; NotFound otherwise."""
    box = box_named(name)
    if box is None:
        raise NotFound(f"there is no box {name}")
    return box


def first_box_of(clutch: Clutch) -> Box:
    """The box a clutch was laid into: the one of its name, else that of most of its eggs.

    Raises NotFound when its eggs lie in none.
    """
    counted = Counter(
        box
        for egg in Egg.current(clutch_id=clutch.entity_id)
        if (box := box_of_egg(egg.entity_id, clutch.laid_s)) is not None
    )
    boxes = [held for box, _ in counted.most_common() if (held := Box.now(box)) is not None]
    if not boxes:
        raise NotFound(f"the eggs of {clutch.code} lie in no box")
    own = clutch.code.casefold()
    return next((box for box in boxes if box.name.casefold() == own), boxes[0])


def lying_since_s(clutch: Clutch) -> int:
    """When the eggs of a clutch came into their boxes (s): as they were laid, or arrived.

    What lay day saw and did was then, where nobody said when.
    """
    origin = ClutchOrigin.only(clutch_id=clutch.entity_id)
    return clutch.laid_s if origin is None or origin.arrived_s is None else origin.arrived_s


def require_in_box(egg: Egg, at_s: float) -> None:
    """Raise NotPlausible when the egg had been taken out by then: there is nothing to see of it."""
    removal = EggEvent.only(egg_id=egg.entity_id, kind=EggActKind.REMOVED.value)
    if removal is not None and removal.at_s <= at_s:
        raise NotPlausible("eggs", f"egg {egg.number} was removed: nothing to record of it")


def require_not_ahead(at_s: float, now_s: float) -> None:
    """Raise NotPlausible for a time in the future."""
    if at_s > now_s + CLOCK_GRACE_S:
        raise NotPlausible("at", "that time is in the future")


def of_this_moment(at_s: float, now_s: float) -> bool:
    """Whether a thing is told as it happens. What is told of the past may be entered before what
    led to it: a box put back on a shelf, before it was carried off."""
    return at_s >= now_s - CLOCK_GRACE_S


def require_between_lay_and_now(clutch: Clutch, at_s: float, now_s: float) -> None:
    """Raise NotPlausible for a time before the clutch was laid, or ahead."""
    require_not_ahead(at_s, now_s)
    if at_s < clutch.laid_s:
        raise NotPlausible("at", f"that is before clutch {clutch.code} was laid")


def require_between_set_up_and_now(box: Box, at_s: float, now_s: float) -> None:
    """Raise NotPlausible for a time before the box was set up, or ahead."""
    require_not_ahead(at_s, now_s)
    if at_s < box.from_s:
        raise NotPlausible("at", f"that is before box {box.name} was set up")
