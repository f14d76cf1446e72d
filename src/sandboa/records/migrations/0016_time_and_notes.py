"""Acts keep when it happened, visits no longer copy what was seen, and everything can have notes.

What a visit copied for "the rest as before" was right only as long as nothing earlier was entered
after it. Visits of the past keep the copies they made; acts of the past have no time of their own.
"""

_NOTE = """
    id INTEGER PRIMARY KEY,
    entity_id INTEGER NOT NULL REFERENCES entity (id),
    act_id INTEGER NOT NULL REFERENCES act (id),
    superseded_by_id INTEGER REFERENCES act (id),
    about_id INTEGER NOT NULL REFERENCES entity (id),
    at_s INTEGER NOT NULL,
    text TEXT NOT NULL CHECK (length(text) BETWEEN 1 AND 10000)
"""


def up(migrator, db):
    db.execute_sql(
        "ALTER TABLE visit ADD COLUMN rest_as_before INTEGER NOT NULL DEFAULT 0 "
        "CHECK (rest_as_before IN (0, 1))"
    )
    db.execute_sql("ALTER TABLE act ADD COLUMN at_s INTEGER")
    db.execute_sql(f"CREATE TABLE note ({_NOTE}) STRICT")
    db.execute_sql("CREATE INDEX note_act ON note (act_id)")
    db.execute_sql(
        "CREATE INDEX note_superseded ON note (superseded_by_id) WHERE superseded_by_id IS NOT NULL"
    )
    db.execute_sql(
        "CREATE UNIQUE INDEX note_current ON note (entity_id) WHERE superseded_by_id IS NULL"
    )
    db.execute_sql("CREATE INDEX note_about ON note (about_id) WHERE superseded_by_id IS NULL")
