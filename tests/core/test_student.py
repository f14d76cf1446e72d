"""Student's t, against printed tables and its two ends that have a closed form."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core import normal
from sandboa.core.student import quantile


@pytest.mark.parametrize(
    ("chance", "freedom", "value"),
    [(0.9, 4, 1.533206), (0.975, 10, 2.228139), (0.95, 30, 1.697261), (0.995, 2, 9.924843)],
)
def test_it_has_the_values_of_printed_tables(chance: float, freedom: float, value: float) -> None:
    assert quantile(chance, freedom) == pytest.approx(value, abs=2e-6)
    assert quantile(1.0 - chance, freedom) == pytest.approx(-value, abs=2e-6)


@given(st.floats(0.01, 0.99))
def test_with_one_degree_of_freedom_it_is_the_tangent_and_with_very_many_normal(p: float) -> None:
    assert quantile(p, 1.0) == pytest.approx(math.tan(math.pi * (p - 0.5)), rel=1e-5, abs=1e-6)
    assert quantile(p, 5_000.0) == pytest.approx(normal.quantile(p), rel=2e-3, abs=1e-6)


@pytest.mark.parametrize(("chance", "freedom"), [(0.0, 4.0), (1.0, 4.0), (0.5, 0.5)])
def test_outside_it_has_no_value(chance: float, freedom: float) -> None:
    with pytest.raises(ValueError, match="Student"):
        quantile(chance, freedom)
