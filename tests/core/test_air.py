"""The air in a box settles as a mixed volume does."""

import math

import pytest

from sandboa.core.air import FRESH, AirRules, oxygen
from sandboa.core.box import Closing
from sandboa.core.units import SECONDS_PER_HOUR


def short_of_fresh(hours: float, free_air_l: float) -> float:
    """How far a box of six eggs is below fresh air, as a share of the air."""
    at = oxygen(
        [0.8] * 6, Closing.PIN_HOLES, hours * SECONDS_PER_HOUR, air=AirRules(free_air_l=free_air_l)
    )
    return FRESH - at.share


@pytest.mark.parametrize("free_air_l", [2.0, 4.0, 8.0])
def test_air_settles_the_sooner_the_less_there_is_of_it(free_air_l: float) -> None:
    settled = short_of_fresh(10_000.0, free_air_l)
    assert settled == pytest.approx(short_of_fresh(10_000.0, 3.0))
    # dC/dt = Q/V: twice the air takes twice as long to be as far.
    part = short_of_fresh(6.0, free_air_l)
    assert 0.0 < part < settled
    assert short_of_fresh(12.0, 2.0 * free_air_l) == pytest.approx(part)
    rate = -math.log(1.0 - part / settled)
    assert -math.log(1.0 - short_of_fresh(3.0, free_air_l) / settled) == pytest.approx(rate / 2)
