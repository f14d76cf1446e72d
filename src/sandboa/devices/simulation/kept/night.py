"""A day and its night in a kept season: eggs grow, boxes dry, air goes stale, and some die."""

from typing import TYPE_CHECKING, Final

import numpy as np

from sandboa.devices.simulation.boxes import saturated_g_l
from sandboa.devices.simulation.eggs import rate_per_day
from sandboa.devices.simulation.kept.troubles import air_passing

if TYPE_CHECKING:
    from sandboa.devices.simulation.kept.season import KeptSeason

#: Oxygen in fresh air, volume share.
FRESH: Final = 0.209
#: l of air in a box, and l of oxygen an egg uses a day at its most.
_FREE_L: Final = 4.5
_USES_L_DAY: Final = 0.13
#: Volume share of oxygen below which eggs suffer, and hazard a day for each share below it.
_BREATHES: Final = 0.155
_SUFFOCATES: Final = 9.0
#: Share of its water below which a box takes water from its eggs; what they lose of theirs a day.
_DRIES_BELOW: Final = 0.36
_LOSES: Final = 0.045
_REGAINS: Final = 0.07
#: Turgor (0-1) below which an egg suffers, and hazard a day at none.
_SUFFERS_BELOW: Final = 0.62
_WITHERS: Final = 0.22
#: Share of water above which a medium drips, and hazard a day of each share above it.
DRIPS: Final = 1.12
_DROWNS: Final = 0.12
#: Hazard a day from each degree of mould on a dead neighbour.
_INFECTS: Final = 0.0011
#: °C above and below which eggs suffer, and hazard a day for each degree beyond.
_HOT_C, _BURNS = 34.0, 0.05
_COLD_C, _CHILLS = 26.5, 0.035
#: Hazard of a shell that hangs over its clump without support, a day.
_HANGS: Final = 0.008
#: Days behind its slit after which an egg that sticks is lost, and after which any is out.
_STUCK_DAYS: Final = 3
_OUT_DAYS: Final = 2
CAUSES: Final = (
    "air", "dry", "wet", "infection", "knock", "heat", "cold", "hanging", "own", "stuck",
)  # fmt: skip


def come_true(season: "KeptSeason") -> None:
    """Let what the day and its night bring come true, in this order."""
    for happens in (_develop, _dry, _breathe, _suffer, _die, _pip):
        happens(season)


def _temperatures(season: "KeptSeason") -> np.ndarray:
    """Of each box, °C; (boxes,)."""
    return np.array([season.climate.mean_c[box.shelf] for box in season.plan.boxes])


def _develop(season: "KeptSeason") -> None:
    rate = rate_per_day(_temperatures(season)[season.plan.box_of])
    growing = season.alive & np.isinf(season.pipped_day)
    season.share += np.where(growing, rate / season.plan.pips_at, 0.0)


def _dry(season: "KeptSeason") -> None:
    plan = season.plan
    passes = air_passing(plan, season.day, season.closings, season.holes)
    want = np.maximum(0.985 - season.climate.humidity, 0.0) * saturated_g_l(_temperatures(season))
    surface = np.minimum(1.0, season.water_g / (0.22 * season.full_g))
    season.water_g = np.maximum(season.water_g - passes * want * surface, 0.0)
    for trouble in plan.troubles:
        if trouble.kind == "soaked" and trouble.box is not None and trouble.start == season.day:
            season.water_g[trouble.box] += 0.45 * trouble.strength * season.full_g[trouble.box]
    left = (season.water_g / season.full_g)[plan.box_of]
    dry = np.clip((_DRIES_BELOW - left) / _DRIES_BELOW, 0.0, 1.0)
    own = ~season.isolated
    losing = _LOSES * dry * np.where(plan.thin, 1.8, 1.0) * own
    gaining = _REGAINS * (left > 0.5) * season.alive
    season.turgor = np.clip(season.turgor - losing + gaining, 0.0, 1.0)


def _breathe(season: "KeptSeason") -> None:
    plan = season.plan
    passes = air_passing(plan, season.day, season.closings, season.holes, of_water=False)
    living = season.alive & np.isinf(season.out_day) & ~season.isolated
    use = np.bincount(
        plan.box_of, _USES_L_DAY * np.clip(season.share, 0.0, 1.0) ** 2.5 * living,
        len(plan.boxes),
    )  # fmt: skip
    settled = FRESH - use / passes
    days = _FREE_L / passes
    # The mean of the day on its way from where it was to where it settles.
    on_way = days * (1.0 - np.exp(-1.0 / days))
    mean = settled + (season.oxygen - settled) * on_way
    season.oxygen = settled + (season.oxygen - settled) * np.exp(-1.0 / days)
    lacking = np.clip(_BREATHES - mean, 0.0, None)[plan.box_of] * ~season.isolated
    season.hazard[:, CAUSES.index("air")] += _SUFFOCATES * lacking


def _suffer(season: "KeptSeason") -> None:
    plan, left = season.plan, (season.water_g / season.full_g)[season.plan.box_of]
    warm = _temperatures(season)[plan.box_of]
    thirst = np.clip(_SUFFERS_BELOW - season.turgor, 0.0, None) / _SUFFERS_BELOW
    _add(season, "dry", _WITHERS * thirst)
    _add(season, "wet", _DROWNS * np.clip(left - DRIPS, 0.0, None) * ~season.isolated)
    _add(season, "heat", _BURNS * np.clip(warm - _HOT_C, 0.0, None))
    _add(season, "cold", _CHILLS * np.clip(_COLD_C - warm, 0.0, None))
    mould = season.mould() * ~season.removed * ~season.isolated
    around = np.bincount(plan.box_of, mould, len(plan.boxes))[plan.box_of] - mould
    _add(season, "infection", _INFECTS * around * ~season.isolated)
    _add(season, "hanging", _HANGS * (season.hangs & ~season.supported))


def _add(season: "KeptSeason", cause: str, hazard: np.ndarray) -> None:
    at_risk = season.alive & np.isinf(season.out_day)
    season.hazard[:, CAUSES.index(cause)] += hazard * at_risk


def _die(season: "KeptSeason") -> None:
    living = season.alive & np.isinf(season.out_day)
    of_own = living & (season.share >= season.plan.own_death)
    season.hazard[of_own, CAUSES.index("own")] = np.inf
    sticks = season.plan.sticks & ~season.helped & (season.day - season.pipped_day >= _STUCK_DAYS)
    season.hazard[living & sticks, CAUSES.index("stuck")] = np.inf
    dies = living & (season.hazard.sum(axis=1) > season.plan.hardy)
    season.died_day[dies] = season.day
    season.died_share[dies] = season.share[dies]


def _pip(season: "KeptSeason") -> None:
    ready = season.alive & (season.share >= 1.0) & np.isinf(season.pipped_day)
    season.pipped_day[ready] = season.day
    free = ~season.plan.sticks | season.helped
    out = season.alive & free & (season.day - season.pipped_day >= _OUT_DAYS)
    season.out_day[out & np.isinf(season.out_day)] = season.day
