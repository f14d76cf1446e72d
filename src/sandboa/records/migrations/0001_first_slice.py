"""The first schema: a journal of facts, animals, cabinets, clutches, eggs, looks and readings.

Every fact table carries `entity` (what it is about, the same over all its
versions), `act` (which act recorded it) and `superseded_by` (which act put
another version in its place). Current rows are those not superseded.
"""

_FACT = """
    id INTEGER PRIMARY KEY,
    entity INTEGER NOT NULL REFERENCES entity (id),
    act INTEGER NOT NULL REFERENCES act (id),
    superseded_by INTEGER REFERENCES act (id)
"""

_TABLES = {
    "animal": """
        role TEXT NOT NULL CHECK (role IN ('dam', 'sire')),
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60)
    """,
    "cabinet": """
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60)
    """,
    "shelf": """
        cabinet INTEGER NOT NULL REFERENCES entity (id),
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        position INTEGER NOT NULL CHECK (position BETWEEN 1 AND 50)
    """,
    "set_point": """
        cabinet INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL,
        temperature_c REAL NOT NULL CHECK (temperature_c BETWEEN 20 AND 36)
    """,
    "probe": """
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        place INTEGER NOT NULL REFERENCES entity (id),
        since_s INTEGER NOT NULL,
        checked INTEGER NOT NULL CHECK (checked IN (0, 1)),
        by_hand INTEGER NOT NULL CHECK (by_hand IN (0, 1))
    """,
    "clutch": """
        code TEXT NOT NULL CHECK (length(code) BETWEEN 1 AND 20),
        dam INTEGER NOT NULL REFERENCES entity (id),
        sire INTEGER REFERENCES entity (id),
        laid_s INTEGER NOT NULL
    """,
    "box": """
        clutch INTEGER NOT NULL REFERENCES entity (id),
        shelf INTEGER NOT NULL REFERENCES entity (id),
        medium TEXT NOT NULL,
        dry_mass_g REAL CHECK (dry_mass_g > 0),
        water_g REAL CHECK (water_g >= 0),
        closing TEXT NOT NULL
    """,
    "egg": """
        clutch INTEGER NOT NULL REFERENCES entity (id),
        number INTEGER NOT NULL CHECK (number BETWEEN 1 AND 20),
        x REAL NOT NULL CHECK (x BETWEEN 0 AND 1),
        y REAL NOT NULL CHECK (y BETWEEN 0 AND 1),
        slug INTEGER NOT NULL CHECK (slug IN (0, 1)),
        shell TEXT NOT NULL
    """,
    "turgor": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL,
        grade INTEGER NOT NULL CHECK (grade BETWEEN 0 AND 4)
    """,
    "watering": """
        box INTEGER NOT NULL REFERENCES entity (id),
        poured_s INTEGER NOT NULL,
        water_g REAL NOT NULL CHECK (water_g > 0)
    """,
    "batch": """
        probe INTEGER NOT NULL REFERENCES entity (id),
        source TEXT NOT NULL,
        file_name TEXT NOT NULL
    """,
}

_CURRENT_UNIQUE = {
    "animal": "role, name COLLATE NOCASE",
    "cabinet": "name COLLATE NOCASE",
    "shelf": "cabinet, name COLLATE NOCASE",
    "set_point": "cabinet, from_s",
    "probe": "name COLLATE NOCASE",
    "clutch": "code COLLATE NOCASE",
    "egg": "clutch, number",
}

_CURRENT_INDEX = {"box": "clutch", "turgor": "egg", "watering": "box"}


def up(migrator, db):
    db.execute_sql("CREATE TABLE entity (id INTEGER PRIMARY KEY, kind TEXT NOT NULL) STRICT")
    db.execute_sql(
        """CREATE TABLE act (
            id INTEGER PRIMARY KEY,
            kind TEXT NOT NULL,
            summary TEXT NOT NULL,
            recorded_s INTEGER NOT NULL,
            clutch INTEGER REFERENCES entity (id),
            undoes INTEGER REFERENCES act (id)
        ) STRICT"""
    )
    db.execute_sql("CREATE INDEX act_of_clutch ON act (clutch)")
    create_fact_tables(db, _TABLES)
    create_indexes(db, _CURRENT_UNIQUE, _CURRENT_INDEX)
    _create_readings(db)


def create_fact_tables(db, tables):
    """Make tables of facts, with the indexes that every one of them has."""
    for table, columns in tables.items():
        db.execute_sql(f"CREATE TABLE {table} ({_FACT}, {columns}) STRICT")
        db.execute_sql(f"CREATE INDEX {table}_act ON {table} (act)")
        db.execute_sql(
            f"CREATE INDEX {table}_superseded ON {table} (superseded_by) "
            "WHERE superseded_by IS NOT NULL"
        )
        db.execute_sql(
            f"CREATE UNIQUE INDEX {table}_current ON {table} (entity) WHERE superseded_by IS NULL"
        )


def create_indexes(db, unique, index):
    """Indexes over current rows: columns that must be unique, and one column to find by."""
    for table, columns in unique.items():
        db.execute_sql(
            f"CREATE UNIQUE INDEX {table}_one ON {table} ({columns}) WHERE superseded_by IS NULL"
        )
    for table, column in index.items():
        db.execute_sql(
            f"CREATE INDEX {table}_of_{column} ON {table} ({column}) WHERE superseded_by IS NULL"
        )


def _create_readings(db):
    # `batch` holds the batch's entity; no foreign key here or on `probe`: intake
    # checks both once for a batch, not once for a row.
    columns = """
        probe INTEGER NOT NULL,
        at_s INTEGER NOT NULL,
        temperature_c REAL NOT NULL CHECK (temperature_c BETWEEN -20 AND 60),
        humidity REAL CHECK (humidity BETWEEN 0 AND 1),
        batch INTEGER NOT NULL
    """
    db.execute_sql(
        f"CREATE TABLE reading ({columns}, PRIMARY KEY (probe, at_s)) STRICT, WITHOUT ROWID"
    )
    db.execute_sql(
        f"CREATE TABLE withdrawn_reading ({columns}, PRIMARY KEY (batch, at_s)) "
        "STRICT, WITHOUT ROWID"
    )
    db.execute_sql(
        """CREATE TABLE reading_hour (
            probe INTEGER NOT NULL,
            hour INTEGER NOT NULL,
            readings INTEGER NOT NULL,
            lowest_c REAL NOT NULL,
            mean_c REAL NOT NULL,
            highest_c REAL NOT NULL,
            mean_humidity REAL,
            PRIMARY KEY (probe, hour)
        ) STRICT, WITHOUT ROWID"""
    )
