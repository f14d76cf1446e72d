"""What a case holds: what is shown of it, and what is not."""

from dataclasses import dataclass, field
from typing import Final

from sandboa.devices.simulation.fates import Glance
from sandboa.devices.simulation.torchlight import TorchState

#: What can be done with an egg or its box next.
ACTS: Final = ("leave", "candle", "water", "air", "support", "isolate", "remove", "help")


@dataclass(frozen=True, slots=True)
class CaseBox:
    """The box of a case. Masses in g; `water_left` is the share of what was poured in, 0-1."""

    medium: str = "vermiculite"
    closing: str = "lid with 1-2 pin holes"
    lid: str = "edges"
    feels: str = "clumps"
    water_left: float = 0.85
    full_g: float = 200.0
    temperature_c: float = 31.3

    @property
    def short_g(self) -> float:
        """What the scale misses since the box was set up."""
        return (1.0 - self.water_left) * self.full_g


@dataclass(frozen=True, slots=True)
class Ending:
    """What becomes of the egg: whether it hatches, how many neighbours it takes along."""

    hatches: bool
    others_lost: int = 0


@dataclass(frozen=True, slots=True)
class Case:
    """One egg of a clutch on one day.

    Attributes
    ----------
    kind: which of `KINDS` it is.
    seed: what it was drawn from.
    day, term_days: days since it was laid, and on which day its kind pips.
    alive: whether it lives on that day; a blank never did.
    usual: whether what is seen is usual for its stage.
    cause: what is the matter, in the teller's own words; None where nothing is.
    shell: what its shell is like.
    glance: what eyes, nose, hand and torch find.
    neighbours: grades of the dents of the other eggs in the box.
    torch: its inside, for the picture.
    earlier: days on which it was looked at before, and what was found.
    hangs: whether it hangs over the rim of its clump.
    pipped_hours, first_pip_hours: h since it pipped, and since the first of its clutch did.
    endings: what becomes of it, by what is done.
    """

    kind: str
    seed: int
    day: float
    term_days: float
    alive: bool
    usual: bool
    cause: str | None
    shell: str
    glance: Glance
    neighbours: tuple[int, ...]
    torch: TorchState
    box: CaseBox
    earlier: tuple[tuple[float, Glance], ...] = ()
    hangs: bool = False
    pipped_hours: float | None = None
    first_pip_hours: float | None = None
    endings: dict[str, Ending] = field(default_factory=dict)

    @property
    def share(self) -> float:
        """Share developed of an egg that lives, on that day."""
        return self.day / self.term_days

    @property
    def blank(self) -> bool:
        """Whether there never was an animal in it."""
        return self.torch.blank

    def worth(self, act: str) -> float:
        """Animals that live by that act more (positive) or fewer than by leaving it alone."""
        return _worth(self.endings[act]) - _worth(self.endings["leave"])


def _worth(ending: Ending) -> float:
    return float(ending.hatches) - ending.others_lost
