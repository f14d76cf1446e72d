"""Rounds: visits, signs of eggs and boxes, weighings, acts, and what was put off."""

import importlib

_first = importlib.import_module("sandboa.records.migrations.0001_first_slice")

_TABLES = {
    # `key` is made by the device that closed the visit: delivered twice, it is one visit.
    # `conflict` is what another device had recorded meanwhile, in words; empty without.
    "visit": """
        clutch INTEGER NOT NULL REFERENCES entity (id),
        key TEXT NOT NULL CHECK (length(key) BETWEEN 8 AND 64),
        opened_s INTEGER NOT NULL,
        closed_s INTEGER NOT NULL,
        conflict TEXT NOT NULL,
        CHECK (closed_s >= opened_s)
    """,
    "egg_sign": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL,
        kind TEXT NOT NULL,
        value TEXT NOT NULL
    """,
    "box_sign": """
        box INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL,
        kind TEXT NOT NULL,
        value TEXT NOT NULL
    """,
    "box_done": """
        box INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        kind TEXT NOT NULL
    """,
    "weighing": """
        box INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        mass_g REAL NOT NULL CHECK (mass_g > 0)
    """,
    # What was put in (+) or taken out (-) besides water.
    "mass_change": """
        box INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        delta_g REAL NOT NULL,
        what TEXT NOT NULL CHECK (length(what) <= 60)
    """,
    "closing_change": """
        box INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL,
        closing TEXT NOT NULL
    """,
    # Fresh medium under the eggs: the box's account of water begins anew.
    "set_up": """
        box INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        medium TEXT NOT NULL,
        water_g REAL CHECK (water_g >= 0),
        mass_g REAL CHECK (mass_g > 0)
    """,
    "postponement": """
        clutch INTEGER NOT NULL REFERENCES entity (id),
        kind TEXT NOT NULL,
        at_s INTEGER NOT NULL,
        until_s INTEGER NOT NULL,
        CHECK (until_s > at_s)
    """,
}

_CURRENT_UNIQUE = {
    "visit": "key",
    "closing_change": "box, from_s",
    "set_up": "box, at_s",
    "postponement": "clutch, kind",
}

_CURRENT_INDEX = {
    "egg_sign": "egg",
    "box_sign": "box",
    "box_done": "box",
    "weighing": "box",
    "mass_change": "box",
}


def up(migrator, db):
    _first.create_fact_tables(db, _TABLES)
    _first.create_indexes(db, _CURRENT_UNIQUE, _CURRENT_INDEX)
    db.execute_sql("CREATE INDEX visit_of_clutch ON visit (clutch) WHERE superseded_by IS NULL")
