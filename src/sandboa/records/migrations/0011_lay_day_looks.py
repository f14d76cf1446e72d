"""What was seen and done on lay day had the moment of typing: where the record proves it, mended.

Proof is a look recorded with the lay day itself, later than its lay time by
more than a day. It gets the lay time; the row before it stays, superseded, and
an act in the clutch's log says so. Undoing that act brings the rows back.
"""

import time

_DAY_S = 86_400
#: Table, its column of time, and how its rows lead to the clutch they were recorded with.
_LOOKS = (
    ("candling", "seen_s", "JOIN egg AS e ON e.entity = r.egg AND e.superseded_by IS NULL "
     "JOIN clutch AS c ON c.entity = e.clutch"),
    ("egg_event", "at_s", "JOIN egg AS e ON e.entity = r.egg AND e.superseded_by IS NULL "
     "JOIN clutch AS c ON c.entity = e.clutch"),
    ("dam_check", "at_s", "JOIN clutch AS c ON c.entity = r.clutch"),
    ("weight", "at_s", "JOIN clutch AS c ON c.dam = r.animal"),
)  # fmt: skip


def up(migrator, db):
    first = "(SELECT min(act) FROM clutch WHERE entity = c.entity)"
    clutches = {}
    for table, at, joined in _LOOKS:
        rows = db.execute_sql(
            f"SELECT r.id, c.entity, c.code, c.laid_s FROM {table} AS r {joined} "
            f"WHERE r.superseded_by IS NULL AND c.superseded_by IS NULL AND r.act = {first} "
            f"AND r.{at} > c.laid_s + {_DAY_S}"
        ).fetchall()
        for row, clutch, code, laid_s in rows:
            clutches.setdefault((clutch, code, laid_s), []).append((table, at, row))
    for (clutch, code, laid_s), looks in sorted(clutches.items()):
        what = "1 look" if len(looks) == 1 else f"{len(looks)} looks"
        cursor = db.execute_sql(
            "INSERT INTO act (kind, summary, recorded_s, clutch) VALUES ('mended', ?, ?, ?)",
            (
                f"{what} of lay day of {code} dated to its lay time: they had the moment of typing",
                int(time.time()),
                clutch,
            ),
        )
        act = cursor.lastrowid
        for table, at, row in looks:
            columns = [
                info[1]
                for info in db.execute_sql(f"PRAGMA table_info({table})").fetchall()
                if info[1] not in ("id", "act", "superseded_by", at)
            ]
            kept = ", ".join(columns)
            # A second after laying for her weight: at the very moment it would be that of before.
            moment = laid_s + 1 if table == "weight" else laid_s
            db.execute_sql(f"UPDATE {table} SET superseded_by = ? WHERE id = ?", (act, row))
            db.execute_sql(
                f"INSERT INTO {table} (act, {at}, {kept}) "
                f"SELECT ?, ?, {kept} FROM {table} WHERE id = ?",
                (act, moment, row),
            )
