"""What an undo must leave standing because other facts lean on it."""

from sandboa.records.clutches import Box, Clutch
from sandboa.records.facts import Fact
from sandboa.records.house import Animal, Cabinet, Probe, SetPoint, Shelf

#: Tables whose rows other acts share, in the order in which they can be let go.
SHARED: tuple[type[Fact], ...] = (Animal, Shelf, Cabinet, SetPoint)


def still_needed(row: Fact) -> bool:
    """Whether a current fact leans on this one: a clutch on its dam, a box on its shelf.

    The first clutch of a house brings its cabinet, shelf and animals with it;
    undone, it must not take them away from the clutches that came after.
    """
    entity = row.entity
    if isinstance(row, Animal):
        return bool(Clutch.current((Clutch.dam == entity) | (Clutch.sire == entity)))
    if isinstance(row, Shelf):
        return bool(Box.current(Box.shelf == entity) or Probe.current(Probe.place == entity))
    if isinstance(row, Cabinet):
        return bool(Shelf.current(Shelf.cabinet == entity) or Probe.current(Probe.place == entity))
    if isinstance(row, SetPoint):
        others = SetPoint.current(SetPoint.cabinet == row.cabinet, SetPoint.id != row.id)
        return Cabinet.now(row.cabinet) is not None and not others
    return False
