"""Cabinets in full, moves, probe checks, live devices, pips, alarms and messages."""

import importlib

_first = importlib.import_module("sandboa.records.migrations.0001_first_slice")

_TABLES = {
    "box_move": """
        box INTEGER NOT NULL REFERENCES entity (id),
        shelf INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL
    """,
    # place null: taken down.
    "probe_move": """
        probe INTEGER NOT NULL REFERENCES entity (id),
        place INTEGER REFERENCES entity (id),
        from_s INTEGER NOT NULL
    """,
    "probe_check": """
        probe INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL,
        kind TEXT NOT NULL CHECK (kind IN ('reference', 'salt')),
        shown REAL NOT NULL,
        expected REAL NOT NULL
    """,
    "left_out": """
        probe INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL,
        until_s INTEGER NOT NULL,
        reason TEXT NOT NULL CHECK (length(reason) <= 200),
        CHECK (until_s > from_s)
    """,
    "device": """
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        token_hash TEXT NOT NULL CHECK (length(token_hash) = 64)
    """,
    "pip": """
        egg INTEGER NOT NULL REFERENCES entity (id),
        seen_s INTEGER NOT NULL
    """,
    "finished": """
        clutch INTEGER NOT NULL REFERENCES entity (id),
        at_s INTEGER NOT NULL
    """,
    "acknowledgement": """
        alarm INTEGER NOT NULL REFERENCES alarm (id),
        at_s INTEGER NOT NULL
    """,
    "messenger": """
        kind TEXT NOT NULL CHECK (kind IN ('email', 'webhook', 'shelf')),
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        zone TEXT NOT NULL,
        quiet_from_min INTEGER CHECK (quiet_from_min BETWEEN 0 AND 1439),
        quiet_until_min INTEGER CHECK (quiet_until_min BETWEEN 0 AND 1439),
        target TEXT NOT NULL CHECK (json_valid(target))
    """,
}

_CURRENT_UNIQUE = {
    "box_move": "box, from_s",
    "probe_move": "probe, from_s",
    "device": "name COLLATE NOCASE",
    "pip": "egg",
    "finished": "clutch",
    "acknowledgement": "alarm",
    "messenger": "name COLLATE NOCASE",
}

_CURRENT_INDEX = {"probe_check": "probe", "left_out": "probe"}

_MORE_COLUMNS = {
    "cabinet": (
        "kind TEXT NOT NULL DEFAULT 'bought' CHECK (kind IN ('bought', 'home-built'))",
        "volume_l REAL CHECK (volume_l > 0)",
        "ballast_l REAL CHECK (ballast_l >= 0)",
    ),
    "probe": ("device INTEGER REFERENCES entity (id)",),
}

#: What the machine keeps for itself: not facts, never undone.
_KEPT = (
    # The end of each probe's record. `revision` rises with every change of its readings,
    # `rewrites` with those that did more than append at the end.
    """CREATE TABLE reading_tip (
        probe INTEGER PRIMARY KEY,
        revision INTEGER NOT NULL,
        rewrites INTEGER NOT NULL,
        readings INTEGER NOT NULL,
        last_s INTEGER,
        last_c REAL,
        last_humidity REAL,
        received_s INTEGER
    ) STRICT""",
    # Readings whose time cannot be: held back, shown, let in or not by the keeper. `off_s` is
    # how far the device's clock seems to be ahead of this machine's.
    """CREATE TABLE held_reading (
        probe INTEGER NOT NULL,
        at_s INTEGER NOT NULL,
        temperature_c REAL NOT NULL,
        humidity REAL,
        received_s INTEGER NOT NULL,
        reason TEXT NOT NULL CHECK (reason IN ('ahead', 'behind', 'before')),
        off_s INTEGER NOT NULL,
        batch INTEGER,
        PRIMARY KEY (probe, at_s)
    ) STRICT, WITHOUT ROWID""",
    """CREATE TABLE alarm (
        id INTEGER PRIMARY KEY,
        kind TEXT NOT NULL,
        severity TEXT NOT NULL CHECK (severity IN ('emergency', 'alarm', 'notice')),
        cabinet INTEGER NOT NULL,
        probe INTEGER,
        text TEXT NOT NULL,
        began_s INTEGER NOT NULL,
        raised_s INTEGER NOT NULL,
        ended_s INTEGER
    ) STRICT""",
    "CREATE UNIQUE INDEX alarm_open ON alarm (kind, cabinet, coalesce(probe, 0)) "
    "WHERE ended_s IS NULL",
    "CREATE INDEX alarm_began ON alarm (began_s)",
    """CREATE TABLE message (
        id INTEGER PRIMARY KEY,
        messenger INTEGER NOT NULL,
        alarm INTEGER,
        about TEXT NOT NULL,
        text TEXT NOT NULL,
        at_s INTEGER NOT NULL,
        sent INTEGER NOT NULL CHECK (sent IN (0, 1)),
        outcome TEXT NOT NULL
    ) STRICT""",
    "CREATE INDEX message_of_alarm ON message (alarm, messenger)",
    # What was forecast on day 0, 30 and 50; `again` when it was worked out afterwards.
    """CREATE TABLE forecast_told (
        clutch INTEGER NOT NULL,
        day INTEGER NOT NULL,
        told_s INTEGER NOT NULL,
        again INTEGER NOT NULL CHECK (again IN (0, 1)),
        p10_s REAL NOT NULL,
        p25_s REAL NOT NULL,
        p50_s REAL NOT NULL,
        p75_s REAL NOT NULL,
        p90_s REAL NOT NULL,
        PRIMARY KEY (clutch, day)
    ) STRICT, WITHOUT ROWID""",
    # What a finished clutch taught: ln D at its mean pip, as far as the acts up to `after_act`.
    """CREATE TABLE lesson (
        clutch INTEGER PRIMARY KEY,
        after_act INTEGER NOT NULL,
        cabinet INTEGER NOT NULL,
        mean_pip_s REAL NOT NULL,
        log_development REAL NOT NULL,
        sd REAL NOT NULL,
        eggs INTEGER NOT NULL
    ) STRICT""",
)


def up(migrator, db):
    for table, columns in _MORE_COLUMNS.items():
        for column in columns:
            db.execute_sql(f"ALTER TABLE {table} ADD COLUMN {column}")
    for statement in _KEPT:
        db.execute_sql(statement)
    _first.create_fact_tables(db, _TABLES)
    _first.create_indexes(db, _CURRENT_UNIQUE, _CURRENT_INDEX)
    db.execute_sql(
        "INSERT INTO reading_tip (probe, revision, rewrites, readings, last_s) "
        "SELECT probe, 1, 0, sum(readings), max(hour) FROM reading_hour GROUP BY probe"
    )
    db.execute_sql(
        "UPDATE reading_tip SET (last_s, last_c, last_humidity) = (SELECT at_s, temperature_c, "
        "humidity FROM reading WHERE reading.probe = reading_tip.probe ORDER BY at_s DESC LIMIT 1)"
    )
