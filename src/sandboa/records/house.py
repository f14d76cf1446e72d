"""Animals, cabinets, shelves, set points and probes."""

from typing import Final, TypeVar

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Fact

DAM: Final = "dam"
SIRE: Final = "sire"


class Animal(Fact):
    """A dam or a sire; `dam` and `sire` are its parents, where they are known."""

    role = TextField()
    name = TextField()
    code = TextField(null=True)
    hatch_year = IntegerField(null=True)
    traits = TextField(default="")
    dam = IntegerField(null=True)
    sire = IntegerField(null=True)
    retired = IntegerField(default=0)


class Cabinet(Fact):
    name = TextField()


class Shelf(Fact):
    """A place for boxes; position 1 is the top."""

    cabinet = IntegerField()
    name = TextField()
    position = IntegerField()


class SetPoint(Fact):
    """The cabinet's set point from `from_s` on."""

    cabinet = IntegerField()
    from_s = IntegerField()
    temperature_c = FloatField()


class Probe(Fact):
    """A logger or thermometer, hanging in `place` (a cabinet, shelf or box) since `since_s`."""

    name = TextField()
    place = IntegerField()
    since_s = IntegerField()
    checked = IntegerField()
    by_hand = IntegerField()


class Setting(Fact):
    """A number the keeper has set in place of the default."""

    name = TextField()
    value = FloatField()


class Task(Fact):
    """Something on a checklist of `subject` (a dam, a clutch), ticked."""

    subject = IntegerField()
    name = TextField()
    done_s = IntegerField()


NamedT = TypeVar("NamedT", Animal, Cabinet, Probe)


def named(table: type[NamedT], name: str) -> NamedT | None:
    """The current fact of `table` with that name, upper and lower case alike."""
    for row in table.current():
        if row.name.casefold() == name.casefold():
            return row
    return None
