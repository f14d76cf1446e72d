"""The development clock: how far a clutch is, and when it will pip."""

from sandboa.core.development.box_temperature import BoxTemperature, Stretch, box_temperature
from sandboa.core.development.clock import DEFAULT_CLOCK, DevelopmentClock
from sandboa.core.development.cold_spells import ColdSpell, cold_spells
from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.forecast import Forecast, forecast, forecast_clutch
from sandboa.core.development.learning import (
    Circumstances,
    Effect,
    FinishedClutch,
    HouseLearning,
    Learned,
    learn,
)
from sandboa.core.development.pipping import EggGroup
from sandboa.core.development.place_offsets import learned_offset_c, offset_from_set_point_c
from sandboa.core.development.reading_series import ReadingSeries
from sandboa.core.development.record_errors import RecordErrors, record_errors
from sandboa.core.development.score import SCORED_DAYS, Score, score
from sandboa.core.development.sources import Provenance, SetPoints, TemperatureSource
from sandboa.core.development.windows import HatchPrior, Window

__all__ = [
    "DEFAULT_CLOCK",
    "SCORED_DAYS",
    "BoxTemperature",
    "Circumstances",
    "ColdSpell",
    "DevelopmentClock",
    "DevelopmentCurve",
    "Effect",
    "EggGroup",
    "FinishedClutch",
    "Forecast",
    "HatchPrior",
    "HouseLearning",
    "Learned",
    "Provenance",
    "ReadingSeries",
    "RecordErrors",
    "Score",
    "SetPoints",
    "Stretch",
    "TemperatureSource",
    "Window",
    "box_temperature",
    "cold_spells",
    "forecast",
    "forecast_clutch",
    "learn",
    "learned_offset_c",
    "offset_from_set_point_c",
    "record_errors",
    "score",
]
