"""From pip to first meals, and what was found in eggs that failed.

A hatchling's weights, meals and traits are those of any animal (records.animals).
"""

from peewee import IntegerField, TextField

from sandboa.records.facts import Fact


class Pip(Fact):
    """The first slit of an egg."""

    egg_id = IntegerField()
    seen_s = IntegerField()


class Cut(Fact):
    """An egg opened by hand at `at_s`: why, and whether it bled."""

    egg_id = IntegerField()
    at_s = IntegerField()
    reason = TextField()
    bled = IntegerField()


class Emergence(Fact):
    """Out of the egg."""

    egg_id = IntegerField()
    seen_s = IntegerField()


class Hatchling(Fact):
    """What came out of an egg; `part` is 2 for the second of twins.

    `defects` are kinds of core.hatching.Defect, separated by commas; `plain`
    is 1 when the keeper said that it shows no trait.
    """

    egg_id = IntegerField()
    part = IntegerField()
    sex = TextField()
    size = TextField(null=True)
    yolk = TextField(null=True)
    defects = TextField(default="")
    note = TextField(default="")
    plain = IntegerField(default=0)


class Shed(Fact):
    """A shed of a hatchling, the first one or a later one."""

    hatchling_id = IntegerField()
    seen_s = IntegerField()


class EggFate(Fact):
    """What became of an egg, declared by the keeper; `stage` where it died inside."""

    egg_id = IntegerField()
    at_s = IntegerField()
    fate = TextField()
    stage = TextField(null=True)


class Finished(Fact):
    """The clutch is closed: every egg has its fate."""

    clutch_id = IntegerField()
    at_s = IntegerField()


class Opening(Fact):
    """A failed egg was opened (1), or will not be (0: "not opened" is an answer)."""

    egg_id = IntegerField()
    at_s = IntegerField()
    opened = IntegerField()
    note = TextField(default="")


class Finding(Fact):
    """One thing seen in an opened egg (core.causes.findings)."""

    egg_id = IntegerField()
    kind = TextField()
    value = TextField()


class Gene(Fact):
    """A trait of the keeper's own list: how it is inherited, and what its double form does."""

    name = TextField()
    inheritance = TextField()
    double_form = TextField()


class Alteration(Fact):
    """Something was changed about a cabinet itself: foam drilled, parts glued, painted."""

    cabinet_id = IntegerField()
    at_s = IntegerField()
    what = TextField()
