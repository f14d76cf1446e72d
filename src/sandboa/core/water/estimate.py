"""Water left in a box, from physics, weighings and signs together (rule D3-D5).

The exchange of one box is its closing's times a lognormal factor q. Every
weighing and sign makes some q likelier; the share left and the dates follow
from all of them, on a grid of ln q, so that the same facts always give the
same answer.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_DAY, Z80
from sandboa.core.water.drying import EXCHANGE_SD_FACTOR
from sandboa.core.water.kinds import WaterSignKind
from sandboa.core.water.ledger import SCALE_SD_G, MassLedger, Pour, Weighing
from sandboa.core.water.loss_curve import LossCurve
from sandboa.core.water.rules import DEFAULT_WATER, WaterRules
from sandboa.core.water.signs import WaterSign, speaks_for

#: Sd of what a box loses between two weighings, as a share of it: doors, film, days (assumption).
DAYS_SD: Final = 0.10
#: Sd of the days to come against those that were, as a share: closings age, weather turns, eggs
#: drink (assumption).
AHEAD_SD: Final = 0.20
#: Days beyond which a date of drying is not told: longer than any term.
FARTHEST_DAYS: Final = 150.0
#: Sd of the reckoned water as a share of the set-up water: at a weighing, set-up or feel, and what
#: each day since adds, up to a most (assumption: after a month what is felt today outweighs it).
RECKONED_SD: Final = (0.10, 0.015, 0.50)
_GRID: Final = 481
_GRID_SD: Final = 4.5
_BAND: Final = (0.10, 0.50, 0.90)


@dataclass(frozen=True, slots=True)
class Exchange:
    """ln q of a box: q multiplies the exchange of its closing. Normal(mean, sd)."""

    mean: float = 0.0
    sd: float = math.log(EXCHANGE_SD_FACTOR)


@dataclass(frozen=True, slots=True)
class DateBand:
    """When a share is reached (s), with its 80 % band; None where beyond any term."""

    early_s: float | None
    middle_s: float | None
    late_s: float | None


@dataclass(frozen=True, slots=True)
class WaterLeft:
    """Share of the set-up water left with its 80 % band, the loss (g/day) and the dates.

    `weighings` is how many weighings it rests on, the set-up mass included;
    `exchange` what they make of the box's q. `signs` is how many looks at lid
    and medium spoke since the last weighing.
    """

    water_g: float
    share: float
    share_low: float
    share_high: float
    loss_g_day: float
    loss_low_g_day: float
    loss_high_g_day: float
    top_up_soon: DateBand
    dry: DateBand
    exchange: Exchange
    weighings: int
    signs: int = 0
    rules: WaterRules = DEFAULT_WATER

    @property
    def says_dry(self) -> bool:
        """Whether scale, hand or lid, and not the reckoning alone, say that water is short."""
        return self.share < self.rules.top_up and (self.weighings >= 2 or self.signs > 0)


def water_left(
    ledger: MassLedger,
    curve: LossCurve,
    now_s: float,
    *,
    prior: Exchange | None = None,
    signs: Sequence[WaterSign] = (),
    rules: WaterRules = DEFAULT_WATER,
) -> WaterLeft | None:
    """What is left at `now_s`, and when it reaches the shares told of: 50 % and 25 % (rule D4).

    Parameters
    ----------
    ledger: masses and pours; None is returned when the water at set-up is unknown.
    curve: what physics alone says the box lost.
    prior: what is known of the exchange before any weighing; a factor of 2 by default.
    signs: looks at lid and medium; the latest of each kind counts.

    A box is never fuller than its medium holds, nor emptier than empty. What
    was felt in the medium moves the water itself, the more the longer nobody
    weighed: today's hand outweighs a month of reckoning (rule D5).
    """
    if not ledger.water_g:
        return None
    prior = prior or Exchange()
    log_q = prior.mean + prior.sd * np.linspace(-_GRID_SD, _GRID_SD, _GRID)
    chances = -0.5 * ((log_q - prior.mean) / prior.sd) ** 2
    state = _State(ledger, np.exp(log_q), curve, rules)
    for event in _in_order(ledger, signs, now_s):
        chances = chances + state.meet(event)
    state.pass_to(now_s)
    weights = np.exp(chances - chances.max())
    weights /= weights.sum()
    return _told(state, log_q, weights, now_s, curve.future_g_day, rules)


class _State:
    """The box for every q of the grid at once; meets its events one after the other."""

    def __init__(
        self, ledger: MassLedger, q: FloatArray, curve: LossCurve, rules: WaterRules
    ) -> None:
        self.ledger, self.q, self.curve, self.rules = ledger, q, curve, rules
        self.full_g = float(ledger.water_g or 0.0)
        self.water_g = np.full_like(q, self.full_g)
        self.at_s = ledger.set_up_s
        self.weighed = ledger.set_up_g is not None
        self.weighings = int(self.weighed)
        self.lost_since_g = np.zeros_like(q)
        #: When the water was last known by more than reckoning (s), and how far off it may be (g).
        self.known_s = ledger.set_up_s
        self.open_sd_g = 0.0
        self.signs = 0
        #: g to take from a mass to have its water, before any reference is known: one for each q.
        self.tare_g: FloatArray | None = None

    def pass_to(self, at_s: float) -> None:
        lost = self.q * max(self.curve.at(at_s) - self.curve.at(self.at_s), 0.0)
        self.lost_since_g = self.lost_since_g + np.minimum(lost, self.water_g)
        self.water_g = np.maximum(self.water_g - lost, 0.0)
        self.at_s = at_s

    def meet(self, event: Pour | Weighing | WaterSign) -> FloatArray:
        """Live until the event, take it in; returns how likely each q makes it (log)."""
        self.pass_to(event.at_s)
        if isinstance(event, Pour):
            self.water_g = np.minimum(self.water_g + event.water_g, self.full_g)
            return np.zeros_like(self.q)
        if isinstance(event, WaterSign):
            said = speaks_for(event, self.rules)
            if said is None:
                return np.zeros_like(self.q)
            self.signs += 1
            if event.kind is WaterSignKind.MEDIUM:
                return self._feel(event, *said)
            share, sd = said
            return -0.5 * ((self.water_g / self.full_g - share) / sd) ** 2
        return self._weigh(event)

    def _feel(self, sign: WaterSign, share: float, sd: float) -> FloatArray:
        """A hand in the medium: between what it felt and what was reckoned, each by its error."""
        days = max(sign.at_s - self.known_s, 0.0) / SECONDS_PER_DAY
        least, by_day, most = RECKONED_SD
        reckoned = min(least + by_day * days, most)
        gain = reckoned**2 / (reckoned**2 + sd**2)
        chance = -0.5 * ((self.water_g / self.full_g - share) ** 2) / (reckoned**2 + sd**2)
        felt = self.water_g + gain * (share * self.full_g - self.water_g)
        self.water_g = np.clip(felt, 0.0, self.full_g)
        self.known_s, self.open_sd_g = sign.at_s, math.sqrt(gain) * sd * self.full_g
        return chance

    def _weigh(self, weighing: Weighing) -> FloatArray:
        reference = self.ledger.reference_g(weighing.at_s)
        if reference is not None:
            water = np.full_like(self.q, self.full_g - (reference - weighing.mass_g))
        elif self.tare_g is not None:
            changed = sum(c.delta_g for c in self.ledger.changes if c.at_s < weighing.at_s)
            water = weighing.mass_g - changed - self.tare_g
        else:
            # The first weighing of a box nobody weighed at set-up: it tells nothing yet.
            before = sum(c.delta_g for c in self.ledger.changes if c.at_s < weighing.at_s)
            self.tare_g = weighing.mass_g - before - self.water_g
            self.lost_since_g = np.zeros_like(self.q)
            self.weighings += 1
            return np.zeros_like(self.q)
        unsure = self.ledger.unsure_g(weighing.at_s)
        sd = np.sqrt(2.0 * SCALE_SD_G**2 + unsure**2 + (DAYS_SD * self.lost_since_g) ** 2)
        chance = -0.5 * ((water - self.water_g) / sd) ** 2 - np.log(sd)
        self.water_g = np.clip(water, 0.0, self.full_g)
        self.lost_since_g = np.zeros_like(self.q)
        self.weighings += 1
        self.known_s, self.open_sd_g, self.signs = weighing.at_s, unsure, 0
        return chance


def _in_order(
    ledger: MassLedger, signs: Sequence[WaterSign], now_s: float
) -> Iterator[Pour | Weighing | WaterSign]:
    """Events up to now; at one moment the box is looked at, then weighed, then watered."""
    latest: dict[str, WaterSign] = {}
    for sign in sorted(signs, key=lambda s: (s.at_s, s.value)):
        if sign.at_s <= now_s:
            latest[sign.kind] = sign
    events: list[tuple[float, int, Pour | Weighing | WaterSign]] = [
        *((s.at_s, 0, s) for s in latest.values()),
        *((w.at_s, 1, w) for w in ledger.weighings if w.at_s <= now_s),
        *((p.at_s, 2, p) for p in ledger.pours if p.at_s <= now_s),
    ]
    for _, _, event in sorted(events, key=lambda e: e[:2]):
        yield event


def _told(
    state: _State,
    log_q: FloatArray,
    weights: FloatArray,
    now_s: float,
    future_g_day: float,
    rules: WaterRules,
) -> WaterLeft:
    full = state.full_g
    low, middle, high = _quantiles(state.water_g, weights)
    if state.weighings >= (2 if state.ledger.set_up_g is not None else 1):
        # What the scale itself leaves open, beside what q does.
        low, high = _with_error(low, middle, high, SCALE_SD_G, full)
    if state.open_sd_g:
        # What the hand leaves open.
        low, high = _with_error(low, middle, high, state.open_sd_g, full)
    rate = state.q * future_g_day
    slow, usual, fast = _quantiles(rate, weights)
    mean = float(np.dot(weights, log_q))
    sd = math.sqrt(float(np.dot(weights, (log_q - mean) ** 2)))
    return WaterLeft(
        water_g=middle,
        share=middle / full,
        share_low=low / full,
        share_high=high / full,
        loss_g_day=usual,
        loss_low_g_day=slow,
        loss_high_g_day=fast,
        top_up_soon=_reached(state.water_g, rate, weights, rules.top_up * full, now_s),
        dry=_reached(state.water_g, rate, weights, rules.dry * full, now_s),
        exchange=Exchange(mean, sd),
        weighings=state.weighings,
        signs=state.signs,
        rules=rules,
    )


def _with_error(
    low: float, middle: float, high: float, sd_g: float, full_g: float
) -> tuple[float, float]:
    """Ends of an 80 % band with an error of its own added, within what a box can hold."""
    more = Z80 * sd_g
    return (
        max(middle - math.hypot(middle - low, more), 0.0),
        min(middle + math.hypot(high - middle, more), full_g),
    )


def _reached(
    water_g: FloatArray, rate: FloatArray, weights: FloatArray, target_g: float, now_s: float
) -> DateBand:
    """When the water falls to `target_g`; now where it is below already."""
    with np.errstate(divide="ignore"):
        days = np.where(water_g <= target_g, 0.0, (water_g - target_g) / np.maximum(rate, 1e-12))
    low, middle, high = _quantiles(np.minimum(days, 10 * FARTHEST_DAYS), weights)
    band = (_wider(middle, low), middle, _wider(middle, high))
    return DateBand(*(now_s + d * SECONDS_PER_DAY if d <= FARTHEST_DAYS else None for d in band))


def _wider(middle: float, end: float) -> float:
    """An end of a band of days, with what the days to come add to it."""
    if middle <= 0.0 or end <= 0.0:
        return end
    apart = math.copysign(math.hypot(math.log(end / middle), Z80 * AHEAD_SD), end - middle)
    return middle * math.exp(apart)


def _quantiles(values: FloatArray, weights: FloatArray) -> tuple[float, float, float]:
    """The 10 %, 50 % and 90 % points of weighted values."""
    order = np.argsort(values, kind="stable")
    reach = np.cumsum(weights[order]) - 0.5 * weights[order]
    low, middle, high = np.interp(_BAND, reach, values[order])
    return float(low), float(middle), float(high)
