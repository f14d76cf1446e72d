"""Read every style back and say what became of it."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

from benchmarks.logger_files.styles import styles
from benchmarks.logger_files.truth import MEASURED, ZONE
from benchmarks.logger_files.writing import Style
from sandboa.formats.logger_files import Choices, Columns, LoggerFile, read_logger_file

#: Half of the last digit that any style writes: of °C by way of °F, and of humidity.
_OFF_C: Final = 0.051
_OFF_HUMIDITY: Final = 0.0051


@dataclass(frozen=True, slots=True)
class Outcome:
    """What became of a file: what was asked about it, and whether the readings were right."""

    style: Style
    asked: tuple[str, ...]
    right: bool

    @property
    def words(self) -> str:
        """ "right", "asked: order; then right", or that it was wrong."""
        told = "right" if self.right else "WRONG"
        return f"asked: {', '.join(self.asked)}; then {told}" if self.asked else told


def outcomes() -> list[Outcome]:
    """Of every style; the keeper answers what is asked, knowing which clock the logger showed."""
    return [_outcome(style) for style in styles()]


def _outcome(style: Style) -> Outcome:
    choices = Choices()
    file = read_logger_file(style.data, choices)
    asked = tuple(question.about for question in file.questions)
    silent = not any(sensor.rows for sensor in file.sensors)
    # An answer may lead to the next question.
    for _ in range(3):
        if not file.questions:
            break
        choices = _answered(choices, style, file)
        file = read_logger_file(style.data, choices)
        asked += tuple(q.about for q in file.questions if q.about not in asked)
    return Outcome(style, asked, _is_right(style, file) and (silent or not asked))


def _answered(choices: Choices, style: Style, file: LoggerFile) -> Choices:
    for question in file.questions:
        match question.about:
            case "order":
                month_first = "%m/%d" in style.name or "AM and PM" in style.name
                choices = replace(choices, order="mdy" if month_first else "dmy")
            case "zone":
                choices = replace(choices, zone=ZONE)
            case "unit":
                choices = replace(choices, unit="f")
            case "columns":
                choices = replace(choices, columns=Columns(style.columns))
            case "sheet":
                choices = replace(choices, sheet=style.sheet)
    return choices


def _is_right(style: Style, file: LoggerFile) -> bool:
    if file.questions or file.bad_rows or len(file.sensors) != len(style.sensors):
        return False
    return all(
        _same(sensor.rows, _expected(name))
        for sensor, name in zip(file.sensors, style.sensors, strict=True)
    )


def _expected(name: str) -> list[tuple[int, float, float | None]]:
    dry = name.endswith("dry")
    upper = name.startswith("upper")
    return [
        (
            int(m.at.timestamp()),
            m.upper_c if upper else m.lower_c,
            None if dry else (m.upper_rh if upper else m.lower_rh) / 100.0,
        )
        for m in MEASURED
    ]


def _same(
    rows: Sequence[tuple[int, float, float | None]],
    expected: Sequence[tuple[int, float, float | None]],
) -> bool:
    if len(rows) != len(expected):
        return False
    for (at_s, warmth_c, humidity), (when_s, really_c, really) in zip(rows, expected, strict=True):
        if at_s != when_s or abs(warmth_c - really_c) > _OFF_C:
            return False
        if (humidity is None) != (really is None):
            return False
        if humidity is not None and really is not None and abs(humidity - really) > _OFF_HUMIDITY:
            return False
    return True


def report() -> str:
    """A line for each style, and how many there are of each outcome."""
    told = outcomes()
    widest = max(len(one.style.name) for one in told)
    counted = Counter(one.asked if one.right else None for one in told)
    at_once, by_zone, wrong = counted[()], counted["zone",], counted[None]
    return "\n".join(
        [
            f"{len(told)} styles: {at_once} understood at once, {by_zone} once the logger's zone "
            f"was named, {len(told) - at_once - by_zone - wrong} after another question, "
            f"{wrong} wrong",
            *(f"  {one.style.name:<{widest}}  {one.words}" for one in told),
        ]
    )
