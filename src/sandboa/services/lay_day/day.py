"""A lay day as it is told, and what of it cannot be."""

from dataclasses import dataclass
from datetime import datetime
from typing import Final

from sandboa.core.animals import require_weight
from sandboa.core.box import Closing, Shell, require_distinct_places
from sandboa.core.candling import Disc, Vessels
from sandboa.core.clutch_count import MOST_EGGS, ClutchCount, clutch_count
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EGG_MASS_RANGE_G, EggEvent, Lump
from sandboa.core.methods import Contact, Method
from sandboa.core.units import require_moment, require_range
from sandboa.core.water.top_up import BOX_MASS_RANGE_G
from sandboa.services.acts.preconditions import require_not_ahead
from sandboa.services.boxes.set_up import BOX_CONTENT_G, BoxCommand, require_box_content
from sandboa.services.lay_day.origin import OriginCommand, check_origin

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
    shells: tuple[Shell, ...] = ()
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
    first. `into` is the name of a box that is there already, which then is the first. `origin` says
    what is known where nobody saw them laid; `laid_at` is then the middle of that.
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
    origin: OriginCommand | None = None

    @property
    def begins_s(self) -> int:
        """When the eggs lie in their boxes here: from lay on, or from when they came (s)."""
        laid_s = self.laid_at.timestamp()
        arrived_s = self.origin.arrived_s if self.origin else None
        return int(laid_s if arrived_s is None else arrived_s)

    @property
    def handled_s(self) -> float:
        """When the eggs were candled, turned and boxed, and the dam looked at (s)."""
        return self.handled_at.timestamp() if self.handled_at else float(self.begins_s)

    @property
    def count(self) -> ClutchCount:
        return clutch_count(len(self.eggs), sum(egg.slug for egg in self.eggs))

    @property
    def maternal(self) -> bool:
        return self.method is not None and self.method.maternal


def check_lay_day(day: LayDay, now_s: float) -> None:
    """Raise NotPlausible for whatever of a lay day cannot be true, at its field."""
    check_laid(day, now_s)
    _require_boxes(day)


def check_laid(day: LayDay, now_s: float) -> None:
    """The same of a clutch that lies in its boxes already, whichever those are."""
    if day.origin is not None:
        check_origin(day.origin, now_s)
    laid_s = day.laid_at.timestamp()
    if laid_s > now_s:
        raise NotPlausible("laid_at", "laid in the future: check the date and the time")
    require_moment("laid_at", laid_s)
    require_handled_between(day.handled_at, laid_s, now_s)
    require_two(day.dam, day.sire)
    if not 1 <= len(day.eggs) <= MOST_EGGS:
        raise NotPlausible("eggs", f"{len(day.eggs)} eggs is outside 1 to {MOST_EGGS}")
    _require_places(day)
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


def _require_places(day: LayDay) -> None:
    """Raise NotPlausible where an egg lies outside its box, or two at one place of it."""
    for number, egg in enumerate(day.eggs, start=1):
        if not (0.0 <= egg.x <= 1.0 and 0.0 <= egg.y <= 1.0):
            raise NotPlausible("eggs", f"egg {number} lies outside the box")
    for box in {egg.box for egg in day.eggs}:
        own = [(number, egg) for number, egg in enumerate(day.eggs, start=1) if egg.box == box]
        require_distinct_places([(egg.x, egg.y) for _, egg in own], [number for number, _ in own])


def _require_boxes(day: LayDay) -> None:
    """Raise NotPlausible where a box of a clutch to be laid has no egg, or cannot be as said."""
    if day.maternal and (day.further or day.into):
        raise NotPlausible("box", "eggs the dam keeps lie in no box")
    if len(day.further) > MOST_FURTHER:
        raise NotPlausible("box", f"{MOST_FURTHER + 1} boxes are enough for one clutch")
    held = {egg.box for egg in day.eggs}
    for number in range(len(day.further) + 1):
        if number not in held:
            which = "the first box" if number == 0 else f"further box {number}"
            raise NotPlausible("box", f"no egg lies in {which}: put one in, or leave it out")
    if not held <= set(range(len(day.further) + 1)):
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
