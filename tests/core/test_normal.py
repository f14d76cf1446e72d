"""The standard normal distribution, against the library of statistics."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.special import ndtr, ndtri

from sandboa.core.normal import cdf, cdf_of, quantile
from sandboa.core.units import Z80


@given(st.floats(-37.0, 37.0))
def test_the_chance_below_is_exact_into_both_tails(z: float) -> None:
    assert cdf(z) == pytest.approx(float(ndtr(z)), rel=1e-12)
    assert cdf_of(np.array([z]))[0] == cdf(z)


@given(st.floats(1e-300, 1.0, exclude_max=True))
def test_the_quantile_is_the_librarys(chance: float) -> None:
    assert quantile(chance) == pytest.approx(float(ndtri(chance)), rel=1e-9, abs=1e-12)


def test_ends_and_the_80_percent_band() -> None:
    assert (quantile(0.0), quantile(1.0)) == (-np.inf, np.inf)
    assert pytest.approx(float(ndtri(0.9)), rel=1e-15) == Z80
    with pytest.raises(ValueError, match=r"p must be in the range"):
        quantile(1.5)
