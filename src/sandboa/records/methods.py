"""House methods, and the copy each clutch has of one."""

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Fact


class MethodLines(Fact):
    """The lines of a method; see core.methods. Has no table of its own."""

    name = TextField()
    medium = TextField()
    ratio = FloatField(null=True)
    contact = TextField()
    closing = TextField()
    temperature_c = FloatField()
    visits = TextField()
    mould = TextField()
    cutting = TextField()
    set_day = IntegerField(null=True)
    last_days = TextField()
    clump = TextField()
    tub = TextField()
    dam = TextField()


class Method(MethodLines):
    """A house method; `chosen` marks the one a new clutch starts from."""

    chosen = IntegerField()


class ClutchMethod(MethodLines):
    """What is done with one clutch: copied from a house method by `name`, then its own."""

    clutch_id = IntegerField()
