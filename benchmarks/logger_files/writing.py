"""Cells and files as loggers write them: what every style is made of."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from benchmarks.logger_files.truth import MEASURED, Measured
from sandboa.formats.logger_files import ColumnUse

Cell = Callable[[Measured], Any]


@dataclass(frozen=True, slots=True)
class Style:
    """One way to write what was measured.

    `sensors` are those in it, in order: "upper" or "lower", with " dry" behind where it tells no
    humidity. `asks` is what must be asked about, `columns` what a keeper then answers. `sheet` is
    the one chosen where it is asked.
    """

    name: str
    data: bytes
    sensors: tuple[str, ...]
    asks: tuple[str, ...] = ()
    columns: tuple[ColumnUse, ...] = ()
    sheet: str | None = None


def stamp(pattern: str) -> Cell:
    """The moment by the logger's clock."""
    return lambda m: m.local.strftime(pattern)


def number(value: Callable[[Measured], float], digits: int = 1, mark: str = ".") -> Cell:
    """A value with so many digits, and a point or a comma."""
    return lambda m: f"{value(m):.{digits}f}".replace(".", mark)


def fahrenheit(value: Callable[[Measured], float]) -> Callable[[Measured], float]:
    """°C as °F."""
    return lambda m: value(m) * 9.0 / 5.0 + 32.0


def kelvin(value: Callable[[Measured], float]) -> Callable[[Measured], float]:
    """°C as K."""
    return lambda m: value(m) + 273.15


def upper_c(m: Measured) -> float:
    """°C of the upper shelf."""
    return m.upper_c


def upper_rh(m: Measured) -> float:
    """% of the upper shelf."""
    return m.upper_rh


def lower_c(m: Measured) -> float:
    """°C of the lower shelf."""
    return m.lower_c


def lower_rh(m: Measured) -> float:
    """% of the lower shelf."""
    return m.lower_rh


ISO: Final = stamp("%Y-%m-%d %H:%M:%S")
C, RH = number(upper_c), number(upper_rh)
C_COMMA, RH_COMMA = number(upper_c, 2, ","), number(upper_rh, 1, ",")
LOW_C, LOW_RH = number(lower_c), number(lower_rh)


def written(
    heading: str,
    cells: Sequence[Cell],
    *,
    delimiter: str = ",",
    before: str = "",
    encoding: str = "utf-8",
    quoted: bool = False,
) -> bytes:
    """A text file: a preamble, a heading (none where empty), a row for each moment."""
    mark = '"' if quoted else ""
    lines = [delimiter.join(f"{mark}{cell(m)}{mark}" for cell in cells) for m in MEASURED]
    head = [heading] if heading else []
    return (before + "\r\n".join([*head, *lines]) + "\r\n").encode(encoding)


def serial(m: Measured) -> float:
    """The moment as spreadsheets count it."""
    since = m.local.replace(tzinfo=None) - datetime(1899, 12, 30)
    return since.total_seconds() / 86_400.0
