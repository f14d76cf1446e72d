"""Long files in which every row is one value of one quantity, turned into wide ones."""

from collections.abc import Sequence

from sandboa.formats.logger_files.columns import MOST_SENSORS, Row
from sandboa.formats.logger_files.headings import Named, date_and_clock, named


def widened(heading: Sequence[str], body: Sequence[Row]) -> tuple[list[str], list[Row]] | None:
    """Heading and rows with a column for each sensor and quantity; None for another kind of file.

    Such a file has a time, a column of values, and one that says in words what each value is:
    "temperature" or "humidity", with the sensor's name in the same cell or in a column beside it.
    Rows are numbered by the first line of their moment.
    """
    names = [named(cell) for cell in heading]
    if Named.TEMPERATURE in names or Named.VALUE not in names:
        return None
    value = names.index(Named.VALUE)
    time, clock = date_and_clock(list(heading))
    told = [i for i in range(len(heading)) if i not in (value, time, clock)]
    quantity = next((i for i in told if _says_quantities(body, i)), None)
    if time is None or quantity is None:
        return None
    beside = [i for i in told if i != quantity and names[i] is Named.SENSOR]
    when = [time] if clock is None else [time, clock]
    columns: dict[str, int] = {}
    # Names that never come again name no sensors.
    most = 2 * MOST_SENSORS
    moments: dict[tuple[str, ...], tuple[int, dict[int, str]]] = {}
    for line, cells in body:
        if len(cells) <= max(value, quantity, *when):
            continue
        what = " ".join(cells[i].strip() for i in (*beside, quantity) if i < len(cells))
        place = columns.setdefault(what, len(columns))
        if len(columns) > most:
            return None
        moment = tuple(cells[i].strip() for i in when)
        moments.setdefault(moment, (line, {}))[1].setdefault(place, cells[value])
    return [*(heading[i] for i in when), *columns], [
        (line, [*moment, *(held.get(place, "") for place in range(len(columns)))])
        for moment, (line, held) in moments.items()
    ]


def _says_quantities(body: Sequence[Row], place: int) -> bool:
    said = [named(row[place]) for _, row in body[:200] if place < len(row)]
    known = sum(what in (Named.TEMPERATURE, Named.HUMIDITY) for what in said)
    return bool(said) and Named.TEMPERATURE in said and 2 * known >= len(said)
