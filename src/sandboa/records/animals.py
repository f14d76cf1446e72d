"""What is recorded of dams, sires and hatchlings: traits, weights, meals, tubs, and that they left;
and of dams and sires pairings and signs."""

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Fact


class Trait(Fact):
    animal_id = IntegerField()
    name = TextField()
    form = TextField()


class Weight(Fact):
    animal_id = IntegerField()
    at_s = IntegerField()
    mass_g = FloatField()


class Meal(Fact):
    """A meal offered; `taken` 0 is a refusal."""

    animal_id = IntegerField()
    at_s = IntegerField()
    taken = IntegerField()
    prey = TextField()
    mass_g = FloatField(null=True)


class Tub(Fact):
    """From `from_s` on the animal (or hatchling) lives in a tub of that name."""

    animal_id = IntegerField()
    name = TextField()
    from_s = IntegerField()


class Departure(Fact):
    """The animal (or hatchling) left the house: `how` is a core.hatching.raising.Departure."""

    animal_id = IntegerField()
    at_s = IntegerField()
    how = TextField()
    note = TextField(default="")


class Pair(Fact):
    """A dam and a sire meant for each other this season."""

    dam_id = IntegerField()
    sire_id = IntegerField()
    since_s = IntegerField()


class Pairing(Fact):
    """One visit of a sire with a dam; `until_s` null while they are together."""

    dam_id = IntegerField()
    sire_id = IntegerField()
    from_s = IntegerField()
    until_s = IntegerField(null=True)


class Lock(Fact):
    """A copulation seen during a pairing."""

    pairing_id = IntegerField()
    seen_s = IntegerField()


class Sign(Fact):
    """Off food, ovulation or pre-lay shed."""

    dam_id = IntegerField()
    kind = TextField()
    seen_s = IntegerField()
