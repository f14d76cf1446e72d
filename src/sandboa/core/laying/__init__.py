"""Before the eggs: when a dam will lay, and what has to be ready by then."""

from sandboa.core.laying.intervals import (
    INTERVALS,
    OFFERED_SIGNS,
    LayInterval,
    Learned,
    PastInterval,
    Sign,
    learn,
)
from sandboa.core.laying.lay_forecast import LayForecast, SeenSign, lay_forecast, strongest_sign
from sandboa.core.laying.preparation import Preparation, PreparationTask, preparation

__all__ = [
    "INTERVALS",
    "OFFERED_SIGNS",
    "LayForecast",
    "LayInterval",
    "Learned",
    "PastInterval",
    "Preparation",
    "PreparationTask",
    "SeenSign",
    "Sign",
    "lay_forecast",
    "learn",
    "preparation",
    "strongest_sign",
]
