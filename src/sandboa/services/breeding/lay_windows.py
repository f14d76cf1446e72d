"""The season: when each dam lays, what to prepare, and which sire visits whom next."""

from dataclasses import dataclass

from sandboa.core.animals import DAM
from sandboa.core.laying import (
    LayForecast,
    Preparation,
    lay_forecast,
    learn,
    preparation,
    strongest_sign,
)
from sandboa.core.laying.lay_forecast import SeenSign
from sandboa.core.pairing import Pair, PlannedVisit, many_dams, plan_visits, too_light
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.animals import Pairing
from sandboa.services.lay_day.drafts import dams_laying
from sandboa.services.snapshot.herd import Herd
from sandboa.services.snapshot.settings import HouseSettings, house_settings

#: Days after a sign within which a tick on the preparation list belongs to it (assumption).
_TICK_DAYS = 75.0
#: Days of past the season strip shows (assumption: pairings begin half a year before laying).
STRIP_BACK_DAYS = 200.0


@dataclass(frozen=True, slots=True)
class PreparationNow:
    """A line of the preparation list; `done_s` when it was ticked."""

    line: Preparation
    done_s: float | None

    def due(self, now_s: float) -> bool:
        return self.done_s is None and now_s >= self.line.from_s


@dataclass(frozen=True, slots=True)
class DamLaySeason:
    """One dam on the season strip. `learned_words` tells what the keeper's own clutches changed.

    `laying`: her lay day is under way, so there is nothing to forecast.
    """

    dam: int
    name: str
    laying: bool
    pairings: tuple[tuple[Pairing, tuple[float, ...]], ...]
    signs: tuple[SeenSign, ...]
    forecast: LayForecast | None
    learned_words: str | None
    preparations: tuple[PreparationNow, ...]
    clutches: tuple[tuple[str, float], ...]


@dataclass(frozen=True, slots=True)
class VisitPlanned:
    """A planned visit with names, and what there is to think of first."""

    visit: PlannedVisit
    dam: str
    sire: str
    pairing: int | None
    warnings: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class LaySeason:
    as_of_s: float
    dams: tuple[DamLaySeason, ...]
    plan: tuple[VisitPlanned, ...]


def lay_season(herd: Herd, now_s: float) -> LaySeason:
    """Every active dam with something to show, those who lay soonest first; and the plan."""
    settings = house_settings()
    dams = [
        dam_lay_season(herd, animal.entity_id, now_s)
        for animal in herd.animals.values()
        if animal.role == DAM
    ]
    shown = [d for d in dams if d.forecast or d.pairings or d.signs or d.clutches]
    shown.sort(key=lambda d: (_next_s(d), d.name))
    return LaySeason(now_s, tuple(shown), _plan(herd, settings, now_s))


def dam_lay_season(
    herd: Herd, dam: int, now_s: float, back_days: float = STRIP_BACK_DAYS
) -> DamLaySeason:
    """What the last `back_days` hold of one dam (inf: her whole life), and what is to come."""
    since_s = now_s - back_days * SECONDS_PER_DAY
    told = learned = None
    her = herd.animals[dam]
    laying = her.name.casefold() in dams_laying()
    sign = strongest_sign(herd.signs_since_laying(dam))
    if sign is not None and herd.breeds(dam) and not laying:
        learned = learn(sign.sign, herd.past_intervals(sign.sign), dam)
        told = lay_forecast(sign, now_s, learned)
    return DamLaySeason(
        dam=dam,
        name=her.name,
        laying=laying,
        pairings=tuple(
            (p, tuple(lock.seen_s for lock in herd.locks.get(p.entity_id, [])))
            for p in herd.pairings.get(dam, [])
            if p.from_s >= since_s
        ),
        signs=tuple(s for s in herd.signs.get(dam, []) if s.seen_s >= since_s),
        forecast=told,
        learned_words=_learned(told),
        preparations=_preparations(herd, dam, told),
        clutches=tuple(
            (c.code, float(c.laid_s)) for c in herd.clutches.get(dam, []) if c.laid_s >= since_s
        ),
    )


def _next_s(dam: DamLaySeason) -> float:
    if dam.laying:
        return 0.0
    if dam.forecast and dam.forecast.window:
        return dam.forecast.window.p50
    if dam.forecast:
        return dam.forecast.seen_s
    # Those that laid already, or are still being paired, come after.
    return 1e11 - (dam.clutches[-1][1] if dam.clutches else 0.0)


def _learned(forecast: LayForecast | None) -> str | None:
    if forecast is None or not forecast.learned.of_house:
        return None
    learned = forecast.learned
    own = f", {learned.of_dam} of hers" if learned.of_dam else ", none of hers"
    clutches = "1 clutch" if learned.of_house == 1 else f"{learned.of_house} clutches"
    way = "later" if learned.shift_days > 0 else "earlier"
    if abs(learned.shift_days) < 0.25:
        return f"Based on {clutches} of yours{own}: as usual."
    return (
        f"Based on {clutches} of yours{own}: {abs(learned.shift_days):.1f} days {way} than usual."
    )


def _preparations(herd: Herd, dam: int, told: LayForecast | None) -> tuple[PreparationNow, ...]:
    if told is None or told.window is None:
        return ()
    ticked = {
        task.name: task.done_s
        for task in herd.tasks.get(dam, [])
        if told.seen_s <= task.done_s <= told.seen_s + _TICK_DAYS * SECONDS_PER_DAY
    }
    return tuple(
        PreparationNow(line, ticked.get(line.task.value)) for line in preparation(told.window)
    )


def _plan(herd: Herd, settings: HouseSettings, now_s: float) -> tuple[VisitPlanned, ...]:
    pairs = [
        Pair(pair.dam_id, pair.sire_id, _visits(herd, pair.dam_id, pair.sire_id))
        for pair in herd.pairs
        if _still_to_pair(herd, pair.dam_id, pair.sire_id, pair.since_s)
    ]
    dams_of: dict[int, int] = {}
    for pair in pairs:
        dams_of[pair.sire] = dams_of.get(pair.sire, 0) + 1
    most = int(settings["most_dams_per_sire"])
    planned = []
    for visit in plan_visits(pairs, now_s, settings["visit_interval_days"]):
        dam, sire = herd.animals[visit.dam].name, herd.animals[visit.sire].name
        weights = herd.weights.get(visit.dam)
        mass_g = weights[-1].mass_g if weights else None
        warnings = (
            too_light(dam, mass_g, settings["lightest_dam_g"]),
            many_dams(sire, dams_of[visit.sire], most),
        )
        planned.append(
            VisitPlanned(
                visit,
                dam,
                sire,
                _together(herd, visit) if visit.together else None,
                tuple(w for w in warnings if w),
            )
        )
    return tuple(planned)


def _visits(herd: Herd, dam: int, sire: int) -> tuple[tuple[float, float | None], ...]:
    after = herd.last_laid_s(dam) or float("-inf")
    return tuple(
        (float(p.from_s), None if p.until_s is None else float(p.until_s))
        for p in herd.pairings.get(dam, [])
        if p.sire_id == sire and p.from_s > after
    )


def _still_to_pair(herd: Herd, dam: int, sire: int, since_s: float) -> bool:
    """A pair is done with once she ovulated, shed or laid; the retired, and those
    that left, are left alone."""
    if not (herd.breeds(dam) and herd.breeds(sire)):
        return False
    laid_s = herd.last_laid_s(dam)
    if laid_s is not None and laid_s > since_s:
        return False
    return strongest_sign(herd.signs_since_laying(dam)) is None


def _together(herd: Herd, visit: PlannedVisit) -> int | None:
    return next(
        (
            p.entity_id
            for p in herd.pairings.get(visit.dam, [])
            if p.sire_id == visit.sire and p.until_s is None
        ),
        None,
    )
