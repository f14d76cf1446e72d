"""Animals in full, pairings and signs, house methods, candling, photos and open lay days."""

import importlib

_first = importlib.import_module("sandboa.records.migrations.0001_first_slice")

_METHOD = """
    name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    medium TEXT NOT NULL,
    ratio REAL CHECK (ratio > 0),
    contact TEXT NOT NULL,
    closing TEXT NOT NULL,
    temperature_c REAL NOT NULL CHECK (temperature_c BETWEEN 20 AND 36),
    visits TEXT NOT NULL,
    mould TEXT NOT NULL,
    cutting TEXT NOT NULL,
    set_day INTEGER CHECK (set_day BETWEEN 1 AND 200),
    last_days TEXT NOT NULL,
    clump TEXT NOT NULL,
    tub TEXT NOT NULL,
    dam TEXT NOT NULL
"""

_TABLES = {
    "trait": """
        animal INTEGER NOT NULL REFERENCES entity (id),
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        form TEXT NOT NULL CHECK (form IN ('visual', 'one copy', 'possible'))
    """,
    "weight": """
        animal INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        mass_g REAL NOT NULL CHECK (mass_g BETWEEN 20 AND 6000)
    """,
    "meal": """
        animal INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        taken INTEGER NOT NULL CHECK (taken IN (0, 1)),
        prey TEXT NOT NULL CHECK (length(prey) <= 60),
        mass_g REAL CHECK (mass_g > 0)
    """,
    "pair": """
        dam INTEGER NOT NULL REFERENCES entity (id),
        sire INTEGER NOT NULL REFERENCES entity (id),
        since_s INTEGER NOT NULL
    """,
    "pairing": """
        dam INTEGER NOT NULL REFERENCES entity (id),
        sire INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL,
        until_s INTEGER,
        CHECK (until_s IS NULL OR until_s >= from_s)
    """,
    "lock": """
        pairing INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL
    """,
    "sign": """
        dam INTEGER NOT NULL REFERENCES entity (id),
        kind TEXT NOT NULL CHECK (kind IN ('off food', 'ovulation', 'pre-lay shed')),
        seen_s INTEGER NOT NULL
    """,
    "method": _METHOD + ", chosen INTEGER NOT NULL CHECK (chosen IN (0, 1))",
    "clutch_method": _METHOD + ", clutch INTEGER NOT NULL REFERENCES entity (id)",
    "candling": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL,
        vessels TEXT NOT NULL,
        disc TEXT CHECK (disc IN ('top', 'side', 'under'))
    """,
    "egg_event": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        kind TEXT NOT NULL
    """,
    "dam_check": """
        clutch INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        lump TEXT NOT NULL CHECK (lump IN ('none', 'left', 'unsure'))
    """,
    "task": """
        subject INTEGER NOT NULL REFERENCES entity (id),
        name TEXT NOT NULL,
        done_s INTEGER NOT NULL
    """,
    "setting": """
        name TEXT NOT NULL,
        value REAL NOT NULL
    """,
    "photo": """
        owner INTEGER NOT NULL REFERENCES entity (id),
        egg INTEGER,
        step TEXT NOT NULL,
        taken_s INTEGER NOT NULL,
        file TEXT NOT NULL CHECK (length(file) = 64),
        width INTEGER NOT NULL CHECK (width > 0),
        height INTEGER NOT NULL CHECK (height > 0)
    """,
}

_CURRENT_UNIQUE = {
    "trait": "animal, name COLLATE NOCASE",
    "pair": "dam, sire",
    "method": "name COLLATE NOCASE",
    "clutch_method": "clutch",
    "setting": "name",
}

_CURRENT_INDEX = {
    "weight": "animal",
    "meal": "animal",
    "pairing": "dam",
    "sign": "dam",
    "candling": "egg",
    "egg_event": "egg",
    "task": "subject",
    "photo": "owner",
}

_MORE_COLUMNS = {
    "animal": (
        "code TEXT CHECK (length(code) BETWEEN 1 AND 20)",
        "hatch_year INTEGER CHECK (hatch_year BETWEEN 1940 AND 2100)",
        "traits TEXT NOT NULL DEFAULT ''",
        "dam INTEGER REFERENCES entity (id)",
        "sire INTEGER REFERENCES entity (id)",
        "retired INTEGER NOT NULL DEFAULT 0 CHECK (retired IN (0, 1))",
    ),
    "egg": (
        "clump INTEGER CHECK (clump BETWEEN 1 AND 20)",
        "mass_g REAL CHECK (mass_g BETWEEN 10 AND 250)",
    ),
}

#: A dam's own tub holds eggs without medium or closing: both may be null from here on.
_BOX = """
    clutch INTEGER NOT NULL REFERENCES entity (id),
    shelf INTEGER NOT NULL REFERENCES entity (id),
    medium TEXT,
    dry_mass_g REAL CHECK (dry_mass_g > 0),
    water_g REAL CHECK (water_g >= 0),
    closing TEXT,
    contact TEXT,
    set_up_mass_g REAL CHECK (set_up_mass_g > 0)
"""


def up(migrator, db):
    for table, columns in _MORE_COLUMNS.items():
        for column in columns:
            db.execute_sql(f"ALTER TABLE {table} ADD COLUMN {column}")
    db.execute_sql("ALTER TABLE box RENAME TO box_before")
    for index in ("box_act", "box_superseded", "box_current", "box_of_clutch"):
        db.execute_sql(f"DROP INDEX {index}")
    _first.create_fact_tables(db, {"box": _BOX, **_TABLES})
    db.execute_sql(
        "INSERT INTO box (id, entity, act, superseded_by, clutch, shelf, medium, dry_mass_g, "
        "water_g, closing) SELECT id, entity, act, superseded_by, clutch, shelf, medium, "
        "dry_mass_g, water_g, closing FROM box_before"
    )
    db.execute_sql("DROP TABLE box_before")
    _first.create_indexes(db, _CURRENT_UNIQUE, {"box": "clutch", **_CURRENT_INDEX})
    db.execute_sql(
        # Work in progress, not a fact: it becomes one when the clutch is recorded by `recorded_by`.
        """CREATE TABLE lay_draft (
            id INTEGER PRIMARY KEY REFERENCES entity (id),
            started_s INTEGER NOT NULL,
            saved_s INTEGER NOT NULL,
            revision INTEGER NOT NULL,
            step TEXT NOT NULL,
            state TEXT NOT NULL CHECK (json_valid(state)),
            recorded_by INTEGER REFERENCES act (id),
            set_aside INTEGER NOT NULL DEFAULT 0 CHECK (set_aside IN (0, 1))
        ) STRICT"""
    )
