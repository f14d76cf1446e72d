"""Cabinets, shelves and set points, found by name or made on first use."""

from sandboa.core.development import SetPoints
from sandboa.core.names import clean_name
from sandboa.core.units import SET_POINT_RANGE_C, require_range
from sandboa.records.facts import Act
from sandboa.records.house import Cabinet, SetPoint, Shelf, named


def cabinet_named(act: Act, name: str) -> Cabinet:
    """The cabinet of that name, recorded now when it is new."""
    name = clean_name("cabinet", name)
    return named(Cabinet, name) or Cabinet.record(act, name=name)


def shelf_named(act: Act, cabinet: int, name: str) -> Shelf:
    """The cabinet's shelf of that name; a new one goes below the others."""
    name = clean_name("shelf", name)
    shelves = Shelf.current(Shelf.cabinet == cabinet)
    for shelf in shelves:
        if shelf.name.casefold() == name.casefold():
            return shelf
    lowest = max((shelf.position for shelf in shelves), default=0)
    return Shelf.record(act, cabinet=cabinet, name=name, position=lowest + 1)


def set_point_from(act: Act, cabinet: int, from_s: int, temperature_c: float) -> None:
    """Record the cabinet's set point from `from_s` on, unless it is in force already.

    20-36 °C; NotPlausible otherwise.
    """
    require_range("set point", temperature_c, SET_POINT_RANGE_C, "°C")
    rows = sorted(SetPoint.current(SetPoint.cabinet == cabinet), key=lambda row: row.from_s)
    if rows and abs(set_points(rows).at(from_s) - temperature_c) < 0.005:
        return
    same_time = next((row for row in rows if row.from_s == from_s), None)
    if same_time is not None:
        same_time.correct(act, temperature_c=temperature_c)
    else:
        SetPoint.record(act, cabinet=cabinet, from_s=from_s, temperature_c=temperature_c)


def set_points(rows: list[SetPoint]) -> SetPoints:
    """The core's form of a cabinet's set points; `rows` in order of time, at least one."""
    return SetPoints(tuple(r.from_s for r in rows), tuple(r.temperature_c for r in rows))
