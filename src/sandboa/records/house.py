"""Animals, cabinets, shelves, set points and probes."""

from typing import TypeVar

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Fact


class Animal(Fact):
    """A dam or a sire; `dam` and `sire` are its parents, where they are known.

    One that was held back has the `hatchling_id` it was recorded as before, and when that was
    (`held_s`): what was recorded of the hatchling is recorded of it.
    """

    role = TextField()
    name = TextField()
    code = TextField(null=True)
    hatch_year = IntegerField(null=True)
    traits = TextField(default="")
    dam_id = IntegerField(null=True)
    sire_id = IntegerField(null=True)
    retired = IntegerField(default=0)
    hatchling_id = IntegerField(null=True)
    held_s = IntegerField(null=True)


class Cabinet(Fact):
    """`kind` is bought or home-built; `ballast_l` is water that stands in it to hold the heat."""

    name = TextField()
    kind = TextField(default="bought")
    volume_l = FloatField(null=True)
    ballast_l = FloatField(null=True)


class Shelf(Fact):
    """A place for boxes; position 1 is the top."""

    cabinet_id = IntegerField()
    name = TextField()
    position = IntegerField()


class SetPoint(Fact):
    """The cabinet's set point from `from_s` on."""

    cabinet_id = IntegerField()
    from_s = IntegerField()
    temperature_c = FloatField()


class Probe(Fact):
    """A logger or thermometer, first hung in `place` (a cabinet, shelf or box) at `since_s`.

    Where it went after that is in its moves. `device` is what sends its
    readings, null when they come as files or by hand.
    """

    name = TextField()
    place_id = IntegerField()
    since_s = IntegerField()
    checked = IntegerField()
    by_hand = IntegerField()
    device_id = IntegerField(null=True)


class ProbeMove(Fact):
    """From `from_s` on the probe hangs in `place`; null: it was taken down."""

    probe_id = IntegerField()
    place_id = IntegerField(null=True)
    from_s = IntegerField()


class ProbeCheck(Fact):
    """The probe beside a reference (°C) or in the salt test (humidity 0-1), at `at_s`."""

    probe_id = IntegerField()
    at_s = IntegerField()
    kind = TextField()
    shown = FloatField()
    expected = FloatField()


class LeftOut(Fact):
    """Readings the keeper does not believe: kept and drawn, not used for the eggs."""

    probe_id = IntegerField()
    from_s = IntegerField()
    until_s = IntegerField()
    reason = TextField()


class Device(Fact):
    """Something that sends readings with a token of its own; only the token's hash is kept."""

    name = TextField()
    token_hash = TextField()


class HeardValue(Fact):
    """What the value at `path` of a message is: a `quantity` of a probe, in `unit` (c, f, k,
    percent, fraction).

    The message comes on `topic` of a broker, or from `device` by HTTP. `path` is empty where the
    whole message is the value.
    """

    topic = TextField(null=True)
    device_id = IntegerField(null=True)
    path = TextField()
    quantity = TextField()
    unit = TextField()
    probe_id = IntegerField()


class Setting(Fact):
    """A number the keeper has set in place of the default."""

    name = TextField()
    value = FloatField()


class Task(Fact):
    """Something on a checklist of `subject` (a dam, a clutch), ticked."""

    subject_id = IntegerField()
    name = TextField()
    done_s = IntegerField()


NamedT = TypeVar("NamedT", Animal, Cabinet, Probe, Device)


def named(table: type[NamedT], name: str) -> NamedT | None:
    """The current fact of `table` with that name, upper and lower case alike."""
    for row in table.current():
        if row.name.casefold() == name.casefold():
            return row
    return None
