"""What a clutch taught tells apart what its probe may be off by from the rest of its record.

Clutches measured by one probe share that. It is worked out anew, a few at a look.
What was said of an egg is kept with its chance to hatch.
"""


def up(migrator, db):
    db.execute_sql("ALTER TABLE lesson ADD COLUMN probe TEXT")
    db.execute_sql("ALTER TABLE lesson ADD COLUMN probe_sd REAL NOT NULL DEFAULT 0")
    db.execute_sql("ALTER TABLE standing_told ADD COLUMN will_hatch REAL")
    db.execute_sql("UPDATE lesson SET after_act_id = 0")
