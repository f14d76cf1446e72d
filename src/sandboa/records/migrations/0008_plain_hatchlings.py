"""Of a hatchling that no trait was written down of: was it looked at, and shows none."""


def up(migrator, db):
    db.execute_sql(
        "ALTER TABLE hatchling ADD COLUMN plain INTEGER NOT NULL DEFAULT 0 CHECK (plain IN (0, 1))"
    )
