"""Mixing medium and water by weight (rule D1)."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.core.units import MEDIUM_MASS_RANGE_G, require_range

#: g of water per g of dry medium that anyone mixes (assumption).
RATIO_RANGE: Final = (0.1, 5.0)
#: litres of dry medium a box can hold (assumption).
VOLUME_RANGE_L: Final = (0.05, 60.0)


@dataclass(frozen=True, slots=True)
class Medium:
    """A school of medium (rule D1).

    `density_g_l` is (typical, low, high) dry bulk mass per litre, or None
    where volume says nothing about mass. `ratio` is the usual water to dry
    mass, or None where water is not mixed in by weight. `for_hatching`: eggs lie
    on it in their last days only.
    """

    name: str
    density_g_l: tuple[float, float, float] | None
    ratio: float | None
    on_grid: bool = False
    for_hatching: bool = False


#: Densities: rule D1 (keeper practice); half and half is their mean (assumption).
MEDIA: Final = (
    Medium("vermiculite", (110.0, 80.0, 140.0), 1.0),
    Medium("perlite", (100.0, 70.0, 130.0), 1.0),
    Medium("saturated perlite", (100.0, 70.0, 130.0), None, on_grid=True),
    Medium("half and half", (105.0, 75.0, 135.0), None),
    Medium("ready-mixed", None, None),
    Medium("sponges", None, None, on_grid=True),
    Medium("water under a grid", None, None, on_grid=True),
    Medium("damp paper", None, None, for_hatching=True),
)
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


def medium_named(name: str) -> Medium:
    """The medium of that name; NotPlausible lists the names there are."""
    wanted = name.strip().lower().replace("_", " ").replace("-", " ")
    for medium in MEDIA:
        if medium.name.replace("-", " ") == wanted:
            return medium
    known = ", ".join(m.name for m in MEDIA)
    raise NotPlausible("medium", f'"{name[:40]}" is not a medium known here: {known}')


def mix(medium: str, dry_mass_g: float, ratio: float | None = None) -> Mix:
    """Water = dry mass x ratio (by weight, rule D1).

    `dry_mass_g` 1-20,000 g; `ratio` 0.1-5 g of water per g, by default the
    medium's usual one. Raises NotPlausible outside these, or when the medium
    is not mixed by weight and no ratio was given.
    """
    known = medium_named(medium)
    require_range("dry mass", dry_mass_g, MEDIUM_MASS_RANGE_G, "g")
    chosen = known.ratio if ratio is None else ratio
    if chosen is None:
        raise NotPlausible("ratio", f"{known.name} has no usual ratio by weight: give one")
    require_range("ratio", chosen, RATIO_RANGE, "")
    water_g = dry_mass_g * chosen
    return Mix(known.name, dry_mass_g, chosen, water_g, dry_mass_g + water_g)


def dry_mass_from_volume(medium: str, litres: float) -> DryMass:
    """Rough dry mass of `litres` (0.05-60) of medium, with its likely range (rule D1)."""
    known = medium_named(medium)
    require_range("volume", litres, VOLUME_RANGE_L, "l")
    if known.density_g_l is None:
        raise NotPlausible("medium", f"{known.name} cannot be judged by volume: weigh it")
    typical, low, high = known.density_g_l
    return DryMass(typical * litres, low * litres, high * litres)
