"""The simulated logger writes what a real one could, and knows nothing of forecasts."""

import ast
from pathlib import Path

import numpy as np
import pytest

from sandboa.devices import simulated_logger
from sandboa.devices.simulated_logger import SimulatedLogger, Spell

DAY = 86_400.0


def columns(rows: list) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    times, temperatures, humidities = zip(*rows, strict=True)
    return np.array(times), np.array(temperatures), np.array(humidities)


def test_it_holds_its_temperature_in_steps_of_its_sensor() -> None:
    rows = SimulatedLogger(31.5, offset_c=-0.3).rows(0, 7 * DAY, 600, seed=1)
    times, temperatures, humidities = columns(rows)
    assert len(rows) == 7 * 144
    assert np.all(np.diff(times) == 600)
    assert temperatures.mean() == pytest.approx(31.2, abs=0.05)
    assert temperatures.std() < 0.3
    assert np.allclose(temperatures * 10, np.round(temperatures * 10))
    assert np.all((humidities >= 0) & (humidities <= 1))


def test_the_same_seed_writes_the_same_log() -> None:
    logger = SimulatedLogger(31.5)
    assert logger.rows(0, DAY, 600, seed=3) == logger.rows(0, DAY, 600, seed=3)
    assert logger.rows(0, DAY, 600, seed=3) != logger.rows(0, DAY, 600, seed=4)


def test_a_stopped_fan_cools_slowly_and_recovers() -> None:
    spell = Spell(2 * DAY, 4 * DAY, 24.0)
    times, temperatures, _ = columns(
        SimulatedLogger(31.5, spells=(spell,)).rows(0, 6 * DAY, 600, seed=5)
    )
    at = lambda day: temperatures[np.searchsorted(times, day * DAY)]
    assert at(1.9) == pytest.approx(31.5, abs=0.5)
    assert 25.0 < at(2.05) < 31.0
    assert at(3.9) == pytest.approx(24.0, abs=0.5)
    assert at(5.5) == pytest.approx(31.5, abs=0.5)


def test_a_flat_battery_leaves_a_gap() -> None:
    times, _, _ = columns(
        SimulatedLogger(31.5).rows(0, 4 * DAY, 600, 6, silent=(Spell(DAY, 2 * DAY, 0),))
    )
    assert not np.any((times >= DAY) & (times <= 2 * DAY))
    assert np.diff(times).max() == pytest.approx(DAY, abs=1200)


def test_it_does_not_import_what_it_is_used_to_test() -> None:
    tree = ast.parse(Path(simulated_logger.__file__).read_text())
    imported = {
        node.module or "" for node in ast.walk(tree) if isinstance(node, ast.ImportFrom)
    } | {
        alias.name
        for node in ast.walk(tree)
        if isinstance(node, ast.Import)
        for alias in node.names
    }
    assert not any(name.startswith("sandboa") for name in imported)
