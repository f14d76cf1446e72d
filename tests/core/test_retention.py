"""Which copies are kept."""

from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.retention import KEPT_DAYS, KEPT_MONTHS, KEPT_WEEKS, kept

DAY_S = 86_400.0
#: 28 Nov 2026, 03:00 UTC: a Saturday.
NIGHT_S = datetime(2026, 11, 28, 3, tzinfo=UTC).timestamp()


def test_two_years_of_nights_leave_seven_days_five_weeks_and_twelve_months() -> None:
    nights = [NIGHT_S - day * DAY_S for day in range(730)]
    days = {datetime.fromtimestamp(at_s, UTC).date() for at_s in kept(nights)}
    today = datetime(2026, 11, 28, tzinfo=UTC).date()
    expected = {today - timedelta(days=day) for day in range(7)}
    # The newest of a week is its Sunday, of a month its last day; today stands for both now.
    expected |= {datetime(2026, 11, day).date() for day in (1, 8, 15, 22)}
    expected |= {
        datetime(year, month, day).date()
        for year, month, day in (
            (2026, 10, 31), (2026, 9, 30), (2026, 8, 31), (2026, 7, 31), (2026, 6, 30),
            (2026, 5, 31), (2026, 4, 30), (2026, 3, 31), (2026, 2, 28), (2026, 1, 31),
            (2025, 12, 31),
        )
    }  # fmt: skip
    assert days == expected


def test_of_one_day_only_the_newest_is_kept() -> None:
    assert kept([NIGHT_S, NIGHT_S + 60.0, NIGHT_S + 3_600.0]) == {NIGHT_S + 3_600.0}


def test_a_house_that_slept_all_winter_keeps_what_it_has() -> None:
    autumn = [NIGHT_S - (200 + day) * DAY_S for day in range(5)]
    assert kept([*autumn, NIGHT_S]) == {*autumn, NIGHT_S}


@given(st.lists(st.floats(3e8, 7e9), max_size=200))
def test_the_newest_is_always_kept_and_never_more_than_all_together(moments: list[float]) -> None:
    keep = kept(moments)
    assert keep <= set(moments)
    assert len(keep) <= KEPT_DAYS + KEPT_WEEKS + KEPT_MONTHS
    assert not moments or max(moments) in keep


@given(st.lists(st.floats(3e8, 7e9), max_size=60))
def test_pruning_twice_is_pruning_once(moments: list[float]) -> None:
    assert kept(kept(moments)) == kept(moments)
