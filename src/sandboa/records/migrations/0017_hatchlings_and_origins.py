"""Hatchlings go on: tubs of their own, sheds after the first, held back, and out of the house.

Clutches that nobody saw laid, or that come from elsewhere, say what is known of that.
One that is held back is an animal from then on, with its parents and the egg it came from.
Animals that left or died keep everything that was recorded of them.
"""

_FACT = """
    id INTEGER PRIMARY KEY,
    entity_id INTEGER NOT NULL REFERENCES entity (id),
    act_id INTEGER NOT NULL REFERENCES act (id),
    superseded_by_id INTEGER REFERENCES act (id)
"""

_TABLES = {
    "tub": """
        animal_id INTEGER NOT NULL REFERENCES entity (id),
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        from_s INTEGER NOT NULL
    """,
    "departure": """
        animal_id INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        how TEXT NOT NULL CHECK (how IN ('sold', 'given away', 'died', 'other')),
        note TEXT NOT NULL CHECK (length(note) <= 400)
    """,
    "possible_sire": """
        clutch_id INTEGER NOT NULL REFERENCES entity (id),
        sire_id INTEGER NOT NULL REFERENCES entity (id)
    """,
    "shell_look": """
        egg_id INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL,
        shells TEXT NOT NULL CHECK (length(shells) BETWEEN 1 AND 100)
    """,
    "clutch_origin": """
        clutch_id INTEGER NOT NULL REFERENCES entity (id),
        kind TEXT NOT NULL CHECK (kind IN ('found', 'taken from the dam', 'from elsewhere')),
        laid_from_s INTEGER,
        laid_until_s INTEGER,
        stage TEXT,
        stage_seen_s INTEGER,
        arrived_s INTEGER,
        before_c REAL CHECK (before_c BETWEEN 20 AND 40),
        CHECK ((laid_from_s IS NULL) = (laid_until_s IS NULL)),
        CHECK (laid_until_s >= laid_from_s),
        CHECK ((stage IS NULL) = (stage_seen_s IS NULL)),
        CHECK (stage IS NULL OR laid_from_s IS NULL)
    """,
}


def up(migrator, db):
    for table, columns in _TABLES.items():
        db.execute_sql(f"CREATE TABLE {table} ({_FACT}, {columns}) STRICT")
        db.execute_sql(f"CREATE INDEX {table}_act ON {table} (act_id)")
        db.execute_sql(
            f"CREATE INDEX {table}_superseded ON {table} (superseded_by_id) "
            "WHERE superseded_by_id IS NOT NULL"
        )
        db.execute_sql(
            f"CREATE UNIQUE INDEX {table}_current ON {table} (entity_id) "
            "WHERE superseded_by_id IS NULL"
        )
    db.execute_sql(
        "CREATE INDEX shell_look_of ON shell_look (egg_id) WHERE superseded_by_id IS NULL"
    )
    db.execute_sql("CREATE INDEX tub_of ON tub (animal_id) WHERE superseded_by_id IS NULL")
    # Whoever left has left once.
    db.execute_sql(
        "CREATE UNIQUE INDEX departure_one ON departure (animal_id) WHERE superseded_by_id IS NULL"
    )
    db.execute_sql(
        "CREATE UNIQUE INDEX clutch_origin_one ON clutch_origin (clutch_id) "
        "WHERE superseded_by_id IS NULL"
    )
    db.execute_sql(
        "CREATE UNIQUE INDEX possible_sire_one ON possible_sire (clutch_id, sire_id) "
        "WHERE superseded_by_id IS NULL"
    )
    # How far a clutch was when a torch showed its stage, as its pips told later.
    db.execute_sql("ALTER TABLE lesson ADD COLUMN stage_development REAL")
    db.execute_sql("DROP INDEX shed_one")
    db.execute_sql("CREATE INDEX shed_of ON shed (hatchling_id) WHERE superseded_by_id IS NULL")
    db.execute_sql("ALTER TABLE animal ADD COLUMN hatchling_id INTEGER REFERENCES entity (id)")
    db.execute_sql("ALTER TABLE animal ADD COLUMN held_s INTEGER")
    db.execute_sql(
        "CREATE UNIQUE INDEX animal_hatchling ON animal (hatchling_id) "
        "WHERE superseded_by_id IS NULL AND hatchling_id IS NOT NULL"
    )
