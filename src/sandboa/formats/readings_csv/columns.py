"""Which column is what: by its heading, or by its contents where there is none."""

import re
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass

from sandboa.formats.readings_csv.numbers import number
from sandboa.formats.readings_csv.times import looks_like_time

# Headings are compared as `plain` writes them: small letters without accents. The languages are
# those most spoken in Europe: English, German, French, Italian, Spanish, Portuguese, Polish, Dutch,
# Romanian, Russian, Ukrainian, Czech, Swedish, Hungarian, Greek, Turkish.
_DATE = r"date|datum|fecha|\bdata\b|\bdia\b|\bday\b|\btag\b|jour|giorno|дата|ημερομηνια|tarih"
_CLOCK = (
    r"time\b|uhrzeit|zeit\b|hora\b|heure|\bora\b|orario|godzina|czas\b|tijd\b|\bcas\b|tid\b|klock"
    r"|\bido\b|idopont|время|\bчас\b|ωρα|saat|zaman"
)
_TIME = re.compile(rf"{_DATE}|{_CLOCK}|uhr|stamp|stempel|horodat|logged|recorded|timp\b|tijdstip")
_DATE_ONLY = re.compile(_DATE)
_CLOCK_ONLY = re.compile(rf"^(?:{_CLOCK})")
_TEMPERATURE = re.compile(
    r"temp|celsius|fahrenheit|kelvin|°\s*[cfk]\b|^t$|^t[\s_(]|teplot|темпер|homersekl|θερμοκρ"
    r"|s[iı]cakl"
)
_HUMIDITY = re.compile(
    r"hum|\brh\b|^rh|feucht|%|r\.h\.|umid|humed|wilgot|vocht|влажн|волог|vlhk|fukt|paratart|υγρασ"
    r"|\bnem\b|\b(?:hr|ur|rf|rv|rel)\b"
)
#: Headings that carry the word but not the reading.
_NOT_THE_READING = re.compile(
    r"dew|set|target|min\b|max\b|minim|maxim|alarm|offset|tau|rosee|rugiada|rocio|orvalho|rosy"
    r"|dauw|росы|роси|rosn|dagg|harmat|δροσ"
)


#: A heading of both: "date and time", "Datum/Uhrzeit".
_CLOCK_WITHIN = re.compile(rf"(?:{_CLOCK})")


def plain(heading: str) -> str:
    """A heading as headings are compared: small letters, without accents, ℃ as °C."""
    parted = unicodedata.normalize("NFKD", heading.strip()).casefold()
    return "".join(letter for letter in parted if not unicodedata.combining(letter))


@dataclass(frozen=True, slots=True)
class Columns:
    """Places of the columns, from 0. `clock` is the time of day when the date stands apart."""

    time: int
    temperature: int
    humidity: int | None = None
    clock: int | None = None


def columns_of_heading(cells: Sequence[str]) -> Columns | None:
    """Columns named by a heading row, or None when this is no heading for readings."""
    if any(looks_like_time(cell.strip()) for cell in cells):
        return None
    names = [plain(cell) for cell in cells]
    temperature = _first(names, _TEMPERATURE)
    if temperature is None:
        return None
    humidity = _first(names, _HUMIDITY, taken={temperature})
    times = [
        i
        for i, name in enumerate(names)
        if _TIME.search(name) and not _TEMPERATURE.search(name) and i != humidity
    ]
    if not times:
        return None
    clocks = [i for i in times if _CLOCK_ONLY.search(names[i])]
    dates = [i for i in times if _DATE_ONLY.search(names[i]) and i not in clocks]
    if dates and clocks and not _CLOCK_WITHIN.search(names[dates[0]]):
        return Columns(dates[0], temperature, humidity, clocks[0])
    return Columns(times[0], temperature, humidity)


def columns_of_contents(cells: Sequence[str]) -> Columns | None:
    """Columns guessed from a row of values: the first time, then temperature, then humidity."""
    time = next((i for i, cell in enumerate(cells) if looks_like_time(cell)), None)
    if time is None:
        return None
    numbers = [
        i
        for i, cell in enumerate(cells)
        if i != time and not looks_like_time(cell) and number(cell) is not None
    ]
    plausible = [i for i in numbers if -20.0 <= (number(cells[i]) or 0.0) <= 140.0]
    # A running row number before the time is no temperature.
    after = [i for i in plausible if i > time] or plausible
    if not after:
        return None
    return Columns(time, after[0], after[1] if len(after) > 1 else None)


def _first(
    names: Sequence[str], wanted: re.Pattern[str], taken: set[int] | None = None
) -> int | None:
    found = [
        i
        for i, name in enumerate(names)
        if wanted.search(name) and not _NOT_THE_READING.search(name) and i not in (taken or set())
    ]
    return found[0] if found else None
