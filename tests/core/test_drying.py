"""Water of a box by physics alone: vapour, closing, medium, and the band around it."""

import pytest

from sandboa.core.box import Closing
from sandboa.core.water.drying import (
    EXCHANGE_L_DAY,
    MEDIUM_FACTOR,
    loss_g_day,
    unmeasured_air_sd,
    vapour_density_g_l,
)
from sandboa.core.water.estimate import WaterLeft, water_left
from sandboa.core.water.ledger import MassLedger
from sandboa.core.water.loss_curve import AirOfDay, loss_curve
from sandboa.core.water.mixing import MEDIA

DAY = 86_400.0


@pytest.mark.parametrize(
    ("temperature_c", "grams_a_litre"), [(0.0, 0.004847), (20.0, 0.01728), (31.5, 0.03287)]
)
def test_saturated_air_holds_what_tables_say(temperature_c: float, grams_a_litre: float) -> None:
    assert vapour_density_g_l(temperature_c, 1.0) == pytest.approx(grams_a_litre, rel=0.006)
    assert vapour_density_g_l(temperature_c, 0.5) == pytest.approx(grams_a_litre / 2, rel=0.006)


def test_the_example_of_rule_d4() -> None:
    """100 g in perlite, a cracked corner, 31.5 °C and 40 %: about 2.1 g a day, half by day 24."""
    loss = loss_g_day(Closing.CRACKED_CORNER, "perlite", 31.5, 31.5, 0.40)
    assert loss == pytest.approx(2.1, abs=0.05)
    left = _by_physics(0.40, 24)
    assert left.share == pytest.approx(0.5, abs=0.02)
    assert _by_physics(0.40, 35).share == pytest.approx(0.25, abs=0.02)
    assert _by_physics(0.90, 60).share > 0.75


def _by_physics(humidity: float, days: float) -> WaterLeft:
    air = [AirOfDay(0.0, days * DAY, 31.5, humidity)]
    curve = loss_curve(air, [(0.0, Closing.CRACKED_CORNER)], "perlite")
    left = water_left(MassLedger(0.0, None, 100.0), curve, days * DAY)
    assert left is not None
    return left


def test_every_closing_and_every_medium_has_its_number() -> None:
    assert set(EXCHANGE_L_DAY) == set(Closing)
    assert set(MEDIUM_FACTOR) == {medium.name for medium in MEDIA}


@pytest.mark.parametrize("humidity", [0.97, 0.99, 1.0])
def test_a_sensor_at_its_end_means_saturated_and_a_box_still_dries_a_little(humidity) -> None:
    loss = loss_g_day(Closing.LOOSE_LID, "perlite", 31.0, 31.0, humidity)
    assert 0.0 < loss == loss_g_day(Closing.LOOSE_LID, "perlite", 31.0, 31.0, 0.97)
    assert loss < 0.1 * loss_g_day(Closing.LOOSE_LID, "perlite", 31.0, 31.0, 0.40)


def test_not_knowing_the_cabinets_air_is_an_error_of_its_own() -> None:
    """80 % of unmeasured cabinets lie between 25 and 65 %: losses as 0.74 to 0.34."""
    assert unmeasured_air_sd() == pytest.approx(0.3034, abs=1e-3)
