"""Cells of old records read: days, counts like 7-2, numbers, weights, who is dam and who sire."""

import re
from datetime import UTC, date, datetime
from typing import Final

from sandboa.core.animals import DAM, SIRE
from sandboa.core.clutch_count import ClutchCount, clutch_count, parse_clutch_count
from sandboa.core.errors import NotPlausible
from sandboa.core.laying.origin import BEFORE_RANGE_C
from sandboa.core.units import (
    celsius_from_fahrenheit,
    fahrenheit_from_celsius,
    parse_mass,
    parse_temperature,
    read_number,
)
from sandboa.formats.logger_files.headings import plain
from sandboa.formats.logger_files.times import DateOrder, TimeReader

#: A cell: its text as it stands in the list.
Cell = str

_NOTHING: Final = frozenset({"", "-", "--", "\u2013", "?", "n/a", "na", "none", "unknown", "null"})
_DAMS: Final = (
    "dam female f w weibchen weiblich femelle femmina hembra femea samica samice vrouw femela "
    "hona 0.1 0,1 \u2640 самка"
)
_SIRES: Final = (
    "sire male m mannchen mannlich maschio macho samiec samec man mascul hane 1.0 1,0 \u2642 самец"
)
#: A spreadsheet makes a date of 7-2.
_MADE_A_DATE: Final = re.compile(r"(?:19|20)\d\d-(\d\d)-(\d\d)(?: 00:00:00)?")


def tidy(text: Cell) -> str:
    """A cell without what stands for nothing: "", "-", "?", "unknown"."""
    text = " ".join(text.split())
    return "" if text.casefold() in _NOTHING else text


def read_day(field: str, text: Cell, order: DateOrder | None) -> date:
    """A day as the cell tells it; a time of day beside it is left away.

    NotPlausible at `field` for what is no date.
    """
    try:
        seconds = TimeReader(UTC, order or "dmy").seconds(text)
    except ValueError as error:
        raise NotPlausible(field, f"{error}: write it like 2019-06-12") from error
    return datetime.fromtimestamp(seconds, UTC).date()


def read_count(text: Cell) -> ClutchCount:
    """ "7-2", "7/2" or "7"; and the date a spreadsheet made of it, whose larger part is the eggs.

    Raises NotPlausible at `count`.
    """
    made = _MADE_A_DATE.fullmatch(text)
    slugs, eggs = sorted((int(made[1]), int(made[2]))) if made else (0, 0)
    try:
        return clutch_count(eggs, slugs) if made else parse_clutch_count(text)
    except NotPlausible as error:
        raise NotPlausible("count", error.reason) from error


def read_counted(eggs: Cell, slugs: Cell) -> ClutchCount:
    """Eggs and slugs of two columns; no slugs where nothing is said of them.

    A column of eggs that holds "7-2" is a count. Raises NotPlausible at `count`.
    """
    if not slugs and not eggs.isdigit():
        return read_count(eggs)
    return read_count(f"{whole('count', eggs)}-{whole('count', slugs) if slugs else 0}")


def whole(field: str, text: Cell) -> int:
    """A whole number; NotPlausible at `field` for anything else."""
    if re.fullmatch(r"\d{1,6}(?:[.,]0+)?", text) is None:
        raise NotPlausible(field, f'"{text[:20]}" is not a whole number')
    return int(re.split("[.,]", text)[0])


def read_year(text: Cell, order: DateOrder | None) -> int:
    """The year of hatching, of a year or a date."""
    if re.fullmatch(r"(?:19|20)\d\d", text):
        return int(text)
    return read_day("hatch_year", text, order).year


def read_role(text: Cell) -> str:
    """Whether it is a dam or a sire, in words, as a letter or as 0.1 and 1.0."""
    word = plain(text).rstrip(".")
    if word in _DAMS.split():
        return DAM
    if word in _SIRES.split():
        return SIRE
    raise NotPlausible("role", f'"{text[:20]}" is neither female nor male: write dam or sire')


def read_mass(text: Cell, unit: str) -> float:
    """A weight in g; a number alone is in `unit`: g, kg or oz."""
    bare = re.fullmatch(r"[\d.,' ]+", text) is not None
    try:
        return parse_mass(f"{text} {unit}" if bare else text)
    except NotPlausible as error:
        raise NotPlausible("mass", error.reason) from error


def read_kept(text: Cell) -> float:
    """What eggs were kept at, °C. A number alone is °C or °F, whichever eggs live at: no number
    can be both."""
    if re.fullmatch(r"[\d.,]+", text) is None:
        try:
            return parse_temperature(text)
        except NotPlausible as error:
            raise NotPlausible("kept", error.reason) from error
    value = read_number("kept", text, thousands=False)
    low, high = BEFORE_RANGE_C
    if fahrenheit_from_celsius(low) <= value <= fahrenheit_from_celsius(high):
        return celsius_from_fahrenheit(value)
    return value
