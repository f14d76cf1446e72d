"""The temperature of a box since its eggs were laid, drawn into a PDF."""

import math
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Final

import numpy as np

from sandboa.core.development.box_temperature import BoxTemperature, Stretch
from sandboa.core.development.sources import Provenance
from sandboa.core.units import (
    SECONDS_PER_DAY,
    TemperatureUnit,
    celsius_from_fahrenheit,
    fahrenheit_from_celsius,
)
from sandboa.formats.pdf_paper import INK, RULE, SOFT, font
from sandboa.words import Reader

if TYPE_CHECKING:
    from fpdf import FPDF

Frame = tuple[float, float, float, float]
#: Columns the curve is drawn with, each from its lowest to its highest sample.
_COLUMNS: Final = 480
#: Degrees between lines across, and days between marks, of which the first is taken that makes at
#: most so many of them.
_STEPS: Final = (0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0)
_MOST_LINES: Final = 6
_DAYS: Final = (1, 5, 10, 20, 50, 100)
_MOST_DAYS: Final = 14
_CELSIUS: Final = TemperatureUnit.CELSIUS
_LEFT: Final = 15.0
_BELOW: Final = 6.0


def lowest_and_highest(temperature: BoxTemperature) -> tuple[float, float] | None:
    """°C read at the box, by a probe or by hand; None where nothing was."""
    read = [stretch.temperature_c for stretch in temperature.stretches if _was_read(stretch)]
    if not read:
        return None
    return float(min(map(np.min, read))), float(max(map(np.max, read)))


def _was_read(stretch: Stretch) -> bool:
    return stretch.measured or stretch.provenance is Provenance.BY_HAND


def draw_warmth(
    pdf: "FPDF", temperature: BoxTemperature, pips_s: Sequence[float], frame: Frame, reader: Reader
) -> None:
    """Draw it into a frame (x, y, width, height in mm), with lines of whole degrees and of days."""
    chart = _Chart(temperature, frame)
    pdf.set_line_width(0.15)
    font(pdf, 2.8, shade=SOFT)
    for value in chart.lines(reader.unit):
        y = chart.y(value if reader.unit is _CELSIUS else celsius_from_fahrenheit(value))
        pdf.set_draw_color(RULE)
        pdf.line(chart.left, y, chart.right, y)
        pdf.set_xy(frame[0], y - 1.8)
        pdf.cell(w=_LEFT - 2, h=3.6, text=f"{value:g}\u00a0°{reader.unit}", align="R")
    for day, x in chart.days():
        pdf.line(x, chart.bottom, x, chart.bottom + 1.2)
        pdf.set_xy(x - 6, chart.bottom + 1.4)
        pdf.cell(w=12, h=3.6, text=str(day), align="C")
    for stretch in temperature.stretches:
        pdf.set_draw_color(INK if _was_read(stretch) else RULE)
        pdf.set_line_width(0.25)
        pdf.polyline(list(chart.points(stretch)))
    pdf.set_fill_color(INK)
    for at_s in pips_s:
        x = chart.x(at_s)
        pdf.polygon(
            [(x, chart.bottom - 2.4), (x - 1.1, chart.bottom), (x + 1.1, chart.bottom)], style="F"
        )


class _Chart:
    """Where moments and degrees lie on the page."""

    def __init__(self, temperature: BoxTemperature, frame: Frame) -> None:
        x, y, width, height = frame
        self.left, self.right = x + _LEFT, x + width
        self.top, self.bottom = y, y + height - _BELOW
        self._from_s, self._until_s = (
            temperature.start_s,
            max(temperature.as_of_s, temperature.start_s + SECONDS_PER_DAY),
        )
        values = [stretch.temperature_c for stretch in temperature.stretches]
        low, high = float(min(map(np.min, values))), float(max(map(np.max, values)))
        self._low, self._high = low - 0.3, high + 0.3

    def x(self, at_s: float) -> float:
        share = (at_s - self._from_s) / (self._until_s - self._from_s)
        return self.left + min(max(share, 0.0), 1.0) * (self.right - self.left)

    def y(self, at_c: float) -> float:
        return self.bottom - (at_c - self._low) / (self._high - self._low) * (
            self.bottom - self.top
        )

    def lines(self, unit: TemperatureUnit) -> Iterator[float]:
        """Degrees of the lines across, round ones in the reader's unit."""
        low, high = self._low, self._high
        if unit is not _CELSIUS:
            low, high = fahrenheit_from_celsius(low), fahrenheit_from_celsius(high)
        step = _step(high - low, _STEPS, _MOST_LINES)
        for count in range(math.ceil(low / step), math.floor(high / step) + 1):
            yield count * step

    def days(self) -> Iterator[tuple[int, float]]:
        whole = int((self._until_s - self._from_s) // SECONDS_PER_DAY)
        for day in range(0, whole + 1, int(_step(whole, _DAYS, _MOST_DAYS))):
            yield day, self.x(self._from_s + day * SECONDS_PER_DAY)

    def points(self, stretch: Stretch) -> Iterator[tuple[float, float]]:
        """The curve of a stretch: in each column its lowest and its highest, in order of time."""
        times, values = stretch.times_s, stretch.temperature_c
        edges = np.linspace(self._from_s, self._until_s, _COLUMNS + 1)
        columns = np.clip(np.searchsorted(edges, times, side="right") - 1, 0, _COLUMNS - 1)
        starts = np.flatnonzero(np.diff(columns, prepend=-1))
        for start, end in zip(starts, [*starts[1:], len(times)], strict=True):
            for at in sorted(
                {int(start + values[start:end].argmin()), int(start + values[start:end].argmax())}
            ):
                yield self.x(float(times[at])), self.y(float(values[at]))
        yield self.x(float(times[-1])), self.y(float(values[-1]))


def _step(span: float, steps: Sequence[float], most: int) -> float:
    """The smallest step that cuts a span into at most so many pieces; else the largest."""
    return next((one for one in steps if span / one <= most), steps[-1])
