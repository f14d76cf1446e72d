"""A logger's file as understood: its sensors, what was asked, what could not be read."""

from dataclasses import dataclass, field
from datetime import tzinfo

from sandboa.formats.logger_files.columns import Columns, SensorColumns
from sandboa.formats.logger_files.errors import NotReadable
from sandboa.formats.logger_files.times import DateOrder
from sandboa.formats.logger_files.units import HumidityUnit, Unit
from sandboa.records.readings import ReadingRow


@dataclass(frozen=True, slots=True)
class Choices:
    """What the keeper has decided; None is left to the file."""

    zone: str | tzinfo | None = None
    order: DateOrder | None = None
    unit: Unit | None = None
    columns: Columns | None = None
    sheet: str | None = None


@dataclass(frozen=True, slots=True)
class BadRow:
    """A row, or one cell of it, that cannot be read."""

    line: int
    reason: str


@dataclass(frozen=True, slots=True)
class Question:
    """Something the file leaves open. `about` is "zone", "order", "unit", "columns" or "sheet"."""

    about: str
    text: str


@dataclass(frozen=True)
class Sensor:
    """What one sensor of a file measured; `rows` in the order of the file.

    `name` is what the file calls it, "" where it is the only one and has none; `columns` where its
    values stand.
    """

    name: str
    columns: SensorColumns
    unit: Unit
    humidity_unit: HumidityUnit | None
    rows: list[ReadingRow] = field(repr=False, default_factory=list)


@dataclass(frozen=True)
class LoggerFile:
    """A file as understood. With questions open, no sensor has rows: nothing is guessed.

    `sample` are cells of the first rows, as they are written; `sheets` names those of a spreadsheet
    that hold readings.
    """

    heading: tuple[str, ...]
    columns: Columns
    sample: tuple[tuple[str, ...], ...]
    written: str
    order: DateOrder | None
    times_have_offset: bool
    sensors: tuple[Sensor, ...]
    bad_rows: list[BadRow] = field(repr=False)
    questions: tuple[Question, ...] = ()
    sheet: str = ""
    sheets: tuple[str, ...] = ()

    def require_no_questions(self) -> None:
        """Raise NotReadable when the file leaves anything to be asked."""
        if self.questions:
            raise NotReadable(self.questions[0].text)

    @property
    def only_sensor(self) -> Sensor:
        """The sensor of a file of one; NotReadable where there are several."""
        if len(self.sensors) > 1:
            names = ", ".join(f"“{sensor.name}”" for sensor in self.sensors)
            raise NotReadable(f"the file is of {len(self.sensors)} sensors: {names}")
        return self.sensors[0]

    @property
    def rows(self) -> list[ReadingRow]:
        """Readings of a file of one sensor."""
        return self.only_sensor.rows
