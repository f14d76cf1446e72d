"""Pip to first meal, and why eggs were lost: hatchlings, fates, findings, genes."""

import importlib

_first = importlib.import_module("sandboa.records.migrations.0001_first_slice")

_TABLES = {
    "cut": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        reason TEXT NOT NULL CHECK (length(reason) <= 200),
        bled INTEGER NOT NULL CHECK (bled IN (0, 1))
    """,
    "emergence": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL
    """,
    "hatchling": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        part INTEGER NOT NULL CHECK (part BETWEEN 1 AND 2),
        sex TEXT NOT NULL,
        size TEXT,
        yolk TEXT,
        defects TEXT NOT NULL,
        note TEXT NOT NULL CHECK (length(note) <= 400)
    """,
    "shed": """
        hatchling INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL
    """,
    "egg_fate": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        fate TEXT NOT NULL,
        stage TEXT,
        CHECK (stage IS NULL OR fate = 'dead in egg')
    """,
    # Of a failed egg that will not be opened it is said so: opened = 0, and no findings.
    "opening": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        opened INTEGER NOT NULL CHECK (opened IN (0, 1)),
        note TEXT NOT NULL CHECK (length(note) <= 400)
    """,
    "finding": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        kind TEXT NOT NULL,
        value TEXT NOT NULL
    """,
    "gene": """
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        inheritance TEXT NOT NULL,
        double_form TEXT NOT NULL
    """,
    "alteration": """
        cabinet INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        what TEXT NOT NULL CHECK (length(what) BETWEEN 1 AND 200)
    """,
}

_CURRENT_UNIQUE = {
    "cut": "egg",
    "emergence": "egg",
    "hatchling": "egg, part",
    "shed": "hatchling",
    "egg_fate": "egg",
    "opening": "egg",
    "finding": "egg, kind, value",
    "gene": "name COLLATE NOCASE",
}

_CURRENT_INDEX = {"alteration": "cabinet"}


def up(migrator, db):
    _first.create_fact_tables(db, _TABLES)
    _first.create_indexes(db, _CURRENT_UNIQUE, _CURRENT_INDEX)
