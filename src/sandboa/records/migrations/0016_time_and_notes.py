"""A visit that found the rest as before says so, and no longer copies what was seen before.

A copy was right only as long as nothing earlier was entered after it. Visits of the past keep
the copies they made.
"""


def up(migrator, db):
    db.execute_sql(
        "ALTER TABLE visit ADD COLUMN rest_as_before INTEGER NOT NULL DEFAULT 0 "
        "CHECK (rest_as_before IN (0, 1))"
    )
