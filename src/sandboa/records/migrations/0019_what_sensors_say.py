"""What a value in a sensor's message is: its quantity and unit, and of which probe.

Sensors that know nothing of Sandboa speak on topics of their own, in words of their own.
"""


def up(migrator, db):
    db.execute_sql("""
        CREATE TABLE heard_value (
            id INTEGER PRIMARY KEY,
            entity_id INTEGER NOT NULL REFERENCES entity (id),
            act_id INTEGER NOT NULL REFERENCES act (id),
            superseded_by_id INTEGER REFERENCES act (id),
            topic TEXT CHECK (length(topic) BETWEEN 1 AND 400),
            device_id INTEGER REFERENCES entity (id),
            path TEXT NOT NULL CHECK (length(path) <= 200),
            quantity TEXT NOT NULL CHECK (quantity IN ('temperature', 'humidity')),
            unit TEXT NOT NULL CHECK (unit IN ('c', 'f', 'k', 'percent', 'fraction')),
            probe_id INTEGER NOT NULL REFERENCES entity (id),
            CHECK ((topic IS NULL) <> (device_id IS NULL)),
            CHECK ((quantity = 'temperature') = (unit IN ('c', 'f', 'k')))
        ) STRICT
    """)
    db.execute_sql("CREATE INDEX heard_value_act ON heard_value (act_id)")
    db.execute_sql(
        "CREATE INDEX heard_value_superseded ON heard_value (superseded_by_id) "
        "WHERE superseded_by_id IS NOT NULL"
    )
    db.execute_sql(
        "CREATE UNIQUE INDEX heard_value_current ON heard_value (entity_id) "
        "WHERE superseded_by_id IS NULL"
    )
