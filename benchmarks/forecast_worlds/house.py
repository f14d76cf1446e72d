"""Some seasons of one house in a world: what was forecast of its clutches, and what came."""

from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from benchmarks.forecast_worlds.worlds import World
from sandboa.core.development import (
    DEFAULT_CLOCK,
    Circumstances,
    DevelopmentCurve,
    FinishedClutch,
    Forecast,
    HatchPrior,
    HouseLearning,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    forecast,
    learn,
    record_errors,
)
from sandboa.core.development.box_temperature import Ahead
from sandboa.core.development.earlier_life import EarlierLife
from sandboa.core.development.record_errors import log_uncertainty
from sandboa.core.development.sources import UNCHECKED_PROBE_SD_C

Array = NDArray[np.float64]

SCORED = (0, 30, 50)
SEASONS = 5
_CABINETS = 2
_CLUTCHES_A_SEASON = 6
_DAMS = 8
_HOUR_S = 3_600.0
DAY_S = 86_400.0
#: A cabinet runs a week before its first eggs and as long as the slowest of them take.
_BEFORE_DAYS, _FOLLOWED_DAYS = 8, 130
#: How far past its time a clutch is asked after, in sds of the forecast.
LATE_SDS = (1.0, 1.5, 2.0, 2.5, 3.0, 3.5)


@dataclass(frozen=True)
class Kept:
    """A forecast made on a `day`, having learned from `taught` clutches, and the mean pip (s)."""

    day: int
    taught: int
    laid_s: float
    told: Forecast
    mean_s: float
    first_s: float


@dataclass(frozen=True)
class Late:
    """A forecast of a clutch without a pip, `sds` past its middle; `dead`: no egg of it lives."""

    sds: float
    taught: int
    told: Forecast
    dead: bool
    mean_s: float


@dataclass
class House:
    """What was kept of one house."""

    forecasts: list[Kept] = field(default_factory=list)
    late: list[Late] = field(default_factory=list)


@dataclass(frozen=True)
class _Cabinet:
    """One cabinet of a house: what it is set to, and what is hidden of it."""

    name: int
    set_point_c: float
    needs: float
    probe_off_c: float
    #: The thermostat's own error.
    runs_off_c: float


@dataclass(frozen=True)
class _Laid:
    """One clutch: what its readings and its eggs were. `pips_s` None: no egg of it lives."""

    cabinet: _Cabinet
    dam: int
    laid_s: float
    eggs: int
    earlier: EarlierLife
    probe: ReadingSeries
    pips_s: Array
    dead: bool


def live(world: World, seed: int, *, late: bool = False) -> House:
    """Live five seasons of a house; with `late`, ask about clutches past their time as well."""
    random = np.random.default_rng(seed)
    needs = random.normal(0.0, world.house)
    dams = random.normal(0.0, world.dam, _DAMS)
    cabinets = [
        _Cabinet(
            n,
            float(set_point_c),
            needs + random.normal(0.0, world.cabinet),
            random.normal(0.0, world.probe_c),
            random.normal(0.0, 0.3),
        )
        for n, set_point_c in enumerate(random.choice([29.0, 30.0, 31.0, 31.5, 32.0], _CABINETS))
    ]
    house = House()
    finished: list[FinishedClutch] = []
    for _ in range(SEASONS):
        laying = random.choice(_DAMS, _CLUTCHES_A_SEASON, replace=False)
        known = learn(finished)
        lessons = []
        for n, dam in enumerate(laying):
            cabinet = cabinets[n % _CABINETS]
            laid = _laid(world, cabinet, int(dam), float(dams[dam]), random)
            if laid is None:
                continue
            house.forecasts += [] if laid.dead else _forecasts(laid, known)
            if late:
                house.late += _asked_late(laid, known)
            if not laid.dead:
                lessons.append(_lesson(laid))
        finished = finished + lessons
    return house


def _laid(
    world: World, cabinet: _Cabinet, dam: int, dam_needs: float, random: np.random.Generator
) -> _Laid | None:
    hours = (_BEFORE_DAYS + _FOLLOWED_DAYS) * 24
    times = np.arange(hours) * _HOUR_S
    was_c = cabinet.set_point_c + cabinet.runs_off_c + _weather(world, hours, random)
    laid_s = _BEFORE_DAYS * DAY_S + float(random.uniform(0.0, DAY_S))
    needs = float(np.exp(cabinet.needs + dam_needs + random.normal(0.0, world.chance)))
    gained = np.where(times >= laid_s, world.norm(was_c) * _HOUR_S / DAY_S, 0.0)
    reached = np.cumsum(gained)
    if reached[-1] < needs:
        return None
    eggs = int(random.integers(4, 9))
    apart_s = random.normal(0.0, world.eggs_apart_days * DAY_S, eggs)
    pips_s = np.sort(np.interp(needs, reached, times) + apart_s)
    said_s, earlier = laid_s, EarlierLife()
    if world.hour_unknown:
        said_s, earlier = laid_s // DAY_S * DAY_S + DAY_S / 2.0, EarlierLife(span_s=DAY_S)
    read_c = was_c + cabinet.probe_off_c + random.normal(0.0, 0.05, hours)
    dead = bool(random.random() < world.dead)
    return _Laid(
        cabinet, dam, said_s, eggs, earlier, ReadingSeries(times, np.round(read_c, 1)), pips_s, dead
    )


def _weather(world: World, hours: int, random: np.random.Generator) -> Array:
    """°C about the cabinet's usual: days, slow drift, and now and then a day without power."""
    day = np.sin(2.0 * np.pi * (np.arange(hours) + random.uniform(0, 24)) / 24.0)
    steps = random.normal(0.0, 1.0, hours)
    drift = np.zeros(hours)
    for n in range(1, hours):
        drift[n] = 0.995 * drift[n - 1] + steps[n] * 0.015
    weather = world.swing_c / 2.0 * day + drift
    if random.random() < 0.3:
        out = int(random.integers(10 * 24, 60 * 24))
        lasts = int(random.integers(4, 30))
        weather[out : out + lasts] -= random.uniform(2.0, 7.0)
    return np.asarray(weather)


def _curve(laid: _Laid, as_of_s: float) -> DevelopmentCurve:
    set_points = SetPoints((0.0,), (laid.cabinet.set_point_c,))
    name = f"probe {laid.cabinet.name}"
    probe = TemperatureSource(
        Provenance.CABINET_PROBE, laid.probe, sd_c=UNCHECKED_PROBE_SD_C, name=name
    )
    ahead = Ahead(known_by=probe, earlier=laid.earlier)
    return DevelopmentCurve(
        box_temperature(laid.laid_s, as_of_s, [probe], set_points, ahead), DEFAULT_CLOCK
    )


def _prior(laid: _Laid, known: HouseLearning, curve: DevelopmentCurve) -> HatchPrior:
    errors = record_errors(curve)
    probe = errors.main_probe
    where = Circumstances(
        laid.cabinet.name, laid.dam, curve.mean_c(), probe, errors.by_probe.get(probe or "", 0.0)
    )
    return known.expect(where).prior


def _forecasts(laid: _Laid, known: HouseLearning) -> list[Kept]:
    kept = []
    for day in SCORED:
        at_s = laid.laid_s + day * DAY_S + 60.0
        if laid.pips_s[0] <= at_s:
            continue
        curve = _curve(laid, at_s)
        told = forecast(curve, laid.eggs, prior=_prior(laid, known, curve))
        taught = len(known.finished)
        mean_s, first_s = float(laid.pips_s.mean()), float(laid.pips_s[0])
        kept.append(Kept(day, taught, laid.laid_s, told, mean_s, first_s))
    return kept


def _asked_late(laid: _Laid, known: HouseLearning) -> list[Late]:
    """What is told at each lateness, of a clutch that has not pipped by then."""
    curve = _curve(laid, laid.laid_s + 40.0 * DAY_S)
    prior = _prior(laid, known, curve)
    log_sd = log_uncertainty(curve, prior)
    asked = []
    for sds in LATE_SDS:
        at_s = curve.time_of(float(np.exp(prior.mean + sds * log_sd)))
        if at_s is None or (not laid.dead and laid.pips_s[0] <= at_s):
            break
        if at_s >= laid.probe.times_s[-1]:
            break
        told = forecast(_curve(laid, at_s), laid.eggs, prior=prior)
        asked.append(Late(sds, len(known.finished), told, laid.dead, float(laid.pips_s.mean())))
    return asked


def _lesson(laid: _Laid) -> FinishedClutch:
    mean_s = float(laid.pips_s.mean())
    curve = _curve(laid, mean_s)
    errors = record_errors(curve, curve.now)
    probe = errors.main_probe
    # A keeper sees a pip at the next look: at most half a day later.
    seen = np.ceil(laid.pips_s / (DAY_S / 2.0)) * 0.5
    where = Circumstances(
        laid.cabinet.name,
        laid.dam,
        curve.mean_c(mean_s),
        probe,
        errors.by_probe.get(probe or "", 0.0),
    )
    return FinishedClutch(
        where,
        float(np.log(curve.now)),
        errors.sd(besides=probe),
        laid.eggs,
        float(np.var(seen, ddof=1)),
    )
