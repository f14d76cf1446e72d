"""A7: what the others taught, told from what all taught: as if learned without that clutch."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.core.development import Circumstances, FinishedClutch, learn


def house(seed: int, clutches: int) -> list[FinishedClutch]:
    """Clutches of a house in which cabinets and dams differ, one of them dated wrong."""
    rng = np.random.default_rng(seed)
    cabinets, dams = rng.normal(0.0, 0.02, 3), rng.normal(0.0, 0.02, 6)
    found = []
    for n in range(clutches):
        cabinet, dam = int(rng.integers(3)), int(rng.integers(6))
        mean_c = float(rng.normal(31.3, 0.4))
        probe = f"probe {cabinet}" if rng.random() < 0.7 else None
        log = 0.02 + cabinets[cabinet] + dams[dam] + rng.normal(0.0, 0.035)
        where = Circumstances(cabinet, dam, mean_c, probe, 0.025 if probe else 0.0)
        found.append(
            FinishedClutch(
                where, log + 0.3 * (n == 2), 0.01, int(rng.integers(3, 9)), rng.gamma(2.0, 0.5)
            )
        )
    return found


@pytest.mark.parametrize("clutches", [2, 3, 29])
def test_of_few_it_is_learned_from_the_others_alone(clutches: int) -> None:
    finished = house(4, clutches)
    without = learn(finished).without(finished[1])
    for where in (one.where for one in finished):
        assert without.expect(where) == learn([finished[0], *finished[2:]]).expect(where)


@settings(max_examples=15, deadline=None)
@given(st.integers(0, 10_000), st.integers(30, 60))
def test_of_many_it_is_nearly_as_if_learned_from_the_others(seed: int, clutches: int) -> None:
    finished = house(seed, clutches)
    known = learn(finished)
    for row in {0, 1, min(2, clutches - 1), clutches - 1}:
        others = [*finished[:row], *finished[row + 1 :]]
        told = known.without(finished[row]).expect(finished[row].where)
        anew = learn(others).expect(finished[row].where)
        assert abs(told.prior.mean - anew.prior.mean) < 0.15 * anew.prior.sd, row
        assert told.prior.sd == pytest.approx(anew.prior.sd, rel=0.05)
        assert told.prior.egg_sd_days == anew.prior.egg_sd_days
        assert (told.clutches, told.in_cabinet) == (anew.clutches, anew.in_cabinet)
        assert told.dam.clutches == anew.dam.clutches


def test_a_clutch_that_is_not_among_them_takes_nothing_away() -> None:
    finished = house(1, 8)
    known = learn(finished[1:])
    assert known.without(finished[0]) is known


def test_without_the_only_one_nothing_was_learned() -> None:
    (alone,) = house(1, 1)
    without = learn([alone]).without(alone)
    assert without.expect(alone.where) == learn([]).expect(alone.where)


def test_its_own_surprise_is_not_told_back_to_it() -> None:
    """Of one that came far out: with itself it is expected later, without it as the others."""
    finished = [*house(3, 40), FinishedClutch(Circumstances(0, 99, 31.3), 0.25, 0.01, 6)]
    known = learn(finished)
    with_it = known.expect(finished[-1].where).prior.mean
    without = known.without(finished[-1]).expect(finished[-1].where).prior.mean
    anew = learn(finished[:-1]).expect(finished[-1].where).prior.mean
    assert with_it > without + 0.005
    assert without == pytest.approx(anew, abs=0.005)
