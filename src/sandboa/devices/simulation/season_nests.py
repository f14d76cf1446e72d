"""What a simulated clutch begins with, and when its keeper means to come."""

from dataclasses import dataclass

import numpy as np

from sandboa.devices.simulation.season_hazards import NO_HAZARD, CabinetHazard


@dataclass(frozen=True)
class Planned:
    """A visit the keeper means to make on a day (since lay): is the box weighed, eggs candled."""

    day: float
    weighs: bool = False
    candles: bool = False


@dataclass(frozen=True)
class Nest:
    """What a clutch begins with. `curve` is (days since lay, share developed), both (n,).

    What is None is drawn: masses in g, and `planned` visits, else one every `every_days`.
    """

    dam: str
    sire: str
    laid_day: float
    cabinet: str
    shelf: str
    eggs: int
    slugs: int
    hazard: str | None
    cabinet_hazard: CabinetHazard
    curve: tuple[np.ndarray, np.ndarray]
    humidity: float
    every_days: float
    weighs: bool = True
    candles: bool = True
    forced: tuple[tuple[int, str], ...] = ()
    closing: str | None = None
    medium: str | None = None
    only_forced: bool = False
    dry_g: float | None = None
    water_g: float | None = None
    set_up_g: float | None = None
    planned: tuple[Planned, ...] | None = None
    second: str | None = None
    second_of_cabinet: CabinetHazard = NO_HAZARD

    @property
    def hazards(self) -> frozenset[str]:
        """What befalls the box."""
        return frozenset(h for h in (self.hazard, self.second) if h is not None)

    def share(self, day: float) -> float:
        """Share developed on that day since lay."""
        days, shares = self.curve
        return float(np.interp(day, days, shares))
