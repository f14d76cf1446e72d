"""What a heading says of its column: in the languages most spoken in Europe."""

import re
import unicodedata
from enum import StrEnum
from typing import Final

# Headings are compared as `plain` writes them: small letters without accents. The languages are
# English, German, French, Italian, Spanish, Portuguese, Polish, Dutch, Romanian, Russian,
# Ukrainian, Czech, Swedish, Hungarian, Greek, Turkish.
_DATE = r"date|datum|fecha|\bdata\b|\bdia\b|\bday\b|\btag\b|jour|giorno|дата|ημερομηνια|tarih"
_CLOCK = (
    r"time\b|uhrzeit|zeit\b|hora\b|heure|\bora\b|orario|godzina|czas\b|tijd\b|\bcas\b|tid\b|klock"
    r"|\bido\b|idopont|время|\bчас\b|ωρα|saat|zaman"
)
_TIME = re.compile(
    rf"{_DATE}|{_CLOCK}|uhr|stamp|stempel|horodat|logged|recorded|timp\b|tijdstip|last_changed"
    r"|\bts\b|epoch|unix|\btempo\b|\btemps\b"
)
_DATE_ONLY = re.compile(_DATE)
_CLOCK_ONLY = re.compile(rf"^(?:{_CLOCK})")
#: A heading of both: "date and time", "Datum/Uhrzeit".
_CLOCK_WITHIN = re.compile(rf"(?:{_CLOCK})")
# "Tempo" and "temps" are time, and a "Zeitstempel" is no temperature.
_TEMPERATURE_WORD: Final = (
    r"(?<!zeits)temp(?!o\b|s\b)\w*|teplot\w*|темпер\w*|homersekl\w*|θερμοκρ\w*"
    r"|s[iı]cakl\w*|celsius|fahrenheit|kelvin"
)
_TEMPERATURE = re.compile(rf"{_TEMPERATURE_WORD}|°\s*[cfk]\b|^t$|^t[\s_(\[-]?\d|\bt\d*$|^t[\s_(\[]")
_HUMIDITY_WORD: Final = (
    r"hum\w*|\w*feucht\w*|umid\w*|humed\w*|wilgot\w*|\w*vocht\w*|\w*влажн\w*|\w*волог\w*|vlhk\w*"
    r"|\w*fukt\w*|\w*paratart\w*|\w*υγρασ\w*|moisture"
)
_HUMIDITY = re.compile(
    rf"{_HUMIDITY_WORD}|\brh\b|^rh|%|r\.h\.|\bnem\b|\b(?:hr|ur|rf|rv|rel)\b|^h[\s_(\[-]?\d|\bh\d*$"
)
#: Headings that carry the word but not the reading, or another quantity.
_ANOTHER = re.compile(
    r"dew|set.?p|setp|\bset\b|target|\bsoll|consigne|min\b|max\b|minim|maxim|alarm|offset|limit"
    r"|tau|rosee|rugiada|rocio|orvalho|rosy|dauw|росы|роси|rosn|dagg|harmat|δροσ"
    r"|batt|akku|\bpil\b|volt|signal|rssi|\bcharge|\blevel|press|druck|hpa|mbar|co2|lux|light"
    r"|vpd|kpa|\babs|g/m|enthalp|heat.?index|feels|wet.?bulb|cpu|chip|elaps|durat|dauer"
)
_SENSOR = re.compile(
    r"sensor|device|channel|kanal|canal\b|canale|kanaal|\bprobe|sonda|sonde|fuhler|logger|station"
    r"|senzor|cidlo|czujnik|датчик|givare|entity|\bname\b|\bnom\b|\bnome\b|location|\bort\b"
)
_QUANTITY = re.compile(
    r"quantit|measure|parameter|variable|metric|messgr|grandeur|\btype\b|\btyp\b"
)
_VALUE = re.compile(r"^(?:value|wert|valeur|valore|valor|wartosc|waarde|значение|state|reading)\b")
#: A unit standing by itself in a heading or behind a value: "(C)", "temp_f", "88.7 °F".
_UNIT_MARK: Final = re.compile(
    r"(?:^|[\s(\[_°º\d])(c|f|k|celsius|fahrenheit|kelvin)(?=$|[\s)\]_,.])", re.IGNORECASE
)
#: "Date Time, GMT+02:00", "time (UTC)", "timestamp_utc".
_OFFSET = re.compile(
    r"(?:^|[\s(\[_,])(?:gmt|utc)\s*(?:([+-]\d{1,2})(?::?(\d{2}))?)?(?=$|[\s)\]_,])"
)


#: Letters of a heading that are looked at: patterns take long over a megabyte of them.
_LONGEST: Final = 200


class Named(StrEnum):
    """What a heading names."""

    TEMPERATURE = "temperature"
    HUMIDITY = "humidity"
    TIME = "time"
    SENSOR = "sensor"
    QUANTITY = "quantity"
    VALUE = "value"
    ANOTHER = "another"


def plain(heading: str) -> str:
    """A heading as headings are compared: small letters, without accents, ℃ as °C; its beginning,
    where it is as long as no heading."""
    parted = unicodedata.normalize("NFKD", heading.strip()[:_LONGEST]).casefold()
    return "".join(letter for letter in parted if not unicodedata.combining(letter))


def named(heading: str) -> Named | None:
    """What a heading names; None for nothing known here."""
    name = plain(heading)
    if _ANOTHER.search(name):
        return Named.ANOTHER
    # "Zeit" is in no temperature, but "T" is in many times.
    if _TEMPERATURE.search(name) and not _CLOCK_ONLY.search(name):
        return Named.TEMPERATURE
    if _HUMIDITY.search(name):
        return Named.HUMIDITY
    for wanted, what in (
        (_TIME, Named.TIME), (_VALUE, Named.VALUE), (_QUANTITY, Named.QUANTITY),
        (_SENSOR, Named.SENSOR),
    ):  # fmt: skip
        if wanted.search(name):
            return what
    return None


def date_and_clock(headings: list[str]) -> tuple[int | None, int | None]:
    """The columns of the time and, where the date stands apart, of the clock."""
    names = {i: plain(h) for i, h in enumerate(headings) if named(h) is Named.TIME}
    clocks = [i for i, name in names.items() if _CLOCK_ONLY.search(name)]
    dates = [i for i, name in names.items() if _DATE_ONLY.search(name) and i not in clocks]
    if dates and clocks and not _CLOCK_WITHIN.search(names[dates[0]]):
        return dates[0], clocks[0]
    return next(iter(names), None), None


def unit_marks(text: str) -> set[str]:
    """Units of temperature that stand in a heading or a cell: of "c", "f" and "k"."""
    return {mark.lower()[0] for mark in _UNIT_MARK.findall(unicodedata.normalize("NFKC", text))}


def offset_hours(heading: str) -> float | None:
    """Hours the clock of a column runs ahead of UTC, where its heading says so."""
    found = _OFFSET.search(plain(heading))
    if found is None:
        return None
    hours = float(found[1] or 0.0)
    return hours + (-1.0 if hours < 0 else 1.0) * float(found[2] or 0.0) / 60.0


_NO_NAME = re.compile(
    rf"[(\[].*?[)\]]|{_TEMPERATURE_WORD}|{_HUMIDITY_WORD}|\brel\w*|\brh(?=\d|\b|_)|°\s*[cfk]?|%"
    r"|\b[th](?=\d|$|[\s_-])|\bair\b|(?<=[_\s])[cfk]$|\bnem\b|\breading\b|\bvalue\b"
)


def sensor_name(heading: str) -> str:
    """What is left of a heading without its quantity and its unit: "Sensor 1", "2", ""."""
    written = unicodedata.normalize("NFKC", heading[:_LONGEST])
    left = _NO_NAME.sub(" ", written.casefold()).translate(str.maketrans("_-/,;:.|", " " * 8))
    words = left.split()
    # As it is written, where it stands there in one piece.
    at = written.casefold().find(" ".join(words))
    return written[at : at + len(" ".join(words))] if words and at >= 0 else " ".join(words)
