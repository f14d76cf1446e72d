"""People, what lets them in, and who recorded each act."""

import importlib

_first = importlib.import_module("sandboa.records.migrations.0001_first_slice")

_TABLES = {
    "person": """
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        role TEXT NOT NULL CHECK (role IN ('keeper', 'helper', 'visitor'))
    """,
}

# No facts: they are deleted when they end, and never leave this file.
_KEYS = """
    CREATE TABLE passphrase (
        person INTEGER PRIMARY KEY REFERENCES entity (id),
        hash TEXT NOT NULL,
        set_s INTEGER NOT NULL
    ) STRICT;
    CREATE TABLE session (
        token_hash TEXT PRIMARY KEY CHECK (length(token_hash) = 64),
        person INTEGER NOT NULL REFERENCES entity (id),
        begun_s INTEGER NOT NULL,
        used_s INTEGER NOT NULL,
        device TEXT NOT NULL CHECK (length(device) <= 200)
    ) STRICT;
    CREATE INDEX session_of_person ON session (person);
    CREATE TABLE private_link (
        token_hash TEXT PRIMARY KEY CHECK (length(token_hash) = 64),
        person INTEGER REFERENCES entity (id),
        made_s INTEGER NOT NULL
    ) STRICT
"""


def up(migrator, db):
    _first.create_fact_tables(db, _TABLES)
    _first.create_indexes(db, {"person": "name COLLATE NOCASE"}, {})
    for statement in _KEYS.split(";"):
        db.execute_sql(statement)
    db.execute_sql("ALTER TABLE act ADD COLUMN person INTEGER REFERENCES entity (id)")
