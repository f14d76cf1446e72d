"""Simulated clutches: the box they lie in, who dies of what, and what a keeper sees of it."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from sandboa.devices.simulation.boxes import BoxMade, BoxTruth, dry_out
from sandboa.devices.simulation.fates import EggFate, life
from sandboa.devices.simulation.season_findings import findings_of, stage_of
from sandboa.devices.simulation.season_hazards import (
    OF_EGG,
    UNLISTED,
    Death,
    draw,
    egg_hazard,
    strikes,
)
from sandboa.devices.simulation.season_nests import Nest
from sandboa.devices.simulation.season_stories import ClutchStory, EggStory
from sandboa.devices.simulation.season_visits import AFTER_DAYS, Box, visits

_DRY_SHARE: Final = 0.15
#: Share of a term within which two hazards that both struck killed it together.
_TOGETHER: Final = 0.10
#: Days a box is followed: longer than the coldest takes, and the same for all, so that what else
#: is drawn of a clutch does not hang on a day more or less.
_DAYS: Final = 100
#: How the keeper's words for closings go with the physics of `boxes`.
_PHYSICS: Final = {
    "sealed film": "sealed film",
    "lid with 1-2 pin holes": "pin holes",
    "lid with 3-8 holes": "small holes",
    "film with a cracked corner": "cracked corner",
    "loose lid": "loose lid",
}


def clutch(nest: Nest, random: np.random.Generator) -> ClutchStory:
    """Let a clutch be."""
    days, shares = nest.curve
    pip_day = float(np.interp(1.0, shares, days))
    closing, medium = _box_of(nest, random)
    drawn_g = float(random.choice([180.0, 200.0, 240.0]))
    full_g = nest.water_g or drawn_g
    dry_g = nest.dry_g or full_g
    humidity = nest.humidity - (0.2 if "parched" in nest.hazards else 0.0)
    physics_medium = "perlite" if "perlite" in medium else medium
    made = BoxMade(_PHYSICS[closing], physics_medium, full_g, nest.eggs)
    whole = dry_out(made, _DAYS, 31.4, max(humidity, 0.2), random)
    dry_share = _dries_at(whole, full_g, days, shares) if "parched" in nest.hazards else None
    eggs, lives = [], {}
    for number in range(1, nest.eggs + 1):
        slug = number > nest.eggs - nest.slugs
        death = None if slug else _death(nest, number, pip_day, dry_share, random)
        egg, lived = _egg(nest, number, death, slug, pip_day, random)
        eggs.append(egg)
        if lived is not None:
            lives[number] = lived
    last = max([pip_day, *(e.out_day for e in eggs if e.out_day is not None)])
    story = ClutchStory(
        nest.dam, nest.sire, nest.laid_day, last + AFTER_DAYS, nest.cabinet, nest.shelf,
        medium, closing, dry_g, full_g,
        nest.set_up_g or 700.0 + dry_g + full_g + 80.0 * nest.eggs, tuple(eggs), (),
    )  # fmt: skip
    return replace(story, visits=tuple(visits(nest, Box(story, lives, whole), random)))


def _box_of(nest: Nest, random: np.random.Generator) -> tuple[str, str]:
    if nest.closing is not None and nest.medium is not None:
        return nest.closing, nest.medium
    if "parched" in nest.hazards:
        return str(random.choice(["film with a cracked corner", "loose lid"])), "perlite"
    if "stuffy" in nest.hazards:
        return "sealed film", "vermiculite"
    closing = random.choice(["lid with 1-2 pin holes", "lid with 3-8 holes"], p=[0.75, 0.25])
    return str(closing), str(random.choice(["vermiculite", "half and half"]))


def _dries_at(whole: BoxTruth, full_g: float, days: np.ndarray, shares: np.ndarray) -> float | None:
    day = whole.day_at(_DRY_SHARE, full_g)
    return None if day is None else float(np.interp(day, days, shares))


def _death(
    nest: Nest,
    number: int,
    pip_day: float,
    dry_share: float | None,
    random: np.random.Generator,
) -> Death | None:
    """What kills the egg first, if anything does."""
    days, shares = nest.curve
    forced = dict(nest.forced).get(number)
    own = forced or (None if nest.only_forced else draw(OF_EGG, random))
    deaths = [egg_hazard(own, pip_day, random)] if own else []
    struck = strikes(nest.cabinet_hazard, nest.laid_day, random)
    if struck is not None and struck.day is not None:
        share = float(np.interp(struck.day - nest.laid_day, days, shares))
        deaths.append(replace(struck, share=share))
    boxed = _of_box(nest, dry_share, random)
    if boxed is not None:
        deaths.append(boxed)
    deaths += _of_seconds(nest, dry_share, random)
    living = sorted((d for d in deaths if d.share is not None and d.share < 1.08),
                    key=lambda d: d.share or 0.0)  # fmt: skip
    if not living:
        return None
    first = living[0]
    soon = [d.cause for d in living[1:] if (d.share or 0.0) - (first.share or 0.0) <= _TOGETHER]
    also = next((cause for cause in soon if cause != first.cause), None)
    return replace(first, also=also)


def _of_seconds(nest: Nest, dry_share: float | None, random: np.random.Generator) -> list[Death]:
    """What the second hazards of box and cabinet do to an egg; most have none."""
    found = []
    if nest.second is not None:
        boxed = _of_box(replace(nest, hazard=nest.second), dry_share, random)
        found += [boxed] if boxed is not None else []
    if nest.second_of_cabinet.cause is not None:
        struck = strikes(nest.second_of_cabinet, nest.laid_day, random)
        if struck is not None and struck.day is not None:
            share = float(np.interp(struck.day - nest.laid_day, *nest.curve))
            found.append(replace(struck, share=share))
    return found


def _of_box(nest: Nest, dry_share: float | None, random: np.random.Generator) -> Death | None:
    hazard = nest.hazard
    chance = random.random()
    if hazard == "parched":
        if dry_share is None or dry_share > 0.92 or chance > 0.6:
            return None
        return Death(hazard, share=dry_share + float(random.uniform(0.04, 0.15)))
    if hazard == "soaked" and chance < 0.45:
        return Death(hazard, share=float(random.uniform(0.2, 0.75)))
    if hazard == "stuffy" and chance < 0.55:
        return Death(hazard, share=float(random.uniform(0.9, 1.0)))
    if hazard == "spent mother" and chance < 0.8:
        return Death(hazard, share=float(random.uniform(0.05, 0.6)))
    if hazard == "double dose" and chance < 0.25:
        return Death(hazard, share=float(random.normal(0.72, 0.03)))
    if hazard == "hidden strain" and chance < 0.35:
        return Death(hazard, share=float(random.uniform(0.45, 0.98)))
    if hazard == "fly brood" and chance < 0.4:
        return Death(hazard, share=float(random.uniform(0.3, 0.9)))
    return None


def _egg(
    nest: Nest,
    number: int,
    death: Death | None,
    slug: bool,
    pip_day: float,
    random: np.random.Generator,
) -> tuple[EggStory, EggFate | None]:
    place = _place(number, nest.eggs)
    if slug:
        return EggStory(number, place, slug=True, vessels_at_lay=None, disc=None, stage=None), None
    shell = "smooth" if random.random() < 0.93 else str(random.choice(["rough", "window"]))
    mass_g = float(random.normal(82.0, 6.0))
    if death is None:
        pip = pip_day + float(random.normal(0.0, 0.8))
        out = pip + 1.3 * float(np.exp(random.normal(0.0, 0.35)))
        small = "parched" in nest.hazards and random.random() < 0.5
        lived = life(None, random)
        egg = EggStory(
            number, place, shell=shell, pip_day=pip, out_day=out,
            vessels_at_lay=_vessels_at_lay(lived),
            mass_g=mass_g * (0.62 if small else 0.74), small=bool(small),
            defects=("kink",)
            if nest.cabinet_hazard.cause == "heat wave" and random.random() < 0.25
            else (),
        )  # fmt: skip
        return egg, lived
    share = death.share or 0.0
    days, shares = nest.curve
    died_day = float(np.interp(share, shares, days))
    return _lost(nest, _LaidEgg(number, place, shell, mass_g), death, died_day, random)


@dataclass(frozen=True, slots=True)
class _LaidEgg:
    """An egg as it was laid."""

    number: int
    place: tuple[float, float]
    shell: str
    mass_g: float


def _lost(
    nest: Nest, laid: _LaidEgg, death: Death, died_day: float, random: np.random.Generator
) -> tuple[EggStory, EggFate]:
    days, shares = nest.curve
    shell = laid.shell
    cause, share = death.cause, death.share or 0.0
    if cause == "poor wrap":
        shell = str(random.choice(["thin", "rough", "window", "nodule"]))
    under = cause == "face down" and "rolled" not in death.more
    lived = life(max(share, 0.01), random)
    if cause == "rot":
        first = share - float(death.more["before"])
        lived = replace(lived, mould_from=(first, share + 0.05, share + 0.12), smells_from=share)
    elif cause not in ("soaked", *UNLISTED) and random.random() < 0.5:
        # Most dead eggs mould in the end; many are found before.
        lived = replace(lived, mould_from=(share + 0.12, share + 0.2, share + 0.3))
    if cause == "poor wrap":
        lived = replace(lived, dents=(share * 0.5, share * 0.8, share + 0.05, share + 0.12))
    if cause == "bump":
        lived = replace(lived, weeps_from=max(float(death.more["knocked"]), 0.02))
    if cause == "slow fade":
        lived = replace(lived, weak_from_start=True)
    cut_share = death.more.get("cut")
    pipped = death.more.get("pipped")
    egg = EggStory(
        laid.number, laid.place, shell=shell,
        vessels_at_lay="none" if cause == "blank" else _vessels_at_lay(lived),
        disc=str(random.choice(["under", "side"], p=[0.75, 0.25])) if under else "top",
        cause=cause, also=death.also, died_day=died_day, died_share=share,
        pip_day=float(np.interp(pipped, shares, days)) if pipped else None,
        cut_day=float(np.interp(cut_share, shares, days)) if cut_share else None,
        bled=cut_share is not None and bool(random.random() < 0.6),
        stage=stage_of(cause, share),
        findings=findings_of(cause, share, under=under, more=death.more, random=random),
        mass_g=laid.mass_g,
    )  # fmt: skip
    return egg, lived


def _vessels_at_lay(lived: EggFate) -> str:
    return "weak" if lived.weak_from_start else "strong"


def _place(number: int, eggs: int) -> tuple[float, float]:
    """Rows of four, touching as eggs in a clump do."""
    row, column = divmod(number - 1, 4)
    in_row = min(4, eggs - 4 * row)
    return 0.5 + (column - (in_row - 1) / 2.0) * 0.17, 0.35 + 0.24 * row
