"""Numbers of the rules where they decide: a hair to either side, and what is said there."""

import math
from dataclasses import replace

import numpy as np
import pytest

from core.test_causes import by_cause, found, lost, window
from core.test_faults import DAY, Cabinet
from core.test_hatch_advice import NOW_S, OUT, ago, at_hatch
from sandboa.core.box import Closing
from sandboa.core.causes import Cause
from sandboa.core.causes.evidence import Air, Neighbours, Sibling, Water
from sandboa.core.climate.faults import FaultKind
from sandboa.core.hatching import AdviceKind, EggAtHatch, Fate, advise
from sandboa.core.methods import CuttingSchool
from sandboa.core.rates.groups import group_rates
from sandboa.core.rates.rate import Tally, effective_eggs
from sandboa.core.standing import (
    SIGNS,
    Observation,
    SignKind,
    Situation,
    judge_standing,
    what_settles,
)
from sandboa.core.water.drying import loss_g_day
from sandboa.core.water.estimate import water_left
from sandboa.core.water.ledger import MassLedger, Weighing
from sandboa.core.water.loss_curve import AirOfDay, LossCurve, loss_curve

_HAIR = 1e-6


# Rule B, C: signs count from and until a share developed, both ends included and excluded alike.
@pytest.mark.parametrize("key", [key for key, sign in SIGNS.items() if sign.from_share > 0])
def test_a_sign_counts_from_its_share_on(key: tuple[SignKind, str]) -> None:
    sign = SIGNS[key]
    assert _push(sign.kind, sign.value, sign.from_share) != 0
    assert _push(sign.kind, sign.value, sign.from_share - _HAIR) == 0


@pytest.mark.parametrize("key", [key for key, sign in SIGNS.items() if sign.until_share < 1])
def test_a_sign_counts_until_its_share_and_not_at_it(key: tuple[SignKind, str]) -> None:
    sign = SIGNS[key]
    assert _push(sign.kind, sign.value, sign.until_share) == 0
    assert _push(sign.kind, sign.value, sign.until_share - _HAIR) != 0


def sign_key(kind: SignKind, value: str) -> str:
    return SIGNS[kind, value].key


def _push(kind: SignKind, value: str, share: float) -> float:
    seen = Observation(29 * DAY, kind, value, share)
    told = judge_standing([seen], Situation(0.0, 30 * DAY, 0.95))
    return sum(line.push for line in told.evidence if line.key == sign_key(kind, value))


def test_late_in_term_a_doubtful_egg_is_looked_at_again_after_two_days() -> None:
    torch = Observation(50 * DAY, SignKind.VESSELS, "broken", 0.85)
    foul = Observation(50 * DAY, SignKind.SMELL, "foul", 0.85)
    situation = Situation(0.0, 51 * DAY, 0.86)
    judged = judge_standing([torch, foul], situation)
    settles = what_settles(judged, [torch, foul], situation, 0.86)
    assert settles is not None
    assert settles.from_s == 52 * DAY


# Rule D3: the closing's exchange, through the same air.
@pytest.mark.parametrize(
    ("closing", "times_pin_holes"),
    [
        (Closing.SEALED_FILM, 0.5),
        (Closing.PIN_HOLES, 1.0),
        (Closing.SMALL_HOLES, 3.5),
        (Closing.CRACKED_CORNER, 5.5),
        (Closing.LOOSE_LID, 9.0),
    ],
)
def test_a_box_loses_as_its_closing_lets_air_through(
    closing: Closing, times_pin_holes: float
) -> None:
    pin_holes = loss_g_day(Closing.PIN_HOLES, "perlite", 31.5, 31.5, 0.4)
    loss = loss_g_day(closing, "perlite", 31.5, 31.5, 0.4)
    assert loss == pytest.approx(times_pin_holes * pin_holes)


# Rule D5: what weighings make of the exchange, worked out again beside it.
def _learned(lost_g: float, days: float, *, of_lost: float) -> tuple[float, float]:
    """Mean and sd of ln q after one known loss: a lognormal of factor 2 and the scale's error."""
    usual_g = _usual(Closing.CRACKED_CORNER, "perlite").at(days * DAY)
    log_q = np.linspace(-4, 4, 20_001) * math.log(2.0)
    expected = np.exp(log_q) * usual_g
    sd = np.sqrt(2.0 * 2.0**2 + (of_lost * expected) ** 2)
    log_weight = -0.5 * (log_q / math.log(2.0)) ** 2
    log_weight += -0.5 * ((lost_g - expected) / sd) ** 2 - np.log(sd)
    weight = np.exp(log_weight - log_weight.max())
    weight /= weight.sum()
    mean = float((weight * log_q).sum())
    return mean, math.sqrt(float((weight * (log_q - mean) ** 2).sum()))


def _usual(closing: Closing, medium: str) -> LossCurve:
    return loss_curve([AirOfDay(0.0, 90 * DAY, 31.5, 0.40)], [(0.0, closing)], medium)


def test_a_weighing_counts_by_the_scale_and_a_tenth_of_what_was_lost() -> None:
    ledger = MassLedger(0.0, 1_000.0, 100.0, weighings=(Weighing(20 * DAY, 965.0),))
    left = water_left(ledger, _usual(Closing.CRACKED_CORNER, "perlite"), 20 * DAY)
    assert left is not None
    mean, sd = _learned(35.0, 20.0, of_lost=0.10)
    assert left.exchange.mean == pytest.approx(mean, abs=0.01)
    assert left.exchange.sd == pytest.approx(sd, rel=0.02)


@pytest.mark.parametrize("first_day", [0.1, 10.0, 40.0])
def test_what_a_box_lost_before_its_first_weighing_makes_the_next_no_less_sure(
    first_day: float,
) -> None:
    weighings = (Weighing(first_day * DAY, 800.0), Weighing((first_day + 40) * DAY, 780.0))
    ledger = MassLedger(0.0, None, 500.0, weighings=weighings)
    left = water_left(ledger, _usual(Closing.PIN_HOLES, "vermiculite"), weighings[1].at_s)
    assert left is not None
    assert left.exchange.mean == pytest.approx(0.69181, abs=1e-4)
    assert left.exchange.sd == pytest.approx(0.18006, abs=1e-4)


# Rule G.
def _grounds(cause: Cause, **changes: object) -> set[str]:
    return {ground.name.rpartition(".")[2] for ground in by_cause(lost(**changes))[cause].grounds}


@pytest.mark.parametrize(
    ("day", "in_time"), [(20.9, False), (21.0, True), (49.0, True), (49.1, False)]
)
def test_vapours_take_a_batch_in_weeks_four_to_seven(day: float, in_time: bool) -> None:
    struck = Neighbours((2, 11), (0, 12), (10, 11), 2, altered_days=70.0)
    all_lost = (Sibling(Fate.DEAD_IN_EGG, window(0.4, 0.6)),) * 4
    told = by_cause(lost(death_day=day, neighbours=struck, siblings=all_lost))
    (batch,) = (g for g in told[Cause.POISONED_AIR].grounds if g.name.endswith("whole batch"))
    others = by_cause(lost(death_day=35.0, neighbours=struck, siblings=all_lost))
    (usual,) = (g for g in others[Cause.POISONED_AIR].grounds if g.name.endswith("whole batch"))
    assert (batch.score == usual.score) is in_time
    assert batch.score > 0


@pytest.mark.parametrize(("days", "rarely"), [(9.9, False), (10.0, True)])
def test_a_sealed_box_counts_from_ten_days_unopened(days: float, rarely: bool) -> None:
    told = _grounds(Cause.STALE_AIR, window=window(0.9, 1.0), air=Air(None, True, days))
    assert ("sealed" in told) is rarely


def test_found_at_the_side_says_less_than_underneath() -> None:
    side, under, top = (
        by_cause(lost(findings=found(position=where), opened=True))[Cause.UNDERNEATH].score
        for where in ("side", "under", "top")
    )
    assert top < 0.5 * (side + top) < side < under
    plain = by_cause(lost(opened=True))[Cause.UNDERNEATH].score
    assert side - plain == pytest.approx(0.678, abs=0.01), "0.8, less what may be noted wrong"


@pytest.mark.parametrize(
    ("middle", "says"),
    [(0.249, "water dry"), (0.25, "water low"), (0.499, "water low"), (0.5, None)],
)
def test_water_counts_as_dry_and_low_below_a_quarter_and_a_half(
    middle: float, says: str | None
) -> None:
    water = Water((middle - 0.1, middle, middle + 0.1), 2)
    told = _grounds(Cause.TOO_DRY, water=water) & {"water dry", "water low", "water enough"}
    assert told == ({says} if says else set())


# Rule E.
@pytest.mark.parametrize(("minutes", "told"), [(20, False), (21, True)])
def test_a_door_is_told_that_is_seen_open_in_five_steps_of_five_minutes(
    minutes: int, told: bool
) -> None:
    cabinet = Cabinet()
    ajar = cabinet.during(200, 200 + minutes / 60)
    for name, values in cabinet.degrees.items():
        values[ajar] -= 1.6
        cabinet.humidity[name][ajar] -= 0.15
    assert ([f.kind for f in cabinet.recognise()] == [FaultKind.DOOR]) is told


@pytest.mark.parametrize(("wander_c", "told"), [(0.15, True), (0.20, False)])
def test_a_slow_change_is_believed_that_explains_four_fifths_of_what_moved(
    wander_c: float, told: bool
) -> None:
    """A straight line of nearly a degree, and a wander from day to day beside it."""
    cabinet = Cabinet(45)
    days = cabinet.times / DAY
    wander = np.random.default_rng(11).normal(0.0, wander_c, 46)[days.astype(int)]
    cabinet.degrees["lower"] += 0.03 * np.clip(days - 15, 0, None) + wander
    slow = {FaultKind.DRIFT, FaultKind.EGG_HEAT}
    assert any(f.kind in slow for f in cabinet.recognise()) is told


# Rule H.
def test_eggs_of_clutches_that_share_their_luck_count_by_the_usual_formula() -> None:
    """Each egg counts the less, the more eggs share its clutch: 12 / (2·1.2 + 10·2.8) / 12."""
    alike = [Tally(1, 2), Tally(8, 10)]
    assert effective_eggs(alike, 0.2) == pytest.approx(12 / ((2 * 1.2 + 10 * 2.8) / 12))
    assert effective_eggs([Tally(3, 6)] * 2, 0.2) == pytest.approx(6.0)
    assert effective_eggs([Tally(0, 1)] * 5, 0.5) == 5.0


def test_with_two_groups_the_house_is_worth_twelve_eggs() -> None:
    one, other = group_rates({"one": [Tally(1, 4)] * 3, "other": [Tally(4, 4)] * 3})
    for group in (one, other):
        own = group.rate
        weight = own.effective_n / (own.effective_n + 12.0)
        assert group.drawn == pytest.approx(weight * own.share + (1 - weight) * 15 / 24)


# Rule P8.
@pytest.mark.parametrize(
    ("hours", "text"),
    [(23.9, "Wait"), (24.0, "wait."), (71.9, "wait."), (72.0, "reptile vet")],
)
def test_a_slit_is_looked_at_from_24_hours_and_minded_from_72(hours: float, text: str) -> None:
    (told,) = advise(
        [EggAtHatch(1, pipped_s=ago(hours))], school=CuttingSchool.NEVER, set_day=None,
        share=1.0, laid_s=NOW_S - 60 * DAY, now_s=NOW_S,
    )  # fmt: skip
    assert text in told.text
    assert (told.kind is AdviceKind.WAIT) is (hours < 24)


@pytest.mark.parametrize(("hours", "kind"), [(35.9, AdviceKind.WAIT), (36.0, AdviceKind.WINDOW)])
def test_a_rescue_is_considered_from_36_hours_on(hours: float, kind: AdviceKind) -> None:
    first = EggAtHatch(1, pipped_s=ago(hours), emerged_s=ago(5))
    assert at_hatch(first, EggAtHatch(3))[3] is kind


def test_a_rescue_is_considered_when_half_of_the_siblings_are_out() -> None:
    pipped = EggAtHatch(4, pipped_s=ago(49))
    assert at_hatch(OUT, pipped, EggAtHatch(3))[3] is AdviceKind.WINDOW
    more = replace(pipped, number=5)
    assert at_hatch(OUT, pipped, more, EggAtHatch(3))[3] is AdviceKind.WAIT
