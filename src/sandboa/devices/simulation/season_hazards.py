"""What can take eggs in a simulated season, and when. A world of its own.

Hazards of a cabinet strike everything in it; those of a box its eggs; those
of an egg that egg alone. Chances and doses are assumptions, chosen so that
every cause occurs; they are no frequencies of real life.
"""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from sandboa.devices.simulation.mishaps import Mishap, MishapKind

_DAY_S: Final = 86_400.0

#: The words are the simulation's own; what a keeper would call each is said where it is scored.
#: Of a cabinet, with the chance that a season holds it.
OF_CABINET: Final = (
    ("heat wave", 0.10),
    ("cold snap", 0.10),
    ("see-saw", 0.10),
    ("blackout", 0.12),
    ("fumes", 0.08),
)
#: Of a box.
OF_BOX: Final = (
    ("parched", 0.13),
    ("soaked", 0.08),
    ("stuffy", 0.09),
    ("spent mother", 0.06),
    ("double dose", 0.08),
    ("fly brood", 0.05),
    ("hidden strain", 0.05),
)
#: Of one egg.
OF_EGG: Final = (
    ("blank", 0.020),
    ("face down", 0.022),
    ("bump", 0.022),
    ("rot", 0.022),
    ("early blade", 0.010),
    ("locked in", 0.016),
    ("tether", 0.010),
    ("twisted", 0.016),
    ("poor wrap", 0.020),
    ("silent stop", 0.015),
    ("slow fade", 0.015),
    ("shaken", 0.015),
)
#: What no list of causes holds, wherever it strikes.
UNLISTED: Final = ("silent stop", "slow fade", "shaken", "hidden strain")
#: Chance that a box, and a cabinet, has a second hazard.
SECOND: Final = 0.15


@dataclass(frozen=True)
class CabinetHazard:
    """What befalls a cabinet, from day to day of the season: its set points, its mishaps."""

    cause: str | None = None
    start: float = 0.0
    end: float = 0.0
    set_points: tuple[tuple[float, float], ...] = ()
    mishaps: tuple[Mishap, ...] = ()
    altered_day: float | None = None
    strength: float = 1.0


NO_HAZARD: Final = CabinetHazard()


@dataclass(frozen=True)
class Death:
    """An egg dies of a cause on a day of the season, or at a share of its development.

    `also` is another that struck it about then and would have done it alone.
    """

    cause: str
    day: float | None = None
    share: float | None = None
    also: str | None = None
    more: dict[str, float] = field(default_factory=dict)


def draw(hazards: tuple[tuple[str, float], ...], random: np.random.Generator) -> str | None:
    """One of the hazards by its chance, or none."""
    at = random.random()
    for name, chance in hazards:
        if at < chance:
            return name
        at -= chance
    return None


def cabinet_hazard(
    began_s: float, days: float, set_point_c: float, random: np.random.Generator
) -> CabinetHazard:
    """Draw what befalls a cabinet in a season, most often nothing."""
    return hazard_of(draw(OF_CABINET, random), began_s, days, set_point_c, random)


def hazard_of(
    cause: str | None,
    began_s: float,
    days: float,
    set_point_c: float,
    random: np.random.Generator,
) -> CabinetHazard:
    """A hazard of that cause somewhere in the season."""
    start = float(random.uniform(0.25, 0.7) * days)

    def at(day: float) -> float:
        return began_s + day * _DAY_S

    if cause == "heat wave":
        end = start + float(random.uniform(1.5, 4.0))
        hot_c = set_point_c + float(random.uniform(3.5, 5.0))
        points = _spell(at, start, end, 0.5, set_point_c, hot_c)
        return CabinetHazard(cause, start, end, points, strength=(end - start) * (hot_c - 33.0))
    if cause == "cold snap":
        end = start + float(random.uniform(3.0, 7.0))
        cold_c = float(random.uniform(21.5, 24.5))
        # A heater too weak for a cold week: it slides down, and comes back as slowly.
        points = _spell(at, start, end, 1.5, set_point_c, cold_c)
        return CabinetHazard(cause, start, end, points, strength=(end - start) * (27.0 - cold_c))
    if cause == "see-saw":
        end = start + float(random.uniform(10.0, 20.0))
        half_c = float(random.uniform(1.4, 2.0))
        points = tuple(
            (at(start + n / 2.0), set_point_c + (half_c if n % 2 else -half_c))
            for n in range(int(2 * (end - start)))
        )
        return CabinetHazard(cause, start, end, (*points, (at(end), set_point_c)))
    if cause == "blackout":
        end = start + float(random.uniform(10.0, 30.0)) / 24.0
        cut = Mishap(MishapKind.POWER_CUT, at(start), at(end))
        return CabinetHazard(cause, start, end, mishaps=(cut,), strength=24.0 * (end - start))
    if cause == "fumes":
        return CabinetHazard(cause, 0.0, days, altered_day=-float(random.uniform(5.0, 30.0)))
    return CabinetHazard()


def _spell(
    at: Callable[[float], float],
    start: float,
    end: float,
    slide_days: float,
    usual_c: float,
    spell_c: float,
) -> tuple[tuple[float, float], ...]:
    """Set points that slide away within `slide_days`, stay, and slide back."""
    steps = [n / 8.0 for n in range(1, 9)]
    down = [(at(start + s * slide_days), usual_c + s * (spell_c - usual_c)) for s in steps]
    back = [(at(end + s * slide_days), spell_c + s * (usual_c - spell_c)) for s in steps]
    return (*down, *back)


def strikes(hazard: CabinetHazard, laid: float, random: np.random.Generator) -> Death | None:
    """Whether the cabinet's hazard kills an egg laid on that day of the season."""
    cause = hazard.cause
    if cause is None or laid >= hazard.end:
        return None
    if cause == "fumes":
        dies = random.random() < 0.85
        return Death(cause, day=laid + float(random.normal(34.0, 4.0))) if dies else None
    if laid > hazard.start:
        return None
    chance = {
        "heat wave": 1.0 - float(np.exp(-hazard.strength / 14.0)),
        "cold snap": 1.0 - float(np.exp(-hazard.strength / 28.0)),
        "see-saw": 0.25,
        "blackout": min(0.75, hazard.strength / 30.0),
    }[cause]
    if random.random() >= chance:
        return None
    if cause == "see-saw":
        return Death(cause, day=float(random.uniform(hazard.start + 3.0, hazard.end + 3.0)))
    lag = float(random.gamma(2.0, 1.2))
    return Death(cause, day=hazard.end + lag if cause != "heat wave" else hazard.start + 1.0 + lag)


def egg_hazard(cause: str, term_days: float, random: np.random.Generator) -> Death:
    """When one of the hazards of a single egg kills it; `more` has what goes with it."""
    uniform = random.uniform
    if cause == "blank":
        return Death(cause, share=0.0)
    if cause == "face down":
        rolled = bool(random.random() < 0.4)
        share = float(uniform(0.15, 0.6)) if rolled else float(uniform(0.05, 0.7))
        at = max(0.03, share - float(uniform(0.02, 0.1)))
        return Death(cause, share=share, more={"rolled": at} if rolled else {})
    if cause == "bump":
        at = 0.0 if random.random() < 0.5 else float(uniform(0.1, 0.7))
        return Death(cause, share=at + float(uniform(0.02, 0.12)), more={"knocked": at})
    if cause == "rot":
        return Death(cause, share=float(uniform(0.25, 0.85)), more={"before": uniform(0.08, 0.18)})
    if cause == "early blade":
        at = float(uniform(0.84, 0.93))
        return Death(cause, share=at + float(uniform(0.005, 0.03)), more={"cut": at})
    if cause == "locked in":
        return Death(cause, share=1.0 + float(uniform(1.5, 3.5)) / term_days, more={"pipped": 1.0})
    if cause == "twisted":
        return Death(cause, share=float(uniform(0.55, 1.0)))
    if cause == "tether":
        return Death(cause, share=float(uniform(0.6, 1.0)))
    if cause == "slow fade":
        return Death(cause, share=float(uniform(0.35, 0.9)))
    if cause == "shaken":
        return Death(cause, share=float(uniform(0.06, 0.35)))
    if cause == "poor wrap":
        return Death(cause, share=float(uniform(0.2, 0.8)))
    return Death(cause, share=float(uniform(0.1, 0.98)))
