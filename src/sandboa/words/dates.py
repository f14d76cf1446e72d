"""Days as a reader reads them, in the zone they are in."""

from datetime import date, datetime, tzinfo


def day_of(at_s: float, zone: tzinfo) -> date:
    """The day a moment falls on."""
    return datetime.fromtimestamp(at_s, zone).date()


def day(at_s: float, zone: tzinfo) -> str:
    """ "12 Mar"."""
    on = day_of(at_s, zone)
    return f"{on.day} {on:%b}"


def long_day(at_s: float, zone: tzinfo) -> str:
    """ "12 March"."""
    on = day_of(at_s, zone)
    return f"{on.day} {on:%B}"


def full_day(at_s: float, zone: tzinfo) -> str:
    """ "12 Mar 2026"."""
    return f"{day(at_s, zone)} {day_of(at_s, zone).year}"


def days(from_s: float, until_s: float, zone: tzinfo) -> str:
    """ "14\N{EN DASH}22 Jul", "28 Jun\N{EN DASH}3 Jul", "5 Jul"."""
    first, last = day_of(from_s, zone), day_of(until_s, zone)
    if first == last:
        return day(until_s, zone)
    together = (first.year, first.month) == (last.year, last.month)
    return f"{first.day if together else day(from_s, zone)}\N{EN DASH}{day(until_s, zone)}"
