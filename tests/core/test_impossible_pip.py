"""A pip that cannot be: it asks about the lay date and the probe (A6)."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from core.test_pipping_and_learning import DAY, curve_at
from sandboa.core.development import HatchPrior
from sandboa.core.development.impossible_pip import impossible_pip
from sandboa.core.development.rules import ASKED_FROM_SDS

PRIOR = HatchPrior()


def asked(day: float, temperature_c: float = 31.67, **more):
    return impossible_pip(curve_at(day, temperature_c), PRIOR, day * DAY, **more)


def test_a_pip_on_day_36_fits_eggs_laid_22_days_earlier() -> None:
    """58.01 days at 31.67 °C; nothing reads 12.67 x (58 / 36 - 1) = 7.7 °C too low."""
    question = asked(36.0)
    assert question.days == pytest.approx(22.0, abs=0.1)
    assert question.reads_low_c == pytest.approx(7.74, abs=0.05)
    assert question.sds < -ASKED_FROM_SDS
    assert str(question.words) == (
        "By heat the first pip came too early. It fits eggs laid about 22 days earlier: "
        "is the lay date right?"
    )


def test_nearer_to_its_time_a_probe_may_explain_it_as_well() -> None:
    question = asked(46.0)
    assert str(question.words) == (
        "By heat the first pip came too early. It fits eggs laid about 12 days earlier, or a "
        "probe that reads 3.3 °C too low: which of them is wrong?"
    )


def test_a_late_one_points_the_other_way() -> None:
    question = asked(75.0)
    assert (question.days < 0, question.reads_low_c < 0) == (True, True)
    assert "too late" in str(question.words)
    assert "too high" in str(question.words)


@pytest.mark.parametrize("day", [50.0, 54.0, 58.0, 65.0, 68.0])
def test_what_may_well_be_is_not_asked_about(day: float) -> None:
    assert asked(day) is None


def test_a_dam_that_keeps_her_eggs_is_asked_later() -> None:
    assert asked(46.0) is not None
    assert asked(46.0, maternal=True) is None


@settings(deadline=None, max_examples=30)
@given(st.floats(29.0, 32.5), st.floats(0.3, 0.75))
def test_either_mend_makes_it_fit(temperature_c: float, share: float) -> None:
    """Laid so much earlier, or so much warmer, the same pip comes at the middle of the forecast."""
    day = share * 735.0 / (temperature_c - 19.0)
    question = asked(day, temperature_c)
    days, warmer_c = day + question.days, temperature_c + question.reads_low_c
    assert (temperature_c - 19.0) * days / 735.0 == pytest.approx(1.0, rel=1e-3)
    assert (warmer_c - 19.0) * day / 735.0 == pytest.approx(1.0, rel=1e-3)
