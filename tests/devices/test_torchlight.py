"""The drawn inside of an egg: states that a person could tell apart differ, equal ones do not."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from sandboa.devices.simulation.fates import EggFate, life
from sandboa.devices.simulation.torchlight import (
    FRAMES,
    TorchState,
    draw,
    readable,
    sprite,
    state_of,
)

SOUND = TorchState(seed=7, share=0.3, vessels=1.0, reach=0.75)


def lived(seed: int, died: float | None = None) -> EggFate:
    return life(died, np.random.default_rng(seed))


def channels(state: TorchState, frame: int = 0) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    red, green, blue = np.moveaxis(draw(state, frame).astype(float), -1, 0)
    return red, green, blue


def glowing(state: TorchState) -> float:
    """Share of the picture through which light comes."""
    return float(np.mean(channels(state)[0] > 60))


def bloody(state: TorchState) -> float:
    """Share of the picture that is red against the glow: green is taken away, red is not."""
    red, green, _ = channels(state)
    return float(np.mean((red > 45) & (green < 0.36 * red)))


def reach(state: TorchState) -> float:
    """Columns over which blood is seen, as a share of the picture's width."""
    red, green, _ = channels(state)
    columns = np.flatnonzero(((red > 45) & (green < 0.36 * red)).any(axis=0))
    return float(np.ptp(columns)) / red.shape[1]


def yellow(state: TorchState) -> float:
    red, green, _ = channels(state)
    return float(np.mean((red > 60) & (green > 0.7 * red)))


def test_an_egg_with_blood_in_its_vessels_shows_more_of_it_than_one_without() -> None:
    areas = [bloody(replace(SOUND, vessels=full)) for full in (0.0, 0.4, 1.0)]
    assert areas == sorted(areas)
    assert areas[2] > 3 * max(areas[0], 0.002)


def test_vessels_spread_as_the_egg_develops() -> None:
    early, later = (reach(state_of(lived(3), share, 3)) for share in (0.03, 0.3))
    assert later > 2 * early


def test_the_animal_darkens_the_egg_from_below_as_it_grows() -> None:
    egg = lived(5)
    light = [glowing(state_of(egg, share, 5)) for share in (0.2, 0.5, 0.7, 0.95)]
    assert light == sorted(light, reverse=True)
    assert light[-1] < 0.5 * light[0]
    red, *_ = channels(state_of(egg, 0.6, 5))
    upper, lower = red[60:140].mean(), red[170:250].mean()
    assert upper > lower


def test_a_blank_is_yellow_throughout_and_nothing_else_is() -> None:
    blank = TorchState(seed=7, share=0.0, vessels=0.0, reach=0.0, blank=True)
    assert yellow(blank) > 0.3
    for share in (0.02, 0.3, 0.9):
        assert yellow(state_of(lived(9), share, 9)) < 0.02


def test_a_dead_egg_loses_its_vessels_within_days() -> None:
    dead, alive = lived(11, died=0.3), lived(11)
    assert bloody(state_of(dead, 0.42, 11)) < 0.5 * bloody(state_of(alive, 0.42, 11))
    assert glowing(state_of(dead, 0.42, 11)) < glowing(state_of(alive, 0.31, 11))


def test_only_an_animal_that_moves_looks_different_from_moment_to_moment() -> None:
    still = replace(SOUND, share=0.7, body=0.6)
    for state, moves in ((still, False), (replace(still, moves=True), True)):
        changed = np.abs(draw(state, 0).astype(int) - draw(state, 1).astype(int)).max(axis=-1)
        assert (float(np.mean(changed > 40)) > 0.01) is moves


@given(
    seed=st.integers(0, 2**31 - 1),
    share=st.floats(0.0, 1.0),
    vessels=st.floats(0.0, 1.0),
    blank=st.booleans(),
)
@settings(max_examples=12, deadline=None)
def test_equal_states_draw_equal(seed: int, share: float, vessels: float, blank: bool) -> None:
    state = TorchState(seed, share, vessels, reach=share, body=share / 2, blank=blank)
    assert np.array_equal(draw(state, 2), draw(replace(state), 2))
    assert sprite(state) == sprite(replace(state))


def test_a_picture_holds_every_moment_below_one_another() -> None:
    assert draw(SOUND).shape == (300, 360, 3)
    assert FRAMES == 3
    with pytest.raises(StopIteration):
        draw(SOUND, FRAMES)


@pytest.mark.parametrize(
    ("share", "died", "read"),
    [(0.2, None, {"strong"}), (0.95, None, {"unsure", "weak"}), (0.5, 0.35, {"none", "broken"})],
)
def test_a_trained_eye_reads_off_it_what_is_there(
    share: float, died: float | None, read: set[str]
) -> None:
    for seed in range(12):
        fate = replace(lived(seed, died), weak_from_start=False)
        assert readable(state_of(fate, share, seed)) in read
