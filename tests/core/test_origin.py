"""Eggs nobody saw laid: how far they are by torch, and how much wider their windows get."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.development import DEFAULT_CLOCK, DevelopmentCurve, SetPoints, box_temperature
from sandboa.core.development.box_temperature import Ahead
from sandboa.core.development.earlier_life import EarlierLife
from sandboa.core.development.forecast import forecast, log_uncertainty
from sandboa.core.development.windows import HatchPrior
from sandboa.core.errors import NotPlausible
from sandboa.core.laying.origin import (
    TORCH_STAGES,
    TorchStage,
    laid_between,
    laid_by_stage,
    require_before,
    stage_share,
)

DAY = 86_400.0
LAID, NOW = 1_000 * DAY, 1_030 * DAY


def curve(earlier: EarlierLife, *, set_to: float = 31.5, now: float = NOW) -> DevelopmentCurve:
    ahead = Ahead(earlier=earlier)
    record = box_temperature(LAID, now, [], SetPoints((LAID,), (set_to,)), ahead)
    return DevelopmentCurve(record, DEFAULT_CLOCK)


def test_a_stage_is_the_middle_of_its_shares_until_the_house_knows_better() -> None:
    told = stage_share(TorchStage.HALF)
    assert told.mean == pytest.approx(0.20)
    assert told.sd == pytest.approx(0.16 / math.sqrt(12))
    assert told.clutches == 0
    # Four clutches weigh as much as the table.
    learned = stage_share(TorchStage.HALF, [0.26] * 4)
    assert learned.mean == pytest.approx(0.23)
    assert learned.clutches == 4


@given(st.sampled_from(TorchStage), st.lists(st.floats(0.1, 0.3), min_size=12, max_size=40))
def test_many_clutches_of_the_house_outweigh_the_table(
    stage: TorchStage, seen: list[float]
) -> None:
    told = stage_share(stage, seen)
    own = sum(seen) / len(seen)
    assert abs(told.mean - own) <= abs(stage_share(stage).mean - own) * 4 / (4 + len(seen)) + 1e-9
    assert told.sd > 0.0


def test_alike_clutches_narrow_a_stage() -> None:
    assert stage_share(TorchStage.ALL_ROUND, [0.4] * 12).sd < stage_share(TorchStage.ALL_ROUND).sd


def test_the_stages_follow_one_another() -> None:
    shares = [TORCH_STAGES[stage] for stage in TorchStage]
    assert all(low < high for low, high in shares)
    assert shares == sorted(shares)
    assert shares[0][0] == 0.0
    assert shares[-1][1] < 1.0


def test_a_lay_time_is_reckoned_back_from_the_torch() -> None:
    """A fifth developed at 31.1 °C, where the whole takes 60.7 days: 12 days ago."""
    laid_s = laid_by_stage(stage_share(TorchStage.HALF), NOW, 31.1)
    assert (NOW - laid_s) / DAY == pytest.approx(0.2 * 735 / 12.1)
    with pytest.raises(NotPlausible, match="no egg develops"):
        laid_by_stage(stage_share(TorchStage.HALF), NOW, 18.0)


def test_between_two_times_is_the_middle() -> None:
    assert laid_between(LAID, LAID + 4 * DAY) == LAID + 2 * DAY
    with pytest.raises(NotPlausible, match="ends before it begins"):
        laid_between(NOW, LAID)
    with pytest.raises(NotPlausible, match="more than 60 days"):
        laid_between(LAID, LAID + 61 * DAY)


def test_what_eggs_can_have_had() -> None:
    assert require_before(30.5) == 30.5
    for temperature_c in (12.0, 40.0, math.nan):
        with pytest.raises(NotPlausible):
            require_before(temperature_c)


def test_an_unknown_lay_day_widens_the_window_as_a_uniform_one_does() -> None:
    """Ten days at 31.5 °C are 0.170 of the whole: its sd is that over the root of 12."""
    prior = HatchPrior()
    known = log_uncertainty(curve(EarlierLife()), prior)
    unknown = log_uncertainty(curve(EarlierLife(span_s=10 * DAY)), prior)
    own = 10 * 12.5 / 735 / math.sqrt(12)
    assert unknown**2 - known**2 == pytest.approx(own**2)
    before, after = (forecast(curve(e), 6) for e in (EarlierLife(), EarlierLife(span_s=10 * DAY)))
    assert before.typical_pip is not None
    assert after.typical_pip is not None
    assert after.typical_pip.p50 == pytest.approx(before.typical_pip.p50, abs=0.3 * DAY)
    spread = after.typical_pip.p90 - after.typical_pip.p10
    assert spread > before.typical_pip.p90 - before.typical_pip.p10 + 2 * DAY


def test_before_they_came_they_had_what_was_said_and_that_errs_by_itself() -> None:
    earlier = EarlierLife(arrived_s=LAID + 20 * DAY, temperature_c=29.0, temperature_sd_c=1.0)
    told = curve(earlier)
    assert told.now == pytest.approx((20 * 10.0 + 10 * 12.5) / 735)
    # Only what is here says what is to come.
    assert told.temperature.future_c == 31.5
    errors = log_uncertainty(told, HatchPrior(sd=0.0)) ** 2
    end_days = (told.time_of(1.0) - LAID - 20 * DAY) / DAY
    assert errors == pytest.approx((20 * 1.0 / 735) ** 2 + (0.7 * end_days / 735) ** 2, rel=1e-3)


def test_a_torch_tells_however_warm_they_had_been() -> None:
    arrived = LAID + 12 * DAY
    by_torch = EarlierLife(arrived_s=arrived, temperature_c=31.5, development_sd=0.05)
    told = log_uncertainty(curve(by_torch), HatchPrior(sd=0.0)) ** 2
    here = (curve(by_torch).time_of(1.0) - arrived) / DAY
    assert told == pytest.approx(0.05**2 + (0.7 * here / 735) ** 2, rel=1e-3)


def test_a_forecast_made_before_they_came_holds_with_what_was_said() -> None:
    earlier = EarlierLife(arrived_s=LAID + 40 * DAY, temperature_c=29.0)
    assert curve(earlier).now == pytest.approx(30 * 10.0 / 735)
