"""The chance told of each egg on certain days, to be compared with what became of it."""


def up(migrator, db):
    db.execute_sql(
        """CREATE TABLE standing_told (
            egg INTEGER NOT NULL REFERENCES entity (id),
            day INTEGER NOT NULL,
            alive REAL NOT NULL CHECK (alive BETWEEN 0 AND 1),
            PRIMARY KEY (egg, day)
        ) STRICT, WITHOUT ROWID"""
    )
