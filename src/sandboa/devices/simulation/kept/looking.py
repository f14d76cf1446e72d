"""What is seen of a kept season's boxes: through a lid, and opened."""

from dataclasses import replace
from typing import TYPE_CHECKING, Final

import numpy as np

from sandboa.devices.simulation.kept.night import DRIPS
from sandboa.devices.simulation.kept.seeing import BoxSeen, EggSeen
from sandboa.devices.simulation.torchlight import TorchState, inside_of

if TYPE_CHECKING:
    from sandboa.devices.simulation.kept.season import KeptSeason

#: Days of a term, as days since a death are told in shares of it.
_TERM_DAYS: Final = 60.0


def lid(season: "KeptSeason", box: int) -> str:
    """Water under a lid, as it is seen through it."""
    left = season.water_g[box] / season.full_g[box]
    own = (season.plan.box_of == box) & season.alive & np.isinf(season.out_day)
    late = bool(own.any()) and float(np.median(season.share[own])) > 0.91
    if left > DRIPS or late:
        return "half" if season.wiped[box] else "raining"
    if left < 0.25:
        return "none"
    return "edges" if left < 0.9 else "half" if season.oxygen[box] < 0.19 else "edges"


def look(season: "KeptSeason", box: int) -> BoxSeen | None:
    """What is seen of an opened box now; None of one that is shut."""
    if not season.opened[box]:
        return None
    left = season.water_g[box] / season.full_g[box]
    plan, mould, grades, since = season.plan, season.mould(), season.grades(), season.since_death()
    own = np.flatnonzero(plan.box_of == box)
    here = own[~season.removed[own] & ~season.isolated[own]]
    foul = int(mould[here].max(initial=0))
    mass_g = None
    if box in season.weighed:
        gone = season.removed[own] | season.isolated[own]
        mass_g = plan.boxes[box].dry_g + float(season.water_g[box]) + 82.0 * float((~gone).sum())
    return BoxSeen(
        day=season.day,
        lid=lid(season, box),
        feels=_feel(left),
        smell=("none", "off", "off", "foul")[foul],
        mass_g=mass_g,
        eggs=tuple(
            _egg_seen(season, int(at), int(mould[at]), int(grades[at]), float(since[at]))
            for at in own
        ),
    )


def _egg_seen(season: "KeptSeason", at: int, mould: int, grade: int, since: float) -> EggSeen:
    pipped = season.pipped_day[at]
    return EggSeen(
        number=int(season.plan.number[at]),
        grade=grade,
        mould=("none", "spot", "patch", "furry")[mould],
        wet="weeping" if 10.0 < since < 16.0 and season.plan.hardy[at] > 0.9 else "dry",
        colour="yellowing" if season.plan.blank[at] else "white",
        feel="mushy" if since > 5.0 else "firm",
        pipped_hours=24.0 * float(season.day - pipped) if np.isfinite(pipped) else None,
        out=bool(np.isfinite(season.out_day[at])),
        removed=bool(season.removed[at]),
        isolated=bool(season.isolated[at]),
        hangs=bool(season.hangs[at] and not season.supported[at] and not season.isolated[at]),
        torch=_torch(season, at, grade, since) if season.candled[at] else None,
    )


def _torch(season: "KeptSeason", at: int, grade: int, since_days: float) -> TorchState:
    seed = season.plan.seed * 100 + at
    if season.plan.blank[at]:
        return TorchState(seed, 0.0, 0.0, 0.0, blank=True)
    stirs = (at + season.day) % 2 == 0
    grown = float(min(season.share[at], 1.0))
    return replace(inside_of(seed, grown, since_days / _TERM_DAYS, stirs=stirs), sunk=0.25 * grade)


def _feel(left: float) -> str:
    if left > DRIPS:
        return "drips"
    if left < 0.14:
        return "dry"
    return "barely damp" if left < 0.42 else "clumps"
