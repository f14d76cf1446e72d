"""What a round leaves behind: visits, signs, weighings, acts at the box, things put off."""

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Fact


class Visit(Fact):
    """A box opened and shut. `key` is the closing device's own; `conflict` tells what collided.

    With `rest_as_before` every closed egg that lay in it then, and of which nothing was seen
    in this visit, was as it had been at the look before.
    """

    box_id = IntegerField()
    key = TextField()
    opened_s = IntegerField()
    closed_s = IntegerField()
    conflict = TextField(default="")
    rest_as_before = IntegerField(default=0)


class EggSign(Fact):
    """One sign of an egg (core.standing.signs): mould, smell, wet, colour, feel ..."""

    egg_id = IntegerField()
    seen_s = IntegerField()
    kind = TextField()
    value = TextField()


class BoxSign(Fact):
    """One sign of a box: its lid, its medium, how heavy it feels, its smell."""

    box_id = IntegerField()
    seen_s = IntegerField()
    kind = TextField()
    value = TextField()


class BoxDone(Fact):
    """Something done at a box (core.rounds.acts)."""

    box_id = IntegerField()
    at_s = IntegerField()
    kind = TextField()


class Weighing(Fact):
    """The whole box on the scale, g, as it was found."""

    box_id = IntegerField()
    at_s = IntegerField()
    mass_g = FloatField()


class MassChange(Fact):
    """Something put in (+) or taken out (-) that is not water, g; `egg` where it was one."""

    box_id = IntegerField()
    at_s = IntegerField()
    delta_g = FloatField()
    what = TextField()
    egg_id = IntegerField(null=True)


class ClosingChange(Fact):
    """From `from_s` on the box is closed another way."""

    box_id = IntegerField()
    from_s = IntegerField()
    closing = TextField()


class SetUp(Fact):
    """Fresh medium: from here on water is counted anew."""

    box_id = IntegerField()
    at_s = IntegerField()
    medium = TextField()
    water_g = FloatField(null=True)
    mass_g = FloatField(null=True)


class Postponement(Fact):
    """A reason to open a box, put off until `until_s`."""

    box_id = IntegerField()
    kind = TextField()
    at_s = IntegerField()
    until_s = IntegerField()


def visit_with(key: str) -> Visit | None:
    """The visit of that key, also one that was undone since: it was delivered."""
    row: Visit | None = Visit.select().where(Visit.key == key).order_by(Visit.id).first()
    return row
