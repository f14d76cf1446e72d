"""What is told of a simulated season: cabinets, clutches, visits, ends. Plain values only.

Days count from the season's beginning; names of causes are the teller's own
and are what really happened, which no keeper sees.
"""

from dataclasses import dataclass, field

from sandboa.devices.simulation.cabinet import Climate
from sandboa.devices.simulation.fates import Glance
from sandboa.devices.simulation.mishaps import Mishap


@dataclass(frozen=True)
class CabinetStory:
    """A cabinet: its shelves by name, its climate as it was, the day it was altered, if ever."""

    name: str
    shelves: tuple[str, ...]
    set_point_c: float
    was: Climate
    mishaps: tuple[Mishap, ...]
    first_day: float
    altered_day: float | None = None


@dataclass(frozen=True)
class AnimalStory:
    """A dam or sire; `traits` are (name, form), `weights` (day, g)."""

    name: str
    role: str
    born_years_ago: int
    traits: tuple[tuple[str, str], ...] = ()
    weights: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True)
class VisitStory:
    """A box opened on a day (since lay): what was seen and done. g; None where nothing was."""

    day: float
    glances: dict[int, Glance]
    lid: str
    medium: str | None = None
    mass_g: float | None = None
    water_g: float | None = None
    pests: str | None = None
    happened: tuple[tuple[int, str], ...] = ()


@dataclass(frozen=True)
class EggStory:
    """One egg. `cause` is what really killed it, None where it lives, `also` what helped.

    Days are since lay. `findings` is what opening it would show, by kind; `stage` how far it was
    when it died.
    """

    number: int
    place: tuple[float, float]
    slug: bool = False
    shell: str = "smooth"
    vessels_at_lay: str | None = "strong"
    disc: str | None = "top"
    cause: str | None = None
    also: str | None = None
    died_day: float | None = None
    died_share: float | None = None
    pip_day: float | None = None
    out_day: float | None = None
    cut_day: float | None = None
    bled: bool = False
    stage: str | None = None
    findings: dict[str, tuple[str, ...]] = field(default_factory=dict)
    mass_g: float = 0.0
    defects: tuple[str, ...] = ()
    small: bool = False
    #: (gene, form) it shows once it is out; None where nobody looked.
    traits: tuple[tuple[str, str], ...] | None = None


@dataclass(frozen=True)
class ClutchStory:
    """A clutch from lay (`laid_day` of the season) to its closing, `days` later."""

    dam: str
    sire: str
    laid_day: float
    days: float
    cabinet: str
    shelf: str
    medium: str
    closing: str
    dry_g: float
    water_g: float
    set_up_g: float
    eggs: tuple[EggStory, ...]
    visits: tuple[VisitStory, ...]


@dataclass(frozen=True)
class SeasonStory:
    """A season of `days`; `genes` are (name, inheritance, what the double form does)."""

    days: float
    cabinets: tuple[CabinetStory, ...]
    animals: tuple[AnimalStory, ...]
    clutches: tuple[ClutchStory, ...]
    genes: tuple[tuple[str, str, str], ...] = ()
