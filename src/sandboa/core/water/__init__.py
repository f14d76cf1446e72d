"""Water of a box: how much to mix in, how much is left, and how much to put back."""

from sandboa.core.water.drying import (
    DEFAULT_EXCHANGE,
    EXCHANGE_L_DAY,
    MEDIUM_FACTOR,
    ExchangeRules,
    loss_g_day,
    unmeasured_air_sd,
)
from sandboa.core.water.estimate import (
    DRY_SHARE,
    TOP_UP_SHARE,
    DateBand,
    Exchange,
    WaterLeft,
    water_left,
)
from sandboa.core.water.learning import WeighedBox, closing_exchange
from sandboa.core.water.ledger import (
    MassChange,
    MassLedger,
    Pour,
    Weighing,
    require_plausible_weighing,
)
from sandboa.core.water.loss_curve import AirOfDay, LossCurve, loss_curve
from sandboa.core.water.mixing import (
    MEDIA,
    DryMass,
    Medium,
    Mix,
    dry_mass_from_volume,
    medium_named,
    mix,
)
from sandboa.core.water.signs import WATER_SIGNS, WaterSign, WaterSignKind
from sandboa.core.water.top_up import POURED_RANGE_G, TopUp, top_up

__all__ = [
    "DEFAULT_EXCHANGE",
    "DRY_SHARE",
    "EXCHANGE_L_DAY",
    "MEDIA",
    "MEDIUM_FACTOR",
    "POURED_RANGE_G",
    "TOP_UP_SHARE",
    "WATER_SIGNS",
    "AirOfDay",
    "DateBand",
    "DryMass",
    "Exchange",
    "ExchangeRules",
    "LossCurve",
    "MassChange",
    "MassLedger",
    "Medium",
    "Mix",
    "Pour",
    "TopUp",
    "WaterLeft",
    "WaterSign",
    "WaterSignKind",
    "WeighedBox",
    "Weighing",
    "closing_exchange",
    "dry_mass_from_volume",
    "loss_curve",
    "loss_g_day",
    "medium_named",
    "mix",
    "require_plausible_weighing",
    "top_up",
    "unmeasured_air_sd",
    "water_left",
]
