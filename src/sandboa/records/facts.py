"""The journal of facts: appended, superseded, never overwritten."""

from collections.abc import Iterator
from typing import Any, Self

from peewee import AutoField, Expression, IntegerField, Model, TextField

from sandboa.records.database import database


class Record(Model):
    """Base of all models: bound to the house's database."""

    class Meta:
        database = database
        legacy_table_names = False


class Entity(Record):
    """Something facts are about; its id stays while the facts change."""

    id = AutoField()
    kind = TextField()


class Act(Record):
    """One thing the keeper did, recorded in one transaction.

    `undoes` is the act this one takes back; undoing that again redoes it.
    `person` is who recorded it; null: at the machine itself, before anyone had to sign in.
    """

    id = AutoField()
    kind = TextField()
    summary = TextField()
    recorded_s = IntegerField()
    clutch = IntegerField(null=True)
    undoes = IntegerField(null=True)
    person = IntegerField(null=True)


class Fact(Record):
    """Base of the fact tables. A row is current while `superseded_by` is null."""

    id = AutoField()
    entity = IntegerField()
    act = IntegerField()
    superseded_by = IntegerField(null=True)

    @classmethod
    def current(cls, *conditions: Expression) -> list[Self]:
        """The rows that hold now and meet the conditions."""
        return list(cls.select().where(cls.superseded_by.is_null(), *conditions))

    @classmethod
    def only(cls, *conditions: Expression) -> Self | None:
        """The one current row that meets the conditions, or None."""
        rows = cls.current(*conditions)
        return rows[0] if rows else None

    @classmethod
    def now(cls, entity: int) -> Self | None:
        """The current version of `entity`, or None when it is gone."""
        return cls.only(cls.entity == entity)

    @classmethod
    def record(cls, act: Act, **values: Any) -> Self:
        """Append the first fact about a new entity."""
        entity = Entity.create(kind=cls._meta.table_name)
        row: Self = cls.create(entity=entity.id, act=act.id, **values)
        return row

    @classmethod
    def put(cls, act: Act, key: dict[str, Any], **values: Any) -> Self:
        """Correct the current row with those key columns, or record it when there is none."""
        held = cls.only(*(getattr(cls, name) == value for name, value in key.items()))
        return held.correct(act, **values) if held else cls.record(act, **key, **values)

    def correct(self, act: Act, **values: Any) -> Self:
        """Put a new version in place of this one, which stays in the log."""
        kept = {**self.values(), **values}
        self.retire(act)
        row: Self = type(self).create(entity=self.entity, act=act.id, **kept)
        return row

    def retire(self, act: Act) -> None:
        """Supersede this row without a new version."""
        type(self).update(superseded_by=act.id).where(type(self).id == self.id).execute()

    def values(self) -> dict[str, Any]:
        """What the fact says, without its place in the journal."""
        own = {"id", "entity", "act", "superseded_by"}
        return {name: value for name, value in self.__data__.items() if name not in own}


def fact_tables() -> Iterator[type[Fact]]:
    """Every table of facts whose module is loaded; classes that only others share have none."""
    waiting = list(Fact.__subclasses__())
    while waiting:
        table = waiting.pop(0)
        further = table.__subclasses__()
        waiting += further
        if not further:
            yield table


def newest_act() -> int:
    """Id of the latest act, 0 in an empty house: changes whenever any fact does."""
    row = Act.select(Act.id).order_by(Act.id.desc()).first()
    return row.id if row else 0


def newest_act_of(kinds: tuple[str, ...]) -> int:
    """Id of the latest act of one of those kinds, 0 without any."""
    marks = ", ".join("?" * len(kinds))
    row = database.execute_sql(
        f"SELECT coalesce(max(id), 0) FROM act WHERE kind IN ({marks})", kinds
    ).fetchone()
    return int(row[0])


def newest_act_by_clutch() -> dict[int, int]:
    """Id of the latest act of each clutch."""
    rows: list[tuple[int, int]] = database.execute_sql(
        "SELECT clutch, max(id) FROM act WHERE clutch IS NOT NULL GROUP BY clutch"
    ).fetchall()
    return dict(rows)
