"""What is so in each world: how eggs differ, what thermometers are off by, what keepers know."""

from dataclasses import dataclass, replace
from typing import Final

from benchmarks.forecast_worlds.norms import Norm, dome, straight, tenfold, two_zeros

_ASSUMED_NORM: Final = straight(19.0, 33.0)


@dataclass(frozen=True)
class World:
    """Sds of `house`, `cabinet`, `dam` and `chance` are of ln of the development eggs need.

    `eggs_apart_days` is 1 sd within a clutch, `probe_c` 1 sd (°C) by which a thermometer is off,
    `swing_c` from the coldest to the warmest of a day. Where `hour_unknown`, the keeper knows the
    day of laying alone; `dead` is the share of clutches in which no egg lives.
    `hold` are the shares of pips the 80 % windows are to hold after five clutches.
    """

    name: str
    norm: Norm = _ASSUMED_NORM
    house: float = 0.025
    cabinet: float = 0.015
    dam: float = 0.015
    chance: float = 0.042
    eggs_apart_days: float = 1.0
    probe_c: float = 0.3
    swing_c: float = 0.6
    hour_unknown: bool = False
    dead: float = 0.0
    hold: tuple[float, float] = (0.70, 0.90)


ASSUMED: Final = World("as the rules assume")
#: Two norms bend most: for them less is asked.
_BENT: Final = (0.65, 1.0)

WORLDS: Final = (
    ASSUMED,
    World("norm: twice as fast per 10 °C", tenfold(2.0)),
    World("norm: two zeros, 21 and 38.5 °C", two_zeros(21.0, 38.5)),
    World("norm: a dome, best at 33 °C", dome(33.0, 9.0)),
    World("norm: two zeros, 24 and 37 °C", two_zeros(24.0, 37.0), hold=_BENT),
    World("norm: a dome, best at 31 °C", dome(31.0, 7.0), hold=_BENT),
    World("chance 0.03", chance=0.03),
    World("chance 0.07", chance=0.07),
    World("dams differ by 0.04", dam=0.04),
    World("thermometers off by 0.8 °C", probe_c=0.8),
    World("hour of laying unknown", hour_unknown=True),
    World("swings of 3 °C", swing_c=3.0),
    World("eggs 0.6 days apart", eggs_apart_days=0.6),
    World("eggs 2 days apart", eggs_apart_days=2.0),
    World("4 % of clutches dead", dead=0.04),
)

#: Everything against it at once.
_MIXED: Final = World(
    "mixed",
    dam=0.03,
    probe_c=0.8,
    hour_unknown=True,
    swing_c=3.0,
    eggs_apart_days=2.0,
    dead=0.04,
)
MIXED: Final = tuple(
    replace(
        _MIXED,
        name=f"mixed: {norm}; dams 0.03, probes 0.8 °C, hour unknown, swings 3 °C, 2 d, 4 % dead",
        norm=curve,
    )
    for norm, curve in (
        ("twice per 10 °C", tenfold(2.0)),
        ("two zeros, 24 and 37 °C", two_zeros(24.0, 37.0)),
        ("dome, best at 31 °C", dome(31.0, 7.0)),
    )
)
OVERDUE: Final = (
    replace(ASSUMED, name="as the rules assume, 4 % dead", dead=0.04),
    World("chance 0.07, 4 % dead", chance=0.07, dead=0.04),
    World("two zeros, 21 and 38.5 °C, 4 % dead", two_zeros(21.0, 38.5), dead=0.04),
)
