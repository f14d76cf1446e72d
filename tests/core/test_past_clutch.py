"""Clutches of before Sandboa: what of a card can be true, and what its days teach."""

import math
from dataclasses import replace
from datetime import date, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.development import Circumstances, learn
from sandboa.core.development.rules import DEFAULT_RULES
from sandboa.core.errors import NotPlausible
from sandboa.core.past_clutches.card import ClutchCard, check_past_clutch, noon_s
from sandboa.core.past_clutches.first_pip import past_pip

LAID = date(2019, 6, 12)
NOW_S = noon_s(date(2026, 6, 14))
CARD = ClutchCard(LAID, ClutchCount(7, 2), 5, LAID + timedelta(days=57), 31.5)
HERE = Circumstances("North", "Sorrel", 31.5, "lower", 0.01)


def test_a_card_that_can_be_true_passes() -> None:
    check_past_clutch(CARD, NOW_S)
    check_past_clutch(ClutchCard(LAID, ClutchCount(3, 3)), NOW_S)
    assert CARD.days_to_pip == 57


@pytest.mark.parametrize(
    ("changes", "field", "words"),
    [
        ({"laid": date(2027, 1, 1)}, "laid", "in the future"),
        ({"laid": date(1912, 6, 12)}, "laid", "years 1980"),
        ({"hatched": 6}, "hatched", "6 hatched, but 5 of 7 eggs were fertile"),
        ({"first_pip": LAID + timedelta(days=43)}, "first_pip", "43 days after laying"),
        ({"first_pip": LAID + timedelta(days=106)}, "first_pip", "106 days after laying"),
        ({"first_pip": LAID - timedelta(days=3)}, "first_pip", "-3 days"),
        ({"count": ClutchCount(4, 4), "hatched": 0}, "first_pip", "none can pip"),
        ({"kept_c": 38.0}, "kept", "outside"),
    ],
)
def test_what_cannot_be_true_is_refused_where_it_stands(
    changes: dict[str, object], field: str, words: str
) -> None:
    with pytest.raises(NotPlausible, match=words) as refused:
        check_past_clutch(replace(CARD, **changes), NOW_S)  # type: ignore[arg-type]
    assert refused.value.field == field


def test_known_values() -> None:
    # 57 days at 31.67 °C are 57/58 of the typical time; one egg's pip is the mean pip.
    alone = past_pip("Sorrel", 57.0, 1, 31.67)
    assert alone.log_development == pytest.approx(math.log(57.0 * 12.67 / 735.0))
    assert alone.sd == pytest.approx(math.sqrt(2.0 / 12.0) / 57.0)
    assert alone.where.probe_sd == pytest.approx(1.0 / 12.67)
    # The first of six is 1.28 sds early (Blom), and an sd of eggs is a day.
    six = past_pip("Sorrel", 57.0, 6, 31.67)
    assert math.exp(six.log_development - alone.log_development) == pytest.approx(58.2816 / 57.0)
    unknown = past_pip("Sorrel", 57.0, 1, None)
    assert (unknown.where.mean_c, unknown.where.probe_sd) == (31.0, pytest.approx(1.5 / 12.0))


@given(days=st.floats(44.0, 105.0), eggs=st.integers(1, 20), kept_c=st.floats(24.0, 36.0))
def test_later_pips_of_more_eggs_in_more_warmth_are_further_developed(
    days: float, eggs: int, kept_c: float
) -> None:
    lesson = past_pip(1, days, eggs, kept_c)
    assert past_pip(1, days + 1.0, eggs, kept_c).log_development > lesson.log_development
    assert past_pip(1, days, eggs + 1, kept_c).log_development > lesson.log_development
    assert past_pip(1, days, eggs, kept_c + 0.5).log_development >= lesson.log_development
    assert lesson.eggs == 1
    assert lesson.sd > 0.0


def test_many_cards_without_a_temperature_do_not_settle_how_fast_a_house_is() -> None:
    """What they all do not say, a hundred of them do not say either."""
    cards = [past_pip(f"dam {i % 25}", 62.0, 6, None) for i in range(100)]
    before = learn([]).expect(HERE).house
    after = learn(cards).expect(HERE).house
    assert after.sd > 0.8 * before.sd
    assert abs(after.mean) < after.sd
    # With a temperature they say more, as it was about that.
    told = [past_pip(f"dam {i % 25}", 62.0, 6, 31.5) for i in range(100)]
    assert learn(told).expect(HERE).house.mean > after.mean > 0.0


def test_cards_teach_which_dam_is_early() -> None:
    others = [past_pip(f"dam {i}", 60.0, 6, None) for i in range(20)]
    early = [past_pip("Sorrel", 57.0, 6, None) for _ in range(5)]
    learned = learn([*others, *early]).expect(HERE)
    assert learned.dam.clutches == 5
    assert learned.dam.mean < -0.5 * DEFAULT_RULES.dam_sd
    assert learned.in_cabinet == 0
