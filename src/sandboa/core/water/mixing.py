"""Mixing medium and water: by weight, by depth, or not at all (rule D1, D2)."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import MEDIUM_MASS_RANGE_G, require_range

#: g of water per g of dry medium that anyone mixes (assumption: beyond what saturated perlite
#: takes, rule D2).
RATIO_RANGE: Final = (0.1, 8.0)
#: litres of dry medium a box can hold (assumption).
VOLUME_RANGE_L: Final = (0.05, 60.0)
#: mm of water under a grid, and cm along a side of a box, that anyone has (assumption).
DEPTH_RANGE_MM: Final = (1.0, 100.0)
SIDE_RANGE_CM: Final = (5.0, 120.0)


class WaterBy(StrEnum):
    """How the water of a medium is measured (rule D2)."""

    WEIGHT = "by weight"
    SOAKED = "soaked"
    DEPTH = "by depth"
    NONE = "none added"


@dataclass(frozen=True, slots=True)
class Medium:
    """A school of medium (rule D1, D2).

    `density_g_l` is (typical, low, high) dry bulk mass per litre, or None
    where volume says nothing about mass. `ratio` is the usual water to dry
    mass, None where water is not mixed in by weight, and `ratio_range` what is
    usual of it. `how` tells the keeper what to do. `for_hatching`: eggs lie on
    it in their last days only.
    """

    name: str
    density_g_l: tuple[float, float, float] | None
    ratio: float | None
    how: str
    water: WaterBy = WaterBy.WEIGHT
    ratio_range: tuple[float, float] | None = None
    on_grid: bool = False
    for_hatching: bool = False


#: Densities: rule D1 (keeper practice); half and half is their mean (assumption). Ratios: rule D2
#: (assumption).
MEDIA: Final = (
    Medium("vermiculite", (110.0, 80.0, 140.0), 1.0, "By weight, on the dry medium."),
    Medium("perlite", (100.0, 70.0, 130.0), 1.0, "By weight: damp, not wet."),
    Medium(
        "saturated perlite", (100.0, 70.0, 130.0), 5.0,
        "Pour until the water stands just under the grid: several times its dry weight.",
        ratio_range=(3.0, 6.0), on_grid=True,
    ),
    Medium(
        "half and half", (105.0, 75.0, 135.0), 1.0,
        "Wet it, let it drain: by weight what stays is its water.",
    ),
    Medium(
        "ready-mixed", None, None, "It comes with its water: add none, and weigh the box.",
        water=WaterBy.NONE,
    ),
    Medium(
        "sponges", None, None, "Soak them through, then weigh the box: that is its water.",
        water=WaterBy.SOAKED, on_grid=True,
    ),
    Medium(
        "water under a grid", None, None, "Measured by its depth: well below the grid.",
        water=WaterBy.DEPTH, on_grid=True,
    ),
    Medium(
        "damp paper", None, None, "Wrung out: damp to the hand, and warm.",
        water=WaterBy.SOAKED, for_hatching=True,
    ),
)  # fmt: skip
#: What eggs lie on in a hatching box (keeper practice).
DAMP_PAPER: Final = MEDIA[-1].name


@dataclass(frozen=True, slots=True)
class DryMass:
    """Dry mass worked out from a volume: rough, weighing wins."""

    mass_g: float
    low_g: float
    high_g: float


@dataclass(frozen=True, slots=True)
class Mix:
    """Water for a mass of dry medium, all in g (1 g of water is 1 ml)."""

    medium: str
    dry_mass_g: float
    ratio: float
    water_g: float
    total_g: float


def medium_named(name: str, media: Sequence[Medium] = MEDIA) -> Medium:
    """The medium of that name; NotPlausible lists the names there are."""
    wanted = name.strip().lower().replace("_", " ").replace("-", " ")
    for medium in media:
        if medium.name.replace("-", " ") == wanted:
            return medium
    known = ", ".join(m.name for m in MEDIA)
    raise NotPlausible("medium", f'"{name[:40]}" is not a medium known here: {known}')


def mix(
    medium: str,
    dry_mass_g: float,
    ratio: float | None = None,
    media: Sequence[Medium] = MEDIA,
) -> Mix:
    """Water = dry mass x ratio (by weight, rule D1).

    `dry_mass_g` 1-20,000 g; `ratio` 0.1-8 g of water per g, by default the
    medium's usual one, as `media` have it. Raises NotPlausible outside these, or when the medium
    is not mixed by weight and no ratio was given.
    """
    known = medium_named(medium, media)
    require_range("dry mass", dry_mass_g, MEDIUM_MASS_RANGE_G, "g")
    chosen = known.ratio if ratio is None else ratio
    if chosen is None:
        raise NotPlausible(
            "ratio", f"{known.name} has no usual ratio by weight: give one. {known.how}"
        )
    require_range("ratio", chosen, RATIO_RANGE, "")
    water_g = dry_mass_g * chosen
    return Mix(known.name, dry_mass_g, chosen, water_g, dry_mass_g + water_g)


def dry_mass_from_volume(medium: str, litres: float, media: Sequence[Medium] = MEDIA) -> DryMass:
    """Rough dry mass of `litres` (0.05-60) of medium, with its likely range (rule D1)."""
    known = medium_named(medium, media)
    require_range("volume", litres, VOLUME_RANGE_L, "l")
    if known.density_g_l is None:
        raise NotPlausible("medium", f"{known.name} cannot be judged by volume: weigh it")
    typical, low, high = known.density_g_l
    return DryMass(typical * litres, low * litres, high * litres)


def water_of_depth(depth_mm: float, length_cm: float, width_cm: float) -> float:
    """g of water `depth_mm` (1-100) deep on a floor of `length_cm` by `width_cm` (5-120 each).

    A box with sloping walls holds a little more or less. Raises NotPlausible outside these.
    """
    require_range("depth", depth_mm, DEPTH_RANGE_MM, "mm")
    for name, side in (("length", length_cm), ("width", width_cm)):
        require_range(name, side, SIDE_RANGE_CM, "cm")
    return depth_mm / 10.0 * length_cm * width_cm
