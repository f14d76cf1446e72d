"""Is the cabinet ready: the four conditions, each failing alone, and since when."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.climate import Requirement, readiness
from sandboa.core.development import ReadingSeries

HOUR_S = 3600.0


def series(days: float = 4.0, every_s: float = 600.0, swing_c: float = 0.6, mean_c: float = 31.5):
    times = np.arange(NOW_S - days * DAY_S, NOW_S + 1, every_s)
    return ReadingSeries(times, mean_c + swing_c / 2 * np.sin(times / DAY_S * 2 * np.pi))


def failing(told) -> list[Requirement]:
    return [c.requirement for c in told.failing]


def test_a_steady_cabinet_is_ready_and_says_since_when() -> None:
    told = readiness(series(), 31.5, NOW_S)
    assert told.ready
    # Four days of record: ready since 48 h of it were there.
    assert told.since_s == pytest.approx(NOW_S - 2 * DAY_S, abs=HOUR_S)
    swing = next(c for c in told.conditions if c.requirement is Requirement.DAILY_SWING)
    assert swing.value == pytest.approx(0.6, abs=0.01)


def test_no_readings_meet_nothing() -> None:
    told = readiness(ReadingSeries(np.empty(0), np.empty(0)), 31.5, NOW_S)
    assert not told.ready
    assert failing(told) == list(Requirement)
    assert told.conditions[1].value is None


def test_the_mean_off_target_fails_alone() -> None:
    assert failing(readiness(series(days=16), 31.5 + 0.49, NOW_S)) == []
    told = readiness(series(days=16), 31.5 + 0.52, NOW_S)
    assert failing(told) == [Requirement.MEAN]
    assert told.since_s is None


def test_a_swing_of_a_day_fails_and_tells_since() -> None:
    steady = series(days=16, swing_c=0.2)
    values = steady.temperature_c.copy()
    values[steady.times_s > NOW_S - 6 * HOUR_S] += 1.2
    told = readiness(ReadingSeries(steady.times_s, values), 31.5, NOW_S)
    assert failing(told) == [Requirement.DAILY_SWING]
    assert told.since_s == pytest.approx(NOW_S - 6 * HOUR_S, abs=HOUR_S)


def test_two_quiet_days_far_apart_fail_as_a_whole() -> None:
    times = np.arange(NOW_S - 2 * DAY_S, NOW_S + 1, 600.0)
    values = np.where(times < NOW_S - DAY_S, 30.4, 32.6)
    told = readiness(ReadingSeries(times, values), 31.5, NOW_S)
    assert Requirement.WHOLE_SWING in failing(told)


def test_a_gap_fails_until_48_hours_after_it() -> None:
    whole = series(days=16)
    for hours_ago, ready in ((47, False), (49, True)):
        gap_end = NOW_S - hours_ago * HOUR_S
        inside = (whole.times_s > gap_end - 2.5 * HOUR_S) & (whole.times_s < gap_end)
        told = readiness(
            ReadingSeries(whole.times_s[~inside], whole.temperature_c[~inside]), 31.5, NOW_S
        )
        assert told.ready is ready
        assert failing(told) == ([] if ready else [Requirement.NO_GAP])


def test_a_silent_probe_is_a_gap_since_two_hours_after_its_last_word() -> None:
    whole = series(days=16)
    kept = whole.times_s <= NOW_S - 10 * HOUR_S
    told = readiness(ReadingSeries(whole.times_s[kept], whole.temperature_c[kept]), 31.5, NOW_S)
    assert failing(told) == [Requirement.NO_GAP]
    assert told.conditions[0].value == pytest.approx(10.0, abs=0.2)
    assert told.since_s == pytest.approx(NOW_S - 8 * HOUR_S, abs=HOUR_S)


@given(st.floats(-3, 3), st.floats(0, 3), st.floats(20, 36))
def test_shifting_cabinet_and_target_together_changes_nothing(shift, swing, target) -> None:
    a = readiness(series(swing_c=swing, mean_c=target), target, NOW_S)
    b = readiness(series(swing_c=swing, mean_c=target + shift), target + shift, NOW_S)
    near_a_limit = any(abs((c.value or 9) - c.limit) < 1e-6 for c in (*a.conditions, *b.conditions))
    assert near_a_limit or a.ready == b.ready
