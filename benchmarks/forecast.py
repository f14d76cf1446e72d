"""A whole forecast from a season of minute readings, against a bare cumulative sum of them.

As a house makes it: the sums are kept with the readings, and the last of them is not of this
very second.
"""

import time
from collections.abc import Iterator

import numpy as np

from benchmarks.report import Ratio, best_s
from sandboa.core.development import (
    DEFAULT_CLOCK,
    Circumstances,
    DevelopmentCurve,
    FinishedClutch,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    forecast,
    learn,
)

_READINGS = 86_400
_FINISHED = 200
#: What learning from them may take at most, of processor time.
_LEARNING_MS = 50.0


def measure() -> Iterator[Ratio]:
    """60 days of minutes: chain, gaps, development, windows of seven events."""
    times = np.arange(_READINGS) * 60.0
    values = 30.0 + 0.3 * np.sin(times / 5000.0)
    series = ReadingSeries(times, values).summed()

    def whole() -> None:
        temperature = box_temperature(
            0.0,
            float(times[-1]) + 20.0,
            [TemperatureSource(Provenance.BOX_PROBE, series)],
            SetPoints((0.0,), (30.0,)),
        )
        forecast(DevelopmentCurve(temperature, DEFAULT_CLOCK), 6)

    bare_s, whole_s = best_s(lambda: np.cumsum(values), whole, repeat=10)
    yield Ratio(
        f"forecast of one clutch from {_READINGS:,} minute readings",
        "numpy.cumsum of them",
        whole_s / bare_s,
        5.0,
        f"{whole_s * 1000:.2f} ms",
    )
    yield from _learning()


def _learning() -> Iterator[Ratio]:
    """Ten years of a large house: 200 clutches in 5 cabinets, of 60 dams."""
    random = np.random.default_rng(1)
    finished = [
        FinishedClutch(
            Circumstances(n % 5, n % 60, 30.0 + n % 5 * 0.5, f"probe {n % 5}", 0.024),
            float(random.normal(0.02, 0.05)),
            0.01,
            6,
            float(random.chisquare(5) / 5),
        )
        for n in range(_FINISHED)
    ]
    started_s = time.process_time()
    for _ in range(5):
        learn(finished)
    ms = (time.process_time() - started_s) / 5.0 * 1000.0
    yield Ratio(
        f"learning from {_FINISHED} finished clutches",
        f"{_LEARNING_MS:.0f} ms of processor",
        ms / _LEARNING_MS,
        1.0,
        f"{ms:.0f} ms",
    )
