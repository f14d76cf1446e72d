"""The house's calendar as iCalendar (RFC 5545), for any calendar application."""

from collections.abc import Iterable
from datetime import UTC, datetime, timedelta
from typing import Final

from icalendar import Alarm, Calendar, Event

from sandboa.services.overview.calendar import CalendarEntry
from sandboa.words import Reader, sentence
from sandboa.words.dates import day_of, long_day

MEDIA_TYPE: Final = "text/calendar"
#: How often a subscriber should ask again.
_AGAIN: Final = timedelta(hours=1)
#: After the midnight that a day begins with (assumption: before the keeper leaves the house).
_REMINDED_AFTER: Final = timedelta(hours=7)


def write_calendar(
    entries: Iterable[CalendarEntry], reader: Reader, now_s: float, address: str
) -> bytes:
    """The entries as whole-day events for `reader`, each with the page that tells more.

    `address` is where the house is reached, like http://127.0.0.1:8350.
    Moments become the day they fall on in the reader's zone; the last day is included.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Sandboa//calendar//EN")
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", "Sandboa")
    calendar.add("refresh-interval", _AGAIN, parameters={"value": "DURATION"})
    calendar.add("x-published-ttl", "PT1H")
    for entry in entries:
        calendar.add_component(_event(entry, reader, now_s, address))
    written: bytes = calendar.to_ical()
    return written


def _event(entry: CalendarEntry, reader: Reader, now_s: float, address: str) -> Event:
    event = Event()
    event.add("uid", f"{entry.key.replace(' ', '-')}@sandboa.invalid")
    event.add("dtstamp", datetime.fromtimestamp(now_s, UTC))
    event.add("dtstart", day_of(entry.from_s, reader.zone))
    # RFC 5545: the end is the day after the last one.
    event.add("dtend", day_of(entry.until_s, reader.zone) + timedelta(days=1))
    event.add("summary", sentence(entry.words, reader))
    told = [sentence(entry.why, reader)] if entry.why else []
    if entry.likely_s is not None:
        told.append(f"80 % window; most likely {long_day(entry.likely_s, reader.zone)}.")
    told.append(f"{address}{entry.place}")
    event.add("description", "\n".join(told))
    event.add("url", f"{address}{entry.place}")
    # A window of days is no appointment: it keeps nobody from being free.
    event.add("transp", "TRANSPARENT")
    if not entry.past:
        event.add_component(_alarm(str(event["summary"])))
    return event


def _alarm(words: str) -> Alarm:
    """A reminder in the morning of the first day; of clocks, a whole day has only its midnight."""
    alarm = Alarm()
    alarm.add("action", "DISPLAY")
    alarm.add("description", words)
    alarm.add("trigger", _REMINDED_AFTER)
    return alarm
