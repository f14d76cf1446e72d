"""Columns that hold ids end in `_id`; a messenger that only records is called that.

SQLite looks through the whole schema for each column it renames, which takes
seconds for these. So each table is renamed alone, in memory, and its new
definition is put in place as SQLite's documentation says for changes that
leave what lies on the disk as it is (Making Other Kinds Of Table Schema
Changes, the first procedure).
"""

import sqlite3
from contextlib import closing

_OF_FACTS = ("entity", "act", "superseded_by")

#: Columns of ids besides those of every fact, by table of facts.
_FACTS = {
    "acknowledgement": ("alarm",),
    "alteration": ("cabinet",),
    "animal": ("dam", "sire"),
    "batch": ("probe",),
    "box": ("clutch", "shelf"),
    "box_done": ("box",),
    "box_move": ("box", "shelf"),
    "box_sign": ("box",),
    "cabinet": (),
    "candling": ("egg",),
    "closing_change": ("box",),
    "clutch": ("dam", "sire"),
    "clutch_method": ("clutch",),
    "cut": ("egg",),
    "dam_check": ("clutch",),
    "device": (),
    "egg": ("clutch",),
    "egg_event": ("egg",),
    "egg_fate": ("egg",),
    "egg_sign": ("egg",),
    "emergence": ("egg",),
    "finding": ("egg",),
    "finished": ("clutch",),
    "gene": (),
    "hatchling": ("egg",),
    "left_out": ("probe",),
    "lock": ("pairing",),
    "mass_change": ("box",),
    "meal": ("animal",),
    "messenger": (),
    "method": (),
    "opening": ("egg",),
    "pair": ("dam", "sire"),
    "pairing": ("dam", "sire"),
    "person": (),
    "photo": ("owner", "egg"),
    "pip": ("egg",),
    "postponement": ("clutch",),
    "probe": ("place", "device"),
    "probe_check": ("probe",),
    "probe_move": ("probe", "place"),
    "set_point": ("cabinet",),
    "set_up": ("box",),
    "setting": (),
    "shed": ("hatchling",),
    "shelf": ("cabinet",),
    "sign": ("dam",),
    "task": ("subject",),
    "trait": ("animal",),
    "turgor": ("egg",),
    "visit": ("clutch",),
    "watering": ("box",),
    "weighing": ("box",),
    "weight": ("animal",),
}
_OTHERS = {
    "act": ("clutch", "undoes", "person"),
    "alarm": ("cabinet", "probe"),
    "forecast_told": ("clutch",),
    "held_reading": ("probe", "batch"),
    "lay_draft": ("recorded_by",),
    "lesson": ("clutch", "after_act", "cabinet"),
    "message": ("messenger", "alarm"),
    "messenger_secret": ("messenger",),
    "passphrase": ("person",),
    "private_link": ("person",),
    "reading": ("probe", "batch"),
    "reading_day": ("probe",),
    "reading_hour": ("probe",),
    "reading_tip": ("probe",),
    "security_event": ("person",),
    "session": ("person",),
    "standing_told": ("egg",),
    "withdrawn_reading": ("batch", "probe"),
}


def up(migrator, db):
    columns = {table: (*_OF_FACTS, *own) for table, own in _FACTS.items()} | _OTHERS
    definitions = [
        definition for table, names in columns.items() for definition in _renamed(db, table, names)
    ]
    (version,) = db.execute_sql("PRAGMA schema_version").fetchone()
    db.execute_sql("PRAGMA writable_schema = ON")
    try:
        for definition in definitions:
            db.execute_sql(
                "UPDATE sqlite_schema SET sql = ? WHERE type = ? AND name = ?", definition
            )
        db.execute_sql(f"PRAGMA schema_version = {version + 1}")
    finally:
        # Also reads the schema anew.
        db.execute_sql("PRAGMA writable_schema = RESET")
    db.execute_sql("UPDATE messenger SET kind = 'record only' WHERE kind = 'shelf'")


def _renamed(db, table, names):
    """The definitions (SQL, type, name) of a table and its indexes under the new names."""
    kept = "SELECT sql, type, name FROM sqlite_schema WHERE tbl_name = ? AND sql IS NOT NULL"
    with closing(sqlite3.connect(":memory:")) as alone:
        for sql, *_ in db.execute_sql(f"{kept} ORDER BY type = 'index'", (table,)).fetchall():
            alone.execute(sql)
        for name in names:
            alone.execute(f'ALTER TABLE "{table}" RENAME COLUMN "{name}" TO "{name}_id"')
        rows = alone.execute(kept, (table,)).fetchall()
    # The one word besides columns that is renamed: a kind in the check of messengers.
    return [(sql.replace("'shelf'", "'record only'"), *rest) for sql, *rest in rows]
