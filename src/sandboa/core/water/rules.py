"""The numbers of a box's water, as the house uses them (rules D2, D4, D5)."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.water.kinds import WaterSignKind

#: At which to top up, and at which it counts as dry (rule D4).
TOP_UP_SHARE: Final = 0.50
DRY_SHARE: Final = 0.25
#: g to which a top-up is rounded: what a keeper can pour (rule D2).
ROUND_TO_G: Final = 5.0
#: Share of the set-up water above which a top-up is split over two days (rule D2).
SPLIT_ABOVE: Final = 0.6
#: g (mean, sd) an egg taken out unweighed counts, where none of its clutch was weighed
#: (rule D2; assumption).
UNWEIGHED_EGG_G: Final = (85.0, 12.0)
#: Relative humidity of a cabinet's air where nothing measures it, and the 80 % range of what it
#: may be (rule D4; assumption).
UNKNOWN_HUMIDITY: Final = 0.40
UNKNOWN_HUMIDITY_RANGE: Final = (0.25, 0.65)
#: (kind, value): share of the set-up water it speaks for, and its sd (assumption; rule D5).
WATER_SIGNS: Final = {
    (WaterSignKind.MEDIUM, "drips"): (1.00, 0.30),
    (WaterSignKind.MEDIUM, "clumps"): (0.70, 0.25),
    (WaterSignKind.MEDIUM, "barely damp"): (0.35, 0.20),
    (WaterSignKind.MEDIUM, "dry"): (0.10, 0.18),
    (WaterSignKind.LID, "raining"): (0.90, 0.45),
    (WaterSignKind.LID, "half"): (0.85, 0.40),
    (WaterSignKind.LID, "edges"): (0.70, 0.40),
    (WaterSignKind.LID, "none"): (0.35, 0.40),
    (WaterSignKind.FEEL, "as ever"): (0.75, 0.35),
    (WaterSignKind.FEEL, "light"): (0.35, 0.30),
}
#: Share developed from which a wet lid says nothing of the medium: eggs give off water
#: before pipping (rule D5).
LID_SILENT_FROM: Final = 0.85


@dataclass(frozen=True, slots=True)
class WaterRules:
    """Numbers in force: shares of the set-up water and humidity 0-1, masses in g.

    `signs` are what a look at medium or lid speaks for, (share, sd) by (kind, value).
    """

    top_up: float = TOP_UP_SHARE
    dry: float = DRY_SHARE
    round_to_g: float = ROUND_TO_G
    split_above: float = SPLIT_ABOVE
    unweighed_egg_g: float = UNWEIGHED_EGG_G[0]
    unweighed_egg_sd_g: float = UNWEIGHED_EGG_G[1]
    unknown_humidity: float = UNKNOWN_HUMIDITY
    unknown_humidity_low: float = UNKNOWN_HUMIDITY_RANGE[0]
    unknown_humidity_high: float = UNKNOWN_HUMIDITY_RANGE[1]
    lid_silent_from: float = LID_SILENT_FROM
    signs: Mapping[tuple[WaterSignKind, str], tuple[float, float]] = field(
        default_factory=lambda: WATER_SIGNS
    )


DEFAULT_WATER: Final = WaterRules()
