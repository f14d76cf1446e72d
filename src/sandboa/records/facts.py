"""The log of facts: appended, superseded, never overwritten."""

from collections.abc import Collection, Iterable, Iterator
from functools import cache
from typing import Any, Final, Self, TypeVar

from peewee import AutoField, Expression, IntegerField, Model, TextField

from sandboa.core.messages import Words
from sandboa.records import subjects
from sandboa.records.database import database
from sandboa.records.integrity import chain, seals
from sandboa.records.said import kept, said

#: Tables that acts under way have recorded in or superseded rows of, by act: what its hash covers
#: is looked for there alone. Writers come one after another.
_touched: dict[int, set[str]] = {}
#: The latest moment (s) that acts under way have recorded, by act.
_happened: dict[int, int] = {}
#: Columns that say when the thing recorded was seen, done or began.
_MOMENTS: Final = (
    "arrived_s", "at_s", "closed_s", "done_s", "from_s", "held_s", "laid_s", "poured_s", "seen_s",
    "since_s", "taken_s",
)  # fmt: skip


#: Later than any act.
_NEVER: Final = 2**62


class Record(Model):
    """Base of all models: bound to the house's database."""

    class Meta:
        database = database
        legacy_table_names = False

    @classmethod
    def create(cls, **values: Any) -> Self:
        """Append a row; as peewee does, but its statement is built once for all rows alike."""
        if strange := values.keys() - cls._meta.fields.keys():
            # The object mapper would keep it on the row and store nothing of it.
            raise TypeError(f"{cls._meta.table_name} has no column {min(strange)}")
        row: Self = cls(**values)
        fields = [field for field in cls._meta.sorted_fields if field.name in row.__data__]
        written = database.execute_sql(
            _insert(cls, tuple(field.column_name for field in fields)),
            tuple(field.db_value(row.__data__[field.name]) for field in fields),
        )
        key = cls._meta.primary_key
        if isinstance(key, AutoField) and key.name not in row.__data__:
            row.__data__[key.name] = written.lastrowid
        row._dirty.clear()  # type: ignore[attr-defined]
        return row


class Sealed(Record):
    """A row that changes in place and carries a seal over what it says (see integrity.seals)."""

    seal = IntegerField(default=0)

    @classmethod
    def create(cls, **values: Any) -> Self:
        """Append a row, sealed."""
        with database.atomic("IMMEDIATE"):
            row = super().create(**values)
            row._reseal()
        return row

    @classmethod
    def change(cls, *conditions: Expression, **values: Any) -> int:
        """Change the rows that meet the conditions; returns how many did."""
        with database.atomic("IMMEDIATE"):
            rows = list(cls.select().where(*conditions))
            for row in rows:
                for name, value in values.items():
                    setattr(row, name, value)
                row.save()
        return len(rows)

    def save(self, *given: Any, **named: Any) -> int:
        """Write the row as it is now, sealed anew."""
        with database.atomic("IMMEDIATE"):
            written: int = super().save(*given, **named)
            self._reseal()
        return written

    def _reseal(self) -> None:
        table = type(self)._meta.table_name
        key: Any = type(self)._meta.primary_key
        same = f'"{key.column_name}" = ?'
        seals.reseal(database.connection(), table, same, getattr(self, key.name))


class Entity(Record):
    """Something facts are about; its id stays while the facts change."""

    id = AutoField()
    kind = TextField()


class Act(Record):
    """One thing the keeper did, recorded in one transaction.

    `undoes_id` is the act this one takes back; undoing that again redoes it.
    `person_id` is who recorded it; null: at the machine itself, before anyone had to sign in.
    `message` is what the summary is made of, null where it tells no quantity (see `said`).
    `at_s` is when what it records happened, as far as that was not after it was recorded; null
    where it tells no moment, takes another act back, or was recorded before acts had one.
    `hash` covers the act before and everything this one recorded (see integrity.chain).
    """

    id = AutoField()
    kind = TextField()
    summary = TextField()
    message = TextField(null=True)
    recorded_s = IntegerField()
    at_s = IntegerField(null=True)
    clutch_id = IntegerField(null=True)
    undoes_id = IntegerField(null=True)
    person_id = IntegerField(null=True)
    hash = TextField(default="")

    @property
    def said(self) -> Words:
        """The summary, for whoever reads it."""
        return said(self.summary, self.message)

    def say(self, summary: Words) -> None:
        """Give the act another summary, until it is closed."""
        self.summary, self.message = str(summary), kept(summary)

    def is_of_no_moment(self) -> None:
        """Let it have happened when it was recorded, whatever days it told of so far."""
        _happened.pop(self.id, None)

    def close(self) -> None:
        """Write it as it is now and chain it to the one before; the last thing of its transaction.

        Nothing is recorded by it any more.
        """
        happened_s = _happened.pop(self.id, 0)
        if self.undoes_id is None and 0 < happened_s <= self.recorded_s:
            self.at_s = happened_s
        self.save()
        touched = sorted(_touched.pop(self.id, ()))
        subjects.write(database.connection(), self.id, touched)
        chain.seal_act(database.connection(), self.id, touched)


class Fact(Record):
    """Base of the fact tables. A row is current while `superseded_by_id` is null."""

    id = AutoField()
    entity_id = IntegerField()
    act_id = IntegerField()
    superseded_by_id = IntegerField(null=True)

    @classmethod
    def current(cls, **having: Any) -> list[Self]:
        """The rows that hold now and have those values by column.

        None: no value; a list or a set: one of its values. TypeError for a column there is not.
        """
        return cls._held("superseded_by_id IS NULL", (), having)

    @classmethod
    def since(cls, act_id: int, **having: Any) -> list[Self]:
        """As `current`, of them those that later acts than that one recorded."""
        return cls._held("superseded_by_id IS NULL AND act_id > ?", (act_id,), having)

    @classmethod
    def as_of(cls, act_id: int) -> list[Self]:
        """The rows that held at an act, from the table itself: no damage to an index hides one."""
        which = "+act_id <= ? AND ifnull(superseded_by_id, ?) > ?"
        return sorted(cls._held(which, (act_id, _NEVER, act_id), {}), key=lambda row: row.id)

    @classmethod
    def between(cls, after: int, until: int) -> list[Self]:
        """Rows that acts after one and up to another recorded, as they held at the other."""
        which = "act_id > ? AND act_id <= ? AND ifnull(superseded_by_id, ?) > ?"
        rows = cls._held(which, (after, until, _NEVER, until), {})
        return sorted(rows, key=lambda row: row.id)

    @classmethod
    def ended_between(cls, after: int, until: int) -> list[int]:
        """Ids of the rows that acts after one and up to another put an end to."""
        ended = f'SELECT id FROM "{cls._meta.table_name}" WHERE superseded_by_id > ? AND '
        rows = database.execute_sql(f"{ended}superseded_by_id <= ?", (after, until)).fetchall()
        return [row[0] for row in rows]

    @classmethod
    def ever(cls, **having: Any) -> list[Self]:
        """As `current`, and the rows that hold no longer; in the order they were recorded."""
        return sorted(cls._held("1", (), having), key=lambda row: row.id)

    @classmethod
    def _held(cls, which: str, asked: tuple[int, ...], having: dict[str, Any]) -> list[Self]:
        if strange := having.keys() - cls._meta.fields.keys():
            raise TypeError(f"{cls._meta.table_name} has no column {min(strange)}")
        shape = tuple((column, _matches(value)) for column, value in having.items())
        values = [value for given in having.values() for value in _values(given)]
        rows = database.execute_sql(_select(cls, which, shape), (*asked, *values))
        names = tuple(field.name for field in cls._meta.sorted_fields)
        return [cls._read(names, row) for row in rows]

    @classmethod
    def _read(cls, names: tuple[str, ...], row: tuple[Any, ...]) -> Self:
        """A row as it lies in the table, without the object mapper's work for each value."""
        read = cls.__new__(cls)
        read.__data__ = dict(zip(names, row, strict=True))
        read.__rel__ = {}
        read._dirty = set()  # type: ignore[attr-defined]
        return read

    @classmethod
    def only(cls, **having: Any) -> Self | None:
        """The one current row with those values, or None."""
        rows = cls.current(**having)
        return rows[0] if rows else None

    @classmethod
    def now(cls, entity: int) -> Self | None:
        """The current version of `entity`, or None when it is gone."""
        return cls.only(entity_id=entity)

    @classmethod
    def record(cls, act: Act, **values: Any) -> Self:
        """Append the first fact about a new entity."""
        entity = Entity.create(kind=cls._meta.table_name)
        row: Self = cls.create(entity_id=entity.id, act_id=act.id, **values)
        return row

    @classmethod
    def put(cls, act: Act, key: dict[str, Any], **values: Any) -> Self:
        """Correct the current row with those key columns, or record it when there is none."""
        held = cls.only(**key)
        return held.correct(act, **values) if held else cls.record(act, **key, **values)

    def correct(self, act: Act, **values: Any) -> Self:
        """Put a new version in place of this one, which stays in the log."""
        kept = {**self.values(), **values}
        self.retire(act)
        row: Self = type(self).create(entity_id=self.entity_id, act_id=act.id, **kept)
        return row

    def correct_if_changed(self, act: Act, **values: Any) -> Self:
        """As `correct`; this one stays where it says so already."""
        held = self.values()
        same = all(held[name] == value for name, value in values.items())
        return self if same else self.correct(act, **values)

    @classmethod
    def create(cls, **values: Any) -> Self:
        """Append a row, noted as recorded by its act."""
        act = values["act_id"]
        _touched.setdefault(act, set()).add(cls._meta.table_name)
        told = [int(values[name]) for name in _MOMENTS if values.get(name) is not None]
        _happened[act] = max([*told, _happened.get(act, 0)])
        return super().create(**values)

    def retire(self, act: Act) -> None:
        """Supersede this row without a new version."""
        _touched.setdefault(act.id, set()).add(type(self)._meta.table_name)
        type(self).update(superseded_by_id=act.id).where(type(self).id == self.id).execute()

    def values(self) -> dict[str, Any]:
        """What the fact says, without its place in the log."""
        own = {"id", "entity_id", "act_id", "superseded_by_id"}
        return {name: value for name, value in self.__data__.items() if name not in own}


def _matches(value: Any) -> str:
    if value is None:
        return "IS NULL"
    if isinstance(value, list | set | frozenset):
        return f"IN ({', '.join('?' * len(value))})"
    return "= ?"


def _values(given: Any) -> Iterable[Any]:
    if given is None:
        return ()
    return given if isinstance(given, list | set | frozenset) else (given,)


# Most of the time of a short act went into building the same statements again and again.


@cache
def _select(table: type[Fact], which: str, shape: tuple[tuple[str, str], ...]) -> str:
    told = ", ".join(f'"{field.column_name}"' for field in table._meta.sorted_fields)
    wanted = "".join(f' AND "{column}" {matches}' for column, matches in shape)
    return f'SELECT {told} FROM "{table._meta.table_name}" WHERE {which}{wanted}'


@cache
def _insert(table: type[Record], columns: tuple[str, ...]) -> str:
    told = ", ".join(f'"{column}"' for column in columns)
    marks = ", ".join("?" * len(columns))
    return f'INSERT INTO "{table._meta.table_name}" ({told}) VALUES ({marks})'


def fact_tables() -> Iterator[type[Fact]]:
    """Every table of facts whose module is loaded; classes that only others share have none."""
    waiting = list(Fact.__subclasses__())
    while waiting:
        table = waiting.pop(0)
        further = table.__subclasses__()
        waiting += further
        if not further:
            yield table


FactT = TypeVar("FactT", bound=Fact)


def act_numbered(act_id: int) -> Act | None:
    """The act with that id, None for no such one."""
    found: Act | None = Act.get_or_none(Act.id == act_id)
    return found


def act_of(row: Fact) -> Act:
    """The act that recorded a fact."""
    recording: Act = Act.get_by_id(row.act_id)
    return recording


def acts_lately(limit: int, before: int | None = None) -> list[Act]:
    """The acts of the whole house, newest first; those before another act where one is given."""
    acts = Act.select().order_by(Act.id.desc()).limit(limit)
    return list(acts if before is None else acts.where(Act.id < before))


def undoers_of(act_ids: Iterable[int]) -> list[Act]:
    """The acts that take back, or do again, one of those."""
    return list(Act.select().where(Act.undoes_id << list(act_ids)))


def superseded_by(table: type[FactT], act: Act) -> list[FactT]:
    """The rows of a table that an act put an end to."""
    return table.ever(superseded_by_id=act.id)


def newest_act() -> int:
    """Id of the latest act, 0 in an empty house: changes whenever any fact does."""
    row = Act.select(Act.id).order_by(Act.id.desc()).first()
    return row.id if row else 0


def first_recorded_s() -> int | None:
    """When the first act of the house was recorded (s); None in an empty house."""
    row = Act.select(Act.recorded_s).order_by(Act.id).first()
    return row.recorded_s if row else None


def recorded_s_of(act_ids: Collection[int]) -> dict[int, float]:
    """When each of those acts was recorded (s)."""
    rows = Act.select(Act.id, Act.recorded_s).where(Act.id << list(act_ids))
    return {row.id: float(row.recorded_s) for row in rows}


def last_recorded_s() -> int | None:
    """When the newest act was recorded (s); None in an empty house."""
    row = Act.select(Act.recorded_s).order_by(Act.id.desc()).first()
    return row.recorded_s if row else None


def newest_act_of(kinds: tuple[str, ...], until: int = _NEVER) -> int:
    """Id of the latest act of one of those kinds, up to one; 0 without any."""
    marks = ", ".join("?" * len(kinds))
    row = database.execute_sql(
        f"SELECT coalesce(max(id), 0) FROM act WHERE kind IN ({marks}) AND id <= ?",
        (*kinds, until),
    ).fetchone()
    return int(row[0])


def newest_act_by(kind: str, until: int = _NEVER) -> dict[int, int]:
    """Id of the latest act, up to one, about each thing of a kind: each clutch, each box."""
    rows: list[tuple[int, int]] = database.execute_sql(
        "SELECT subject_id, max(act_id) FROM act_subject JOIN entity ON entity.id = subject_id "
        "WHERE entity.kind = ? AND act_id <= ? GROUP BY subject_id",
        (kind, until),
    ).fetchall()
    return dict(rows)


def acts_about(*subjects: int, limit: int = 200, before: int | None = None) -> list[Act]:
    """The acts about any of those animals, cabinets, boxes, eggs, clutches or probes, newest
    first; those before another act where one is given."""
    marks = ", ".join("?" * len(subjects))
    about = (
        f"SELECT DISTINCT act_id FROM act_subject WHERE subject_id IN ({marks}) AND act_id < ? "
        "ORDER BY act_id DESC LIMIT ?"
    )
    asked = (*subjects, _NEVER if before is None else before, limit)
    ids = [row[0] for row in database.execute_sql(about, asked).fetchall()]
    return list(Act.select().where(Act.id << ids).order_by(Act.id.desc()))


def has_log(subject: int) -> bool:
    """Whether something with that id is one of those that have a log."""
    found = Entity.get_or_none(Entity.id == subject)
    return found is not None and found.kind in subjects.KINDS
