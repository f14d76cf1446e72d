"""Acts keep when it happened beside when it was entered, and visits no longer copy what was seen.

What a visit copied for "the rest as before" was right only as long as nothing earlier was entered
after it. Visits of the past keep the copies they made; acts of the past have no time of their own.
"""


def up(migrator, db):
    db.execute_sql(
        "ALTER TABLE visit ADD COLUMN rest_as_before INTEGER NOT NULL DEFAULT 0 "
        "CHECK (rest_as_before IN (0, 1))"
    )
    db.execute_sql("ALTER TABLE act ADD COLUMN at_s INTEGER")
