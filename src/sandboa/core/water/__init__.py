"""Water of a box: how much to mix in, and how much to put back."""

from sandboa.core.water.drying import WaterLeft, loss_g_day, water_left
from sandboa.core.water.mixing import (
    MEDIA,
    DryMass,
    Medium,
    Mix,
    dry_mass_from_volume,
    medium_named,
    mix,
)
from sandboa.core.water.top_up import POURED_RANGE_G, TopUp, top_up

__all__ = [
    "MEDIA",
    "POURED_RANGE_G",
    "DryMass",
    "Medium",
    "Mix",
    "TopUp",
    "WaterLeft",
    "dry_mass_from_volume",
    "loss_g_day",
    "medium_named",
    "mix",
    "top_up",
    "water_left",
]
