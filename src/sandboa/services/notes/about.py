"""What a note can be about, and what that is called."""

from dataclasses import dataclass

from sandboa.records.animals import Pairing
from sandboa.records.clutches import Box, Clutch, Egg
from sandboa.records.hatching import Hatchling
from sandboa.records.house import Animal, Cabinet, Probe
from sandboa.records.notes import kind_of
from sandboa.records.rounds import Visit
from sandboa.services.acts.errors import NotFound


@dataclass(frozen=True, slots=True)
class About:
    """A thing by its kind and id, and its name in words; `clutch` is its code where it has one,
    `egg` a number in that, `box` and `cabinet` names."""

    kind: str
    id: int
    name: str
    clutch: str | None = None
    egg: int | None = None
    box: str | None = None
    cabinet: str | None = None
    animal: int | None = None


def thing(entity: int) -> About:
    """What a note with that id as its `about` is about.

    Raises NotFound for no such thing, one that was undone, or one that takes no notes.
    """
    found = _found(entity)
    if found is None:
        raise NotFound("there is nothing such to write a note on")
    return found


def thing_or_none(entity: int) -> About | None:
    """As `thing`, None where there is nothing."""
    return _found(entity)


def _found(entity: int) -> About | None:
    kind = kind_of(entity)
    ask = _ASK.get(kind or "")
    return ask(entity) if ask is not None else None


def _animal(entity: int) -> About | None:
    row = Animal.now(entity)
    return About("animal", entity, row.name, animal=entity) if row else None


def _clutch(entity: int) -> About | None:
    row = Clutch.now(entity)
    return About("clutch", entity, row.code, clutch=row.code) if row else None


def _egg(entity: int) -> About | None:
    row = Egg.now(entity)
    clutch = Clutch.now(row.clutch_id) if row else None
    if row is None or clutch is None:
        return None
    name = f"egg {clutch.code}/{row.number}"
    return About("egg", entity, name, clutch=clutch.code, egg=row.number)


def _box(entity: int) -> About | None:
    row = Box.now(entity)
    return About("box", entity, f"box {row.name}", box=row.name) if row else None


def _cabinet(entity: int) -> About | None:
    row = Cabinet.now(entity)
    return About("cabinet", entity, row.name, cabinet=row.name) if row else None


def _pairing(entity: int) -> About | None:
    row = Pairing.now(entity)
    her, him = (Animal.now(row.dam_id), Animal.now(row.sire_id)) if row else (None, None)
    if her is None or him is None:
        return None
    name = f"pairing of {her.name} and {him.name}"
    return About("pairing", entity, name, animal=her.entity_id)


def _visit(entity: int) -> About | None:
    row = Visit.now(entity)
    box = Box.now(row.box_id) if row else None
    return About("visit", entity, f"visit to {box.name}", box=box.name) if box else None


def _probe(entity: int) -> About | None:
    row = Probe.now(entity)
    return About("probe", entity, f"probe {row.name}") if row else None


def _hatchling(entity: int) -> About | None:
    row = Hatchling.now(entity)
    egg = _egg(row.egg_id) if row else None
    if egg is None:
        return None
    return About("hatchling", entity, f"hatchling of {egg.name}", clutch=egg.clutch, egg=egg.egg)


_ASK = {
    "animal": _animal,
    "box": _box,
    "cabinet": _cabinet,
    "clutch": _clutch,
    "egg": _egg,
    "hatchling": _hatchling,
    "pairing": _pairing,
    "probe": _probe,
    "visit": _visit,
}
