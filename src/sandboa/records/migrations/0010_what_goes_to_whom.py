"""Messengers by gravity, with a sign of life; kinds of messages; alarms at any hour."""


def up(migrator, db):
    for statement in (
        "ALTER TABLE messenger ADD COLUMN gravity TEXT NOT NULL DEFAULT 'notice' "
        "CHECK (gravity IN ('notice', 'alarm', 'emergency'))",
        "ALTER TABLE messenger ADD COLUMN life_at_min INTEGER "
        "CHECK (life_at_min BETWEEN 0 AND 1439)",
        "ALTER TABLE message ADD COLUMN kind TEXT NOT NULL DEFAULT 'alarm' "
        "CHECK (kind IN ('alarm', 'over', 'life', 'trial'))",
        "UPDATE message SET kind = 'trial' WHERE alarm IS NULL",
        "CREATE INDEX message_of_messenger ON message (messenger, id)",
        "ALTER TABLE alarm ADD COLUMN any_hour INTEGER NOT NULL DEFAULT 0 "
        "CHECK (any_hour IN (0, 1))",
    ):
        db.execute_sql(statement)
