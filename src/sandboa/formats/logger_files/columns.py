"""Which column is what: by heading, unit and plausible range together, or as the keeper says."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from itertools import islice
from statistics import median
from typing import Final

from sandboa.formats.logger_files.headings import (
    Named,
    date_and_clock,
    named,
    sensor_name,
    unit_marks,
)
from sandboa.formats.logger_files.numbers import number
from sandboa.formats.logger_files.times import looks_like_time

#: Rows whose values are looked at to tell what a column holds.
LOOKED_AT: Final = 2_000
#: °C and °F beside eggs and in the room around them: what may stand without being asked about.
_LIKELY_C: Final = (5.0, 50.0)
_LIKELY_F: Final = (50.0, 122.0)
#: A column of several sensors' names holds at most so many.
MOST_SENSORS: Final = 64

Row = tuple[int, list[str]]


class ColumnUse(StrEnum):
    """What a column is used for. `SENSOR` names the sensor of each row of a long file."""

    TIME = "time"
    CLOCK = "clock"
    TEMPERATURE = "temperature"
    HUMIDITY = "humidity"
    SENSOR = "sensor"
    UNUSED = "unused"


@dataclass(frozen=True, slots=True)
class SensorColumns:
    """Places, from 0, of what one sensor of a wide file measured; its name by their headings."""

    name: str
    temperature: int
    humidity: int | None = None


@dataclass(frozen=True, slots=True)
class Columns:
    """What each column of a file is used for, from the first on."""

    uses: tuple[ColumnUse, ...]

    def first(self, use: ColumnUse) -> int | None:
        """Place of the first column of a use, from 0."""
        return next((i for i, own in enumerate(self.uses) if own is use), None)

    @property
    def time(self) -> int | None:
        """Place of the date, or of date and time of day together."""
        return self.first(ColumnUse.TIME)

    @property
    def clock(self) -> int | None:
        """Place of the time of day where the date stands apart."""
        return self.first(ColumnUse.CLOCK)

    def sensors(self, heading: Sequence[str]) -> tuple[SensorColumns, ...]:
        """A sensor for each temperature. A humidity is of the sensor with its name, else of the
        temperature before it, else of the first one without."""
        names = {i: sensor_name(cell) for i, cell in enumerate(heading)}
        found = [
            SensorColumns(names.get(i, ""), i)
            for i, use in enumerate(self.uses)
            if use is ColumnUse.TEMPERATURE
        ]
        for place in (i for i, use in enumerate(self.uses) if use is ColumnUse.HUMIDITY):
            free = [own for own in found if own.humidity is None]
            named_so = [own for own in free if own.name == names.get(place, "")]
            before = [own for own in free if own.temperature < place]
            if owner := next(iter(named_so or before[-1:] or free), None):
                at = found.index(owner)
                found[at] = SensorColumns(owner.name, owner.temperature, place)
        return tuple(found)


@dataclass(frozen=True, slots=True)
class Understood:
    """Columns as understood, and what speaks against them: to be asked about, in words."""

    columns: Columns
    doubt: str = ""


def is_heading(cells: Sequence[str]) -> bool:
    """Whether a row names columns of readings: a time, and a temperature or a value."""
    if any(looks_like_time(cell.strip()) for cell in cells):
        return False
    names = [named(cell) for cell in cells]
    if Named.TIME not in names:
        return False
    return Named.TEMPERATURE in names or (Named.VALUE in names and len(names) > 2)


def is_reading(cells: Sequence[str]) -> bool:
    """Whether a row has a time, and a number in another cell."""
    time = next((i for i, cell in enumerate(cells) if looks_like_time(cell)), None)
    return time is not None and any(
        number(cell) is not None
        for i, cell in enumerate(cells)
        if i != time and not looks_like_time(cell)
    )


def columns_of_heading(heading: Sequence[str], body: Sequence[Row]) -> Understood:
    """Columns by their headings, doubted where units or values say something else."""
    time, clock = date_and_clock(list(heading))
    uses = [ColumnUse.UNUSED] * len(heading)
    for place, cell in enumerate(heading):
        what = named(cell)
        if what is Named.TEMPERATURE:
            uses[place] = ColumnUse.TEMPERATURE
        elif what is Named.HUMIDITY:
            uses[place] = ColumnUse.HUMIDITY
        elif what is Named.SENSOR and ColumnUse.SENSOR not in uses and _names_sensors(body, place):
            uses[place] = ColumnUse.SENSOR
    for when, use in ((time, ColumnUse.TIME), (clock, ColumnUse.CLOCK)):
        if when is not None:
            uses[when] = use
    _keep_one_unit(uses, heading)
    doubts = (_doubt(heading, body, place, use, uses) for place, use in enumerate(uses))
    return Understood(Columns(tuple(uses)), next((doubt for doubt in doubts if doubt), ""))


def columns_of_contents(body: Sequence[Row]) -> Understood:
    """Columns of a file without a heading: a suggestion, which is asked about unless the cells
    themselves carry their units."""
    cells = body[0][1]
    uses = [ColumnUse.UNUSED] * len(cells)
    time = next((i for i, cell in enumerate(cells) if looks_like_time(cell)), None)
    if time is not None:
        uses[time] = ColumnUse.TIME
    marked = [i for i, cell in enumerate(cells) if i != time and unit_marks(cell)]
    others = [i for i, cell in enumerate(cells) if i != time and number(cell) is not None]
    likely = [i for i in others if _within(body, i, _LIKELY_C)] or [
        i for i in others if _within(body, i, _LIKELY_F)
    ]
    for place in marked or likely[:1]:
        uses[place] = ColumnUse.TEMPERATURE
    percent = [i for i in others if uses[i] is ColumnUse.UNUSED and "%" in cells[i]]
    rest = [i for i in others if uses[i] is ColumnUse.UNUSED and _within(body, i, (0.0, 100.0))]
    for place in percent or ([] if marked else rest[-1:]):
        uses[place] = ColumnUse.HUMIDITY
    sure = marked and time is not None
    doubt = "" if sure else "The file names no columns: say what each of them is."
    return Understood(Columns(tuple(uses)), doubt)


def values_of(body: Sequence[Row], place: int) -> list[float]:
    """Numbers of a column among the rows looked at."""
    cells = (row[place] for _, row in islice(body, LOOKED_AT) if place < len(row))
    return [value for cell in cells if (value := number(cell)) is not None]


def _within(body: Sequence[Row], place: int, span: tuple[float, float]) -> bool:
    values = values_of(body, place)
    return bool(values) and span[0] <= median(values) <= span[1]


def _names_sensors(body: Sequence[Row], place: int) -> bool:
    cells = [row[place].strip() for _, row in islice(body, LOOKED_AT) if place < len(row)]
    names = {cell for cell in cells if cell}
    return 1 < len(names) <= MOST_SENSORS and 2 * len(names) <= len(cells)


def _keep_one_unit(uses: list[ColumnUse], heading: Sequence[str]) -> None:
    """A sensor told in °C and in °F is one sensor: °C stays."""
    told: dict[str, list[int]] = {}
    for place, use in enumerate(uses):
        if use is ColumnUse.TEMPERATURE and unit_marks(heading[place]):
            told.setdefault(sensor_name(heading[place]).casefold(), []).append(place)
    for places in told.values():
        units = [min(unit_marks(heading[place])) for place in places]
        if len(set(units)) == len(units):
            for place in sorted(places, key=lambda p: min(unit_marks(heading[p])))[1:]:
                uses[place] = ColumnUse.UNUSED


def _doubt(
    heading: Sequence[str],
    body: Sequence[Row],
    place: int,
    use: ColumnUse,
    uses: Sequence[ColumnUse],
) -> str:
    """What a column's unit or values say against its heading; "" for nothing."""
    name = heading[place].strip() or f"column {place + 1}"
    values = values_of(body, place)
    if use in (ColumnUse.TIME, ColumnUse.CLOCK) or not values:
        return ""
    low, high, middle = min(values), max(values), median(values)
    holds = f"“{name}” holds {low:g} to {high:g}"
    if use is ColumnUse.TEMPERATURE:
        marks = unit_marks(name)
        if "%" in name:
            return f"“{name}” is headed a temperature, in %: which is it?"
        if middle < _LIKELY_C[0] and not marks:
            return f"{holds}, which is no temperature beside eggs: is it something else?"
        if not marks and middle > _LIKELY_C[1] and any(_as_celsius(body, uses)):
            return f"{holds}, and another column what could be a temperature: are they swapped?"
    if use is ColumnUse.HUMIDITY:
        if "%" not in name and unit_marks(name):
            return f"“{name}” is headed a humidity, in degrees: which is it?"
        if middle > 100.0 or low < 0.0:
            return f"{holds}, which is no humidity: is it something else?"
    return ""


def _as_celsius(body: Sequence[Row], uses: Sequence[ColumnUse]) -> Iterator[bool]:
    """Of each humidity, whether it never leaves what an incubator's °C may be."""
    for place, use in enumerate(uses):
        values = values_of(body, place) if use is ColumnUse.HUMIDITY else []
        if values:
            yield min(values) >= 15.0 and max(values) <= 45.0
