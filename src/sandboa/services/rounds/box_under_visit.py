"""A visit beside what is recorded of its box: what checks, collisions and writing work with."""

from dataclasses import dataclass

from sandboa.records.clutches import Box, Clutch, Egg
from sandboa.services.acts.preconditions import clutch_called, egg_of
from sandboa.services.boxes.mass_ledger import BoxRows, read_rows
from sandboa.services.rounds.visit import BoxVisit


@dataclass(frozen=True)
class BoxUnderVisit:
    """The visit, its clutch, box, the box's rows, and the eggs it names; `at_s` is door shut."""

    visit: BoxVisit
    now_s: float
    clutch: Clutch
    box: Box
    rows: BoxRows
    eggs: dict[int, Egg]
    at_s: int

    @classmethod
    def of(cls, visit: BoxVisit, now_s: float) -> "BoxUnderVisit":
        """Read what there is; NotFound for an unknown clutch or egg."""
        clutch = clutch_called(visit.code)
        box = Box.of(clutch)
        eggs = {egg.number: egg_of(clutch, egg.number) for egg in visit.eggs}
        return cls(visit, now_s, clutch, box, read_rows(box), eggs, int(visit.closed_s))
