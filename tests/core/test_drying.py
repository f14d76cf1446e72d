"""Water of a box by physics alone: vapour, closing, medium, and the band around it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.box import Closing
from sandboa.core.water import loss_g_day, water_left
from sandboa.core.water.drying import EXCHANGE_L_DAY, MEDIUM_FACTOR, vapour_density_g_l
from sandboa.core.water.mixing import MEDIA

DAY = 86_400.0


@pytest.mark.parametrize(
    ("temperature_c", "grams_a_litre"), [(0.0, 0.004847), (20.0, 0.01728), (31.5, 0.03287)]
)
def test_saturated_air_holds_what_tables_say(temperature_c: float, grams_a_litre: float) -> None:
    assert vapour_density_g_l(temperature_c, 1.0) == pytest.approx(grams_a_litre, rel=0.006)
    assert vapour_density_g_l(temperature_c, 0.5) == pytest.approx(grams_a_litre / 2, rel=0.006)


def test_the_example_of_the_handbook() -> None:
    """100 g in perlite, a cracked corner, 31.5 °C and 40 %: about 2.1 g a day, half by day 24."""
    loss = loss_g_day(Closing.CRACKED_CORNER, "perlite", 31.5, 31.5, 0.40)
    assert loss == pytest.approx(2.1, abs=0.05)
    assert water_left(100.0, loss, 0.0, 24 * DAY).share == pytest.approx(0.5, abs=0.02)
    dry = water_left(100.0, loss, 0.0, 35 * DAY)
    assert dry.share == pytest.approx(0.25, abs=0.02)
    damp = loss_g_day(Closing.CRACKED_CORNER, "perlite", 31.5, 31.5, 0.90)
    assert water_left(100.0, damp, 0.0, 60 * DAY).share > 0.75


def test_every_closing_and_every_medium_has_its_number() -> None:
    assert set(EXCHANGE_L_DAY) == set(Closing)
    assert set(MEDIUM_FACTOR) == {medium.name for medium in MEDIA}


def test_air_as_damp_as_the_box_takes_nothing() -> None:
    assert loss_g_day(Closing.LOOSE_LID, "perlite", 31.0, 31.0, 1.0) == 0.0


def test_water_poured_counts_from_when_it_was_poured_and_never_overfills() -> None:
    topped = water_left(100.0, 2.0, 0.0, 20 * DAY, [(10 * DAY, 15.0)])
    assert topped.share == pytest.approx(0.75)
    brimming = water_left(100.0, 2.0, 0.0, 10 * DAY, [(10 * DAY, 500.0)])
    assert brimming.share == 1.0
    assert water_left(100.0, 2.0, 0.0, 10 * DAY, [(20 * DAY, 50.0)]).share == pytest.approx(0.8)


@given(
    st.floats(20, 500), st.floats(0, 10), st.floats(0, 90),
    st.lists(st.tuples(st.floats(0, 90), st.floats(1, 100)), max_size=4),
)  # fmt: skip
def test_the_band_holds_the_middle_and_all_are_shares(water, loss, days, poured) -> None:
    told = water_left(water, loss, 0.0, days * DAY, [(d * DAY, g) for d, g in poured])
    assert 0.0 <= told.share_low <= told.share <= told.share_high <= 1.0


@given(st.floats(0, 5), st.floats(0, 80), st.floats(0, 80))
def test_a_box_only_dries(loss, a, b) -> None:
    earlier, later = sorted((a, b))
    assert water_left(100, loss, 0.0, later * DAY).share <= (
        water_left(100, loss, 0.0, earlier * DAY).share + 1e-9
    )
