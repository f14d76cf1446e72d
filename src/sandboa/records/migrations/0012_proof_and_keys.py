"""Proof of what was recorded, backups, secrets apart from facts, a log of who came in.

The hashes and seals themselves are worked out once all migrations have run.
"""

import json
import time
from pathlib import Path

from sandboa.records import secret_box

#: s: the years 1980 to 2200, frozen here as migrations are.
_FIRST_S, _LAST_S = 315_532_800, 7_258_118_400

_SEALED = (
    "message", "forecast_told", "standing_told", "lesson", "lay_draft",
    "passphrase", "session", "private_link",
)  # fmt: skip

_ALARM = """CREATE TABLE new_alarm (
    id INTEGER PRIMARY KEY,
    kind TEXT NOT NULL,
    severity TEXT NOT NULL CHECK (severity IN ('emergency', 'alarm', 'notice')),
    cabinet INTEGER,
    probe INTEGER,
    text TEXT NOT NULL,
    began_s INTEGER NOT NULL,
    raised_s INTEGER NOT NULL,
    ended_s INTEGER,
    any_hour INTEGER NOT NULL DEFAULT 0 CHECK (any_hour IN (0, 1)),
    seal INTEGER NOT NULL DEFAULT 0
) STRICT"""

_TABLES = (
    # A checksum over each probe's readings of a UTC day, in each table of readings.
    """CREATE TABLE reading_day (
        store TEXT NOT NULL CHECK (store IN ('reading', 'withdrawn_reading', 'held_reading')),
        probe INTEGER NOT NULL,
        day INTEGER NOT NULL,
        readings INTEGER NOT NULL,
        checksum INTEGER NOT NULL,
        PRIMARY KEY (store, probe, day)
    ) STRICT, WITHOUT ROWID""",
    # What this machine was told, and is nobody's business elsewhere.
    """CREATE TABLE machine_setting (
        name TEXT PRIMARY KEY,
        value TEXT NOT NULL,
        seal INTEGER NOT NULL DEFAULT 0
    ) STRICT""",
    """CREATE TABLE backup_tried (
        id INTEGER PRIMARY KEY,
        at_s INTEGER NOT NULL,
        file TEXT NOT NULL,
        size INTEGER NOT NULL,
        photos INTEGER NOT NULL,
        trouble TEXT NOT NULL,
        seal INTEGER NOT NULL DEFAULT 0
    ) STRICT""",
    # Secrets of messengers, sealed; they have no earlier versions and no undo.
    """CREATE TABLE messenger_secret (
        id INTEGER PRIMARY KEY,
        messenger INTEGER NOT NULL REFERENCES entity (id),
        name TEXT NOT NULL,
        sealed TEXT NOT NULL,
        seal INTEGER NOT NULL DEFAULT 0,
        UNIQUE (messenger, name)
    ) STRICT""",
    # Tokens that were ended: no undo makes one valid again.
    """CREATE TABLE ended_token (
        token_hash TEXT PRIMARY KEY CHECK (length(token_hash) = 64),
        ended_s INTEGER NOT NULL,
        seal INTEGER NOT NULL DEFAULT 0
    ) STRICT""",
    """CREATE TABLE security_event (
        id INTEGER PRIMARY KEY,
        at_s INTEGER NOT NULL,
        kind TEXT NOT NULL,
        person INTEGER,
        text TEXT NOT NULL,
        address TEXT NOT NULL,
        device TEXT NOT NULL,
        seal INTEGER NOT NULL DEFAULT 0
    ) STRICT""",
    "CREATE INDEX security_event_at ON security_event (at_s)",
)

#: Of a messenger's target: what goes into the box. The address of a webhook often holds a key.
_SECRET = ("password", "secret", "url")


def up(migrator, db):
    db.execute_sql("ALTER TABLE act ADD COLUMN hash TEXT NOT NULL DEFAULT ''")
    for table in _SEALED:
        db.execute_sql(f"ALTER TABLE {table} ADD COLUMN seal INTEGER NOT NULL DEFAULT 0")
    _alarms_of_no_cabinet(db)
    _key_columns_first(db)
    for statement in _TABLES:
        db.execute_sql(statement)
    _secrets_into_the_box(db)
    _held_at_impossible_times(db)
    # A token that a device had before is no token any more, whatever is undone.
    db.execute_sql(
        "INSERT OR IGNORE INTO ended_token (token_hash, ended_s) "
        "SELECT token_hash, strftime('%s', 'now') + 0 FROM device WHERE token_hash NOT IN "
        "(SELECT token_hash FROM device WHERE superseded_by IS NULL)"
    )


def _held_at_impossible_times(db):
    """Readings are held within the years 1980 to 2200 from now on; the log says what goes."""
    outside = f"NOT at_s BETWEEN {_FIRST_S} AND {_LAST_S - 1}"
    count = db.execute_sql(f"SELECT count(*) FROM held_reading WHERE {outside}").fetchone()[0]
    if count:
        what = "1 held reading" if count == 1 else f"{count} held readings"
        db.execute_sql(
            "INSERT INTO act (kind, summary, recorded_s) VALUES ('cleared', ?, ?)",
            (f"{what} taken out: the clock of their device was never set", int(time.time())),
        )
        db.execute_sql(f"DELETE FROM held_reading WHERE {outside}")


def _alarms_of_no_cabinet(db):
    """An alarm may be about the house itself."""
    columns = "id, kind, severity, cabinet, probe, text, began_s, raised_s, ended_s, any_hour"
    db.execute_sql(_ALARM)
    db.execute_sql(f"INSERT INTO new_alarm ({columns}) SELECT {columns} FROM alarm")
    db.execute_sql("DROP TABLE alarm")
    db.execute_sql("ALTER TABLE new_alarm RENAME TO alarm")
    db.execute_sql(
        "CREATE UNIQUE INDEX alarm_open ON alarm "
        "(kind, coalesce(cabinet, 0), coalesce(probe, 0)) WHERE ended_s IS NULL"
    )
    db.execute_sql("CREATE INDEX alarm_began ON alarm (began_s)")


def _key_columns_first(db):
    """SQLite 3.40 finds damage that is not there in a table whose key is not its first columns."""
    db.execute_sql(
        """CREATE TABLE new_withdrawn (
            batch INTEGER NOT NULL,
            at_s INTEGER NOT NULL,
            probe INTEGER NOT NULL,
            temperature_c REAL NOT NULL CHECK (temperature_c BETWEEN -20 AND 60),
            humidity REAL CHECK (humidity BETWEEN 0 AND 1),
            PRIMARY KEY (batch, at_s)
        ) STRICT, WITHOUT ROWID"""
    )
    columns = "batch, at_s, probe, temperature_c, humidity"
    db.execute_sql(f"INSERT INTO new_withdrawn ({columns}) SELECT {columns} FROM withdrawn_reading")
    db.execute_sql("DROP TABLE withdrawn_reading")
    db.execute_sql("ALTER TABLE new_withdrawn RENAME TO withdrawn_reading")


def _secrets_into_the_box(db):
    house = Path(db.database)
    rows = db.execute_sql(
        "SELECT id, entity, superseded_by IS NULL, target FROM messenger ORDER BY id"
    ).fetchall()
    for row, messenger, current, text in rows:
        target = json.loads(text)
        secrets = {name: target.pop(name) for name in _SECRET if name in target}
        target["sealed"] = sorted(name for name, secret in secrets.items() if secret)
        for name, secret in secrets.items():
            if secret and current:
                db.execute_sql(
                    "INSERT INTO messenger_secret (messenger, name, sealed) VALUES (?, ?, ?)",
                    (messenger, name, secret_box.seal(house, secret)),
                )
        db.execute_sql("UPDATE messenger SET target = ? WHERE id = ?", (json.dumps(target), row))
