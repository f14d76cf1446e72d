"""Hatchlings go on: tubs of their own, sheds after the first, held back, and out of the house.

One that is held back is an animal from then on, with its parents and the egg it came from.
Animals that left or died keep everything that was recorded of them.
"""

_FACT = """
    id INTEGER PRIMARY KEY,
    entity_id INTEGER NOT NULL REFERENCES entity (id),
    act_id INTEGER NOT NULL REFERENCES act (id),
    superseded_by_id INTEGER REFERENCES act (id)
"""

#: Of an animal or a hatchling.
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
    db.execute_sql("CREATE INDEX tub_of ON tub (animal_id) WHERE superseded_by_id IS NULL")
    # Whoever left has left once.
    db.execute_sql(
        "CREATE UNIQUE INDEX departure_one ON departure (animal_id) WHERE superseded_by_id IS NULL"
    )
    db.execute_sql("DROP INDEX shed_one")
    db.execute_sql("CREATE INDEX shed_of ON shed (hatchling_id) WHERE superseded_by_id IS NULL")
    db.execute_sql("ALTER TABLE animal ADD COLUMN hatchling_id INTEGER REFERENCES entity (id)")
    db.execute_sql("ALTER TABLE animal ADD COLUMN held_s INTEGER")
    db.execute_sql(
        "CREATE UNIQUE INDEX animal_hatchling ON animal (hatchling_id) "
        "WHERE superseded_by_id IS NULL AND hatchling_id IS NOT NULL"
    )
