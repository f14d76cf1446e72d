"""How a file of any version spells the columns that hold ids: before migration 0013 without `_id`.

Only what reads copies needs to ask; the house that is open is always up to date.
"""

import re
import sqlite3

_ID = "_id"
_ID_COLUMN = re.compile(r"\b([a-z_]+)_id\b")


def spelled(connection: sqlite3.Connection, sql: str) -> str:
    """The statement, written for today's columns, as the file of `connection` can run it."""
    columns = {row[1] for row in connection.execute('PRAGMA table_info("act")')}
    return sql if "clutch_id" in columns else _ID_COLUMN.sub(r"\1", sql)


def unspelled(column: str) -> str:
    """What a column is called in files of every version: its name without `_id`."""
    return column.removesuffix(_ID)
