"""Times as loggers write them.

The forms are listed, not guessed by a lenient parser: a parser that always
finds some date is how a March reading ends up in December.
"""

import re
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta, tzinfo
from typing import Final, Literal

from sandboa.formats.logger_files.months import month_named

DateOrder = Literal["dmy", "mdy"]

_CLOCK = (
    r"(?P<h>\d{1,2})[:.h](?P<mi>\d{2})(?:[:.](?P<s>\d{2})(?:[.,]\d+)?)?\s*"
    r"(?P<ap>[AaPp]\.?\s?[Mm]\.?)?"
)
_NUMERIC = re.compile(
    rf"(?P<a>\d{{1,2}})[./-](?P<b>\d{{1,2}})[./-](?P<y>\d{{4}}|\d{{2}})(?:[\sT,]+{_CLOCK})?"
)
_NAMED = re.compile(
    rf"(?P<a>\d{{1,2}})[.\s-]+(?:de\s+)?(?P<m>[^\W\d_]{{3,12}})[.,\s-]+(?:de\s+)?(?P<y>\d{{4}})(?:[\sT,]+{_CLOCK})?"
)
_MONTH_FIRST = re.compile(
    rf"(?P<m>[^\W\d_]{{3,12}})\.?\s+(?P<a>\d{{1,2}}),?\s+(?P<y>\d{{4}})(?:[\sT,]+{_CLOCK})?"
)
_YEAR_FIRST = re.compile(r"\d{4}[-/.]\d{1,2}[-/.]\d{1,2}(?:[ T,]+[\d:.,+ ZzAaPpMm-]*)?")
_EPOCH = re.compile(r"1\d{9}(?:\d{3})?(?:\.\d+)?")
#: Days since the end of 1899, as spreadsheets count them, of this century; a date and a clock that
#: stood apart may be two such numbers.
_SERIAL = re.compile(r"(?P<days>\d{5}(?:[.,]\d+)?)(?:\s+(?P<part>0[.,]\d+))?")
_SERIAL_SPAN: Final = (36_526.0, 73_051.0)
_SERIAL_FROM: Final = datetime(1899, 12, 30)


def looks_like_time(text: str) -> bool:
    """Whether a cell holds a date (with or without time of day) in a form known here."""
    text = text.strip()
    forms = (_NUMERIC, _NAMED, _MONTH_FIRST, _YEAR_FIRST, _EPOCH)
    return any(form.fullmatch(text) for form in forms) or _serial_days(text) is not None


def date_order(texts: Iterable[str]) -> tuple[DateOrder | None, bool]:
    """Day-month order that the dates of a whole file prove.

    Returns (order, needed): `needed` says whether any date depends on it; the
    order is None when nothing proves it, or when dates contradict each other.
    """
    needed = day_first = month_first = False
    for text in texts:
        match = _NUMERIC.fullmatch(text.strip())
        if match:
            needed = True
            day_first = day_first or int(match["a"]) > 12
            month_first = month_first or int(match["b"]) > 12
    if day_first == month_first:
        return None, needed
    return ("dmy" if day_first else "mdy"), needed


@dataclass
class TimeReader:
    """Turns cells into seconds since 1970 UTC, row by row in file order.

    `zone` is used for times without an offset. The hour that a clock shows
    twice in autumn is told apart by the order of the rows; an hour that a
    clock skips in spring is refused.
    """

    zone: tzinfo | None
    order: DateOrder | None
    _last_s: float = float("-inf")

    def seconds(self, text: str) -> int:
        """Raises ValueError with a reason in words when the cell cannot be read."""
        moment = self._moment(text.strip())
        if moment.tzinfo is not None:
            return int(moment.timestamp())
        if self.zone is None:
            raise ValueError("the time zone is not known")
        return self._localised(moment, text)

    def _localised(self, moment: datetime, text: str) -> int:
        at_s = moment.replace(tzinfo=self.zone).timestamp()
        later_s = moment.replace(tzinfo=self.zone, fold=1).timestamp()
        if later_s != at_s:
            if later_s < at_s:
                raise ValueError(f'"{text.strip()}" does not exist: clocks went forward over it')
            if at_s <= self._last_s:
                at_s = later_s
        self._last_s = at_s
        return int(at_s)

    def _moment(self, text: str) -> datetime:
        if _EPOCH.fullmatch(text):
            value = float(text)
            return datetime.fromtimestamp(value / 1000 if value > 1e11 else value, UTC)
        if (days := _serial_days(text)) is not None:
            # Sixteenths of a second are lost in such a number: whole ones are what was meant.
            return _SERIAL_FROM + timedelta(seconds=round(days * 86_400.0))
        try:
            if _YEAR_FIRST.fullmatch(text):
                return _year_first(text)
            if match := _NUMERIC.fullmatch(text):
                first, second = int(match["a"]), int(match["b"])
                day, month = (second, first) if self.order == "mdy" else (first, second)
                return _combined(match, day, month)
            if match := _NAMED.fullmatch(text) or _MONTH_FIRST.fullmatch(text):
                return _combined(match, int(match["a"]), month_named(match["m"]))
        except ValueError as error:
            raise ValueError(f'"{text[:40]}" is not a date') from error
        raise ValueError(f'"{text[:40]}" is not a time' if text else "the time is missing")


def _serial_days(text: str) -> float | None:
    match = _SERIAL.fullmatch(text)
    if match is None:
        return None
    days = float(match["days"].replace(",", ".")) + float((match["part"] or "0").replace(",", "."))
    return days if _SERIAL_SPAN[0] <= days < _SERIAL_SPAN[1] else None


def _year_first(text: str) -> datetime:
    try:
        return datetime.fromisoformat(text)
    except ValueError:
        date, _, clock = text.replace("T", " ").partition(" ")
        year, month, day = (int(part) for part in re.split(r"[-/.]", date))
        plain = f"{year:04d}-{month:02d}-{day:02d}"
        clock = clock.strip()
        match = re.fullmatch(_CLOCK + r"\s*(?P<zone>Z|[+-]\d{2}:?\d{2})?", clock)
        if not clock:
            return datetime.fromisoformat(plain)
        if match is None:
            raise
        moment = datetime.fromisoformat(plain) + _time_of_day(match)
        return (
            datetime.fromisoformat(moment.isoformat() + match["zone"]) if match["zone"] else moment
        )


def _combined(match: re.Match[str], day: int, month: int) -> datetime:
    year = int(match["y"])
    return datetime(year + 2000 if year < 100 else year, month, day) + _time_of_day(match)


def _time_of_day(match: re.Match[str]) -> timedelta:
    if match["h"] is None:
        return timedelta()
    hour, minute, second = int(match["h"]), int(match["mi"]), int(match["s"] or 0)
    if match["ap"]:
        if not 1 <= hour <= 12:
            raise ValueError("no such hour")
        hour = hour % 12 + (12 if match["ap"][0] in "Pp" else 0)
    if hour > 23 or minute > 59 or second > 59:
        raise ValueError("no such time of day")
    return timedelta(hours=hour, minutes=minute, seconds=second)
