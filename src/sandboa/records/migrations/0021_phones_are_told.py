"""A messenger may be a phone, told by the push service of its maker."""


def up(migrator, db):
    # A check cannot be altered: only its words change, and what holds goes on holding.
    version = db.execute_sql("PRAGMA schema_version").fetchone()[0]
    db.execute_sql("PRAGMA writable_schema = ON")
    try:
        db.execute_sql(
            "UPDATE sqlite_schema SET sql = replace(sql, ?, ?) "
            "WHERE type = 'table' AND name = 'messenger'",
            ("'webhook', 'record only'", "'webhook', 'push', 'record only'"),
        )
        db.execute_sql(f"PRAGMA schema_version = {version + 1}")
    finally:
        # Also reads the schema anew.
        db.execute_sql("PRAGMA writable_schema = RESET")
