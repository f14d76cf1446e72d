"""The development clock: how far a clutch is, and when it will pip."""

from sandboa.core.development.box_temperature import (
    BoxTemperature,
    Provenance,
    ReadingSeries,
    SetPoints,
    Stretch,
    TemperatureSource,
    box_temperature,
    learned_offset_c,
)
from sandboa.core.development.clock import DEFAULT_CLOCK, DevelopmentClock
from sandboa.core.development.cold_spells import ColdSpell, cold_spells
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.forecast import Forecast, HatchPrior, Window, forecast

__all__ = [
    "DEFAULT_CLOCK",
    "BoxTemperature",
    "ColdSpell",
    "DevelopmentClock",
    "DevelopmentCurve",
    "Forecast",
    "HatchPrior",
    "Provenance",
    "ReadingSeries",
    "SetPoints",
    "Stretch",
    "TemperatureSource",
    "Window",
    "box_temperature",
    "cold_spells",
    "forecast",
    "learned_offset_c",
]
