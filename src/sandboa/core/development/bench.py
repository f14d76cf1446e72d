"""Forecasts from given values alone, without a house: the Bench, and `sandboa forecast`."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from sandboa.core.clutch_count import clutch_count
from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentClock,
    DevelopmentCurve,
    Forecast,
    HatchPrior,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    forecast,
    offset_from_set_point_c,
)
from sandboa.core.development.basis import rests_on
from sandboa.core.development.box_temperature import Ahead
from sandboa.core.development.ribbon import RibbonPiece, ribbon
from sandboa.core.development.rules import DEFAULT_RULES, ForecastRules
from sandboa.core.errors import NotPlausible
from sandboa.core.units import SECONDS_PER_DAY, SET_POINT_RANGE_C, require_range

#: A reading: its time (s), °C, and humidity 0-1 or None.
ReadingRow = tuple[int, float, float | None]


@dataclass(frozen=True)
class BenchClutch:
    """A clutch as it is asked about: laid and as of when (s), its cabinet's set point (°C).

    `rows` are readings of its box, (time s, °C, humidity), any order; later than
    `as_of_s` not used.
    """

    laid_s: float
    as_of_s: float
    set_point_c: float
    eggs: int
    rows: Sequence[ReadingRow] = ()


@dataclass(frozen=True)
class WhatIf:
    """A forecast, the same at another set point, and the shift between them (days)."""

    forecast: Forecast
    ribbon: tuple[RibbonPiece, ...]
    rests_on: str
    future_c: float
    other: Forecast | None
    shift_days: float | None


def what_if(
    clutch: BenchClutch,
    other_set_point_c: float | None = None,
    clock: DevelopmentClock = DEFAULT_CLOCK,
    rules: ForecastRules = DEFAULT_RULES,
) -> WhatIf:
    """Forecast from a lay date, a set point and, if there are any, readings of the box.

    `other_set_point_c` replaces the set point since lay, and the temperature
    from now on; `clock` and `rules` are the house's own, where there is one.
    Raises NotPlausible for values out of range or a moment before lay.
    `sandboa forecast` gives the same numbers by the default ones.
    """
    clutch_count(clutch.eggs)
    require_range("set point", clutch.set_point_c, SET_POINT_RANGE_C, "°C")
    if clutch.as_of_s < clutch.laid_s:
        raise NotPlausible("laid_at", "laid after the moment the forecast is made for")
    prior = HatchPrior(0.0, rules.untaught_sd, rules.egg_sd_days, rules=rules)
    curve = curve_from(clutch, clock)
    now = forecast(curve, clutch.eggs, prior=prior)
    other = shift_days = None
    if other_set_point_c is not None:
        require_range("other set point", other_set_point_c, SET_POINT_RANGE_C, "°C")
        otherwise = curve_from(clutch, clock, instead_c=other_set_point_c)
        other = forecast(otherwise, clutch.eggs, prior=prior)
        if other.typical_pip and now.typical_pip:
            shift_days = (other.typical_pip.p50 - now.typical_pip.p50) / SECONDS_PER_DAY
    return WhatIf(
        now,
        ribbon(curve, SetPoints((clutch.laid_s,), (clutch.set_point_c,))),
        rests_on(curve),
        curve.temperature.future_c,
        other,
        shift_days,
    )


def curve_from(
    clutch: BenchClutch,
    clock: DevelopmentClock = DEFAULT_CLOCK,
    instead_c: float | None = None,
) -> DevelopmentCurve:
    """D(t) from one logger in the box and a set point that never changed.

    Where the logger is silent the set point stands in, moved by what was usual
    between the two, as in a house. `instead_c` is another set point, in its
    place wherever nothing measured, and from now on.
    """
    unique: dict[int, float] = {}
    laid_s, as_of_s, set_point_c = clutch.laid_s, clutch.as_of_s, clutch.set_point_c
    for at_s, temperature_c, _ in clutch.rows:
        unique.setdefault(at_s, temperature_c)
    times = np.array(sorted(unique), dtype=np.float64)
    values = np.array([unique[int(t)] for t in times], dtype=np.float64)
    series = ReadingSeries(times, values)
    shown = SetPoints((laid_s,), (set_point_c,))
    usual_c = offset_from_set_point_c(series, shown, as_of_s) or 0.0
    stands_in_c = (set_point_c if instead_c is None else instead_c) + usual_c
    temperature = box_temperature(
        laid_s,
        as_of_s,
        [TemperatureSource(Provenance.BOX_PROBE, series)] if len(times) else [],
        SetPoints((laid_s,), (stands_in_c,)),
        Ahead(future_c=None if instead_c is None else stands_in_c),
    )
    return DevelopmentCurve(temperature, clock)
