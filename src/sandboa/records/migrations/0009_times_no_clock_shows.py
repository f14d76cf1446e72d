"""Readings held back at times no clock shows: they made the list of held readings unreadable.

What goes is written into the log, value by value; the copy made before this
migration has them too.
"""

import time

#: s: the years 1970 to 2100, a day earlier for zones ahead; frozen here as migrations are.
_FIRST_S, _LAST_S = -86_400, 4_133_980_800
#: How many are written out in the log; the rest are counted.
_TOLD = 5


def up(migrator, db):
    rows = db.execute_sql(
        "SELECT h.probe, coalesce(p.name, 'a removed probe'), h.at_s, h.temperature_c "
        "FROM held_reading AS h LEFT JOIN probe AS p "
        "ON p.entity = h.probe AND p.superseded_by IS NULL "
        "WHERE NOT h.at_s BETWEEN ? AND ? OR abs(h.off_s) > ? ORDER BY h.probe, h.at_s",
        (_FIRST_S, _LAST_S - 1, _LAST_S),
    ).fetchall()
    for probe in sorted({row[0] for row in rows}):
        own = [row for row in rows if row[0] == probe]
        values = ", ".join(f"{c:g} °C at second {at_s}" for _, _, at_s, c in own[:_TOLD])
        more = f" and {len(own) - _TOLD} more" if len(own) > _TOLD else ""
        what = "1 held reading" if len(own) == 1 else f"{len(own)} held readings"
        db.execute_sql(
            "INSERT INTO act (kind, summary, recorded_s) VALUES ('cleared', ?, ?)",
            (
                f"{what} of {own[0][1]} taken out: no clock shows their time ({values}{more})",
                int(time.time()),
            ),
        )
    db.execute_sql(
        "DELETE FROM held_reading WHERE NOT at_s BETWEEN ? AND ? OR abs(off_s) > ?",
        (_FIRST_S, _LAST_S - 1, _LAST_S),
    )
