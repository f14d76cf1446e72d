"""What was said keeps what it is made of, and every reader has a unit of temperature.

What was said before this keeps the sentence it had, in °C.
"""

_UNIT = "CHECK (temperature_unit IN ('C', 'F'))"


def up(migrator, db):
    db.execute_sql("ALTER TABLE act ADD COLUMN message TEXT")
    db.execute_sql("ALTER TABLE alarm ADD COLUMN message TEXT")
    db.execute_sql(
        f"ALTER TABLE messenger ADD COLUMN temperature_unit TEXT NOT NULL DEFAULT 'C' {_UNIT}"
    )
    # Person 0 is whoever reads in a house where nobody signs in.
    db.execute_sql(
        f"""CREATE TABLE preference (
            person_id INTEGER PRIMARY KEY,
            temperature_unit TEXT NOT NULL {_UNIT},
            seal INTEGER NOT NULL DEFAULT 0
        ) STRICT"""
    )
