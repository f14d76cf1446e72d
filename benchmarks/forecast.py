"""A whole forecast from a season of minute readings, against a bare cumulative sum of them."""

from collections.abc import Iterator

import numpy as np

from benchmarks.report import Ratio, best_s
from sandboa.core.development import (
    DEFAULT_CLOCK,
    DevelopmentCurve,
    Provenance,
    ReadingSeries,
    SetPoints,
    TemperatureSource,
    box_temperature,
    forecast,
)

_READINGS = 86_400


def measure() -> Iterator[Ratio]:
    """60 days of minutes: chain, gaps, development, windows of six events."""
    times = np.arange(_READINGS) * 60.0
    values = 30.0 + 0.3 * np.sin(times / 5000.0)
    series = ReadingSeries(times, values)

    def whole() -> None:
        temperature = box_temperature(
            0.0,
            float(times[-1]),
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
