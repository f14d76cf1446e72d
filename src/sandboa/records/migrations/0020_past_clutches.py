"""Clutches of seasons before Sandboa, as cards and lists tell them: counts and days, no eggs."""


def up(migrator, db):
    db.execute_sql("""
        CREATE TABLE past_clutch (
            id INTEGER PRIMARY KEY,
            entity_id INTEGER NOT NULL REFERENCES entity (id),
            act_id INTEGER NOT NULL REFERENCES act (id),
            superseded_by_id INTEGER REFERENCES act (id),
            code TEXT CHECK (length(code) BETWEEN 1 AND 60),
            dam_id INTEGER NOT NULL REFERENCES entity (id),
            sire_id INTEGER REFERENCES entity (id),
            laid_s INTEGER NOT NULL,
            eggs INTEGER NOT NULL CHECK (eggs BETWEEN 1 AND 40),
            slugs INTEGER NOT NULL CHECK (slugs BETWEEN 0 AND eggs),
            hatched INTEGER CHECK (hatched BETWEEN 0 AND eggs - slugs),
            first_pip_s INTEGER CHECK (first_pip_s > laid_s),
            kept_c REAL CHECK (kept_c BETWEEN 15 AND 45)
        ) STRICT
    """)
    db.execute_sql("CREATE INDEX past_clutch_act ON past_clutch (act_id)")
    db.execute_sql(
        "CREATE INDEX past_clutch_superseded ON past_clutch (superseded_by_id) "
        "WHERE superseded_by_id IS NOT NULL"
    )
    db.execute_sql(
        "CREATE UNIQUE INDEX past_clutch_current ON past_clutch (entity_id) "
        "WHERE superseded_by_id IS NULL"
    )
