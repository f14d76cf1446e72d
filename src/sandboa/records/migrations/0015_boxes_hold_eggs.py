"""A box is a thing of its own: it has a name, and eggs lie in it from a moment on.

Every clutch had one box. It gets the clutch's code as its name and holds the
clutch's eggs from lay on, each version of an egg's place as it was recorded.
Visits, and reasons put off, are the box's. What each act is about is written
down beside it, so that the log of a clutch, box, egg or animal is found at once.
"""

_FACT = """
    id INTEGER PRIMARY KEY,
    entity_id INTEGER NOT NULL REFERENCES entity (id),
    act_id INTEGER NOT NULL REFERENCES act (id),
    superseded_by_id INTEGER REFERENCES act (id)
"""
_OF_FACTS = ("id", "entity_id", "act_id", "superseded_by_id")

#: Columns of the new tables besides those of every fact.
_TABLES = {
    "box": """
        name TEXT NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
        kind TEXT NOT NULL CHECK (kind IN ('incubation', 'hatching', 'tub', 'other species')),
        species TEXT CHECK (length(species) BETWEEN 1 AND 60),
        shelf_id INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL,
        until_s INTEGER,
        medium TEXT,
        dry_mass_g REAL CHECK (dry_mass_g > 0),
        water_g REAL CHECK (water_g >= 0),
        closing TEXT,
        contact TEXT,
        set_up_mass_g REAL CHECK (set_up_mass_g > 0),
        CHECK (until_s > from_s)
    """,
    "egg": """
        clutch_id INTEGER NOT NULL REFERENCES entity (id),
        number INTEGER NOT NULL CHECK (number BETWEEN 1 AND 20),
        slug INTEGER NOT NULL CHECK (slug IN (0, 1)),
        shell TEXT NOT NULL,
        clump INTEGER CHECK (clump BETWEEN 1 AND 20),
        mass_g REAL CHECK (mass_g BETWEEN 10 AND 250)
    """,
    "egg_stay": """
        egg_id INTEGER NOT NULL REFERENCES entity (id),
        box_id INTEGER NOT NULL REFERENCES entity (id),
        from_s INTEGER NOT NULL,
        x REAL NOT NULL CHECK (x BETWEEN 0 AND 1),
        y REAL NOT NULL CHECK (y BETWEEN 0 AND 1)
    """,
    "visit": """
        box_id INTEGER NOT NULL REFERENCES entity (id),
        key TEXT NOT NULL CHECK (length(key) BETWEEN 8 AND 64),
        opened_s INTEGER NOT NULL,
        closed_s INTEGER NOT NULL,
        conflict TEXT NOT NULL,
        CHECK (closed_s >= opened_s)
    """,
    "postponement": """
        box_id INTEGER NOT NULL REFERENCES entity (id),
        kind TEXT NOT NULL,
        at_s INTEGER NOT NULL,
        until_s INTEGER NOT NULL,
        CHECK (until_s > at_s)
    """,
}
#: Columns of which a current row is the only one with its values, and columns to find by.
_UNIQUE = {
    "box": "name COLLATE NOCASE",
    "egg": "clutch_id, number",
    "egg_stay": "egg_id, from_s",
    "visit": "key",
    "postponement": "box_id, kind",
}
_FOUND_BY = {"egg_stay": "box_id", "visit": "box_id"}


def up(migrator, db):
    old = {table: _taken_out(db, table) for table in ("box", "egg", "visit", "postponement")}
    _create(db)
    codes, laid = _clutches(db)
    kept_by_dam = {
        row[0]
        for row in db.execute_sql(
            "SELECT clutch_id FROM clutch_method WHERE superseded_by_id IS NULL "
            "AND dam = 'maternal incubation'"
        )
    }
    boxes = {row["clutch_id"]: row["entity_id"] for row in old["box"]}
    for row in old["box"]:
        clutch = row.pop("clutch_id")
        tub = clutch in kept_by_dam or row["medium"] is None
        _put(db, "box", {
            **row, "name": codes[clutch], "kind": "tub" if tub else "incubation",
            "species": None, "from_s": laid[clutch],
        })  # fmt: skip
    stays = {}
    for row in old["egg"]:
        egg, clutch = row["entity_id"], row["clutch_id"]
        if egg not in stays:
            stays[egg] = db.execute_sql("INSERT INTO entity (kind) VALUES ('egg_stay')").lastrowid
        place = {"x": row.pop("x"), "y": row.pop("y")}
        _put(db, "egg", row)
        if clutch in boxes:
            of_fact = {"act_id": row["act_id"], "superseded_by_id": row["superseded_by_id"]}
            _put(db, "egg_stay", {
                "entity_id": stays[egg], **of_fact, "egg_id": egg, "box_id": boxes[clutch],
                "from_s": laid[clutch], **place,
            })  # fmt: skip
    for table in ("visit", "postponement"):
        for row in old[table]:
            box = boxes[row.pop("clutch_id")]
            _put(db, table, {**row, "box_id": box})
    # What an egg weighed that was taken out was told by its number.
    db.execute_sql("ALTER TABLE mass_change ADD COLUMN egg_id INTEGER REFERENCES entity (id)")
    for egg, number, box in db.execute_sql(
        "SELECT DISTINCT egg.entity_id, number, box_id FROM egg "
        "JOIN egg_stay ON egg_stay.egg_id = egg.entity_id"
    ).fetchall():
        db.execute_sql(
            "UPDATE mass_change SET egg_id = ? WHERE box_id = ? AND what = ?",
            (egg, box, f"egg {number}"),
        )
    # It never was an id.
    db.execute_sql("ALTER TABLE photo RENAME COLUMN egg_id TO egg_number")
    _write_subjects(db)


def _taken_out(db, table):
    """Every row of a table that is made anew, by column; the table is dropped."""
    cursor = db.execute_sql(f"SELECT * FROM {table} ORDER BY id")
    names = [column[0] for column in cursor.description]
    rows = [dict(zip(names, row, strict=True)) for row in cursor.fetchall()]
    db.execute_sql(f"DROP TABLE {table}")
    return rows


def _create(db):
    for table, columns in _TABLES.items():
        db.execute_sql(f"CREATE TABLE {table} ({_FACT}, {columns}) STRICT")
        db.execute_sql(f"CREATE INDEX {table}_act ON {table} (act_id)")
        db.execute_sql(
            f"CREATE INDEX {table}_superseded ON {table} (superseded_by_id) "
            "WHERE superseded_by_id IS NOT NULL"
        )
        db.execute_sql(
            f"CREATE UNIQUE INDEX {table}_current ON {table} (entity_id) "
            "WHERE superseded_by_id IS NULL"
        )
        db.execute_sql(
            f"CREATE UNIQUE INDEX {table}_one ON {table} ({_UNIQUE[table]}) "
            "WHERE superseded_by_id IS NULL"
        )
    for table, column in _FOUND_BY.items():
        db.execute_sql(
            f"CREATE INDEX {table}_of_{column.removesuffix('_id')} ON {table} ({column}) "
            "WHERE superseded_by_id IS NULL"
        )
    # What an act is about: animals, cabinets, boxes, eggs, clutches, probes.
    db.execute_sql(
        """CREATE TABLE act_subject (
            act_id INTEGER NOT NULL REFERENCES act (id),
            subject_id INTEGER NOT NULL REFERENCES entity (id),
            PRIMARY KEY (act_id, subject_id)
        ) STRICT, WITHOUT ROWID"""
    )
    db.execute_sql("CREATE INDEX act_subject_of ON act_subject (subject_id, act_id)")


def _clutches(db):
    """The code and the lay time (s) of every clutch that ever was, as they are now."""
    rows = db.execute_sql(
        "SELECT entity_id, code, laid_s FROM clutch ORDER BY superseded_by_id IS NULL, id"
    ).fetchall()
    return {row[0]: row[1] for row in rows}, {row[0]: row[2] for row in rows}


def _put(db, table, row):
    names = ", ".join(row)
    marks = ", ".join("?" * len(row))
    db.execute_sql(f"INSERT INTO {table} ({names}) VALUES ({marks})", tuple(row.values()))


def _write_subjects(db):
    """For every act of the past: what its rows, and those it superseded, point at."""
    kinds = "('animal', 'box', 'cabinet', 'clutch', 'egg', 'hatchling', 'pairing', 'probe')"
    told = "INSERT OR IGNORE INTO act_subject (act_id, subject_id) "
    tables = [
        row[0]
        for row in db.execute_sql("SELECT name FROM sqlite_schema WHERE type = 'table'").fetchall()
    ]
    for table in tables:
        columns = [row[1] for row in db.execute_sql(f'PRAGMA table_info("{table}")').fetchall()]
        if not {"entity_id", "act_id", "superseded_by_id"} <= set(columns):
            continue
        for column in columns:
            if column.endswith("_id") and column not in ("act_id", "superseded_by_id"):
                for act in ("act_id", "superseded_by_id"):
                    db.execute_sql(
                        f'{told} SELECT f.{act}, f."{column}" FROM "{table}" AS f '
                        f'JOIN entity AS e ON e.id = f."{column}" AND e.kind IN {kinds} '
                        f"WHERE f.{act} IS NOT NULL"
                    )
    db.execute_sql(f"{told} SELECT id, clutch_id FROM act WHERE clutch_id IS NOT NULL")
    for column, table, found_by in (
        ("egg_id", "hatchling", "entity_id"),
        ("clutch_id", "egg", "entity_id"),
        ("box_id", "egg_stay", "egg_id"),
        ("dam_id", "pairing", "entity_id"),
        ("sire_id", "pairing", "entity_id"),
    ):
        db.execute_sql(
            f"{told} SELECT DISTINCT s.act_id, f.{column} FROM act_subject AS s "
            f"JOIN {table} AS f ON f.{found_by} = s.subject_id"
        )
    # A box held one clutch.
    db.execute_sql(
        f"{told} SELECT DISTINCT s.act_id, egg.clutch_id FROM act_subject AS s "
        "JOIN egg_stay ON egg_stay.box_id = s.subject_id "
        "JOIN egg ON egg.entity_id = egg_stay.egg_id"
    )
