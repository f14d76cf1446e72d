"""Clutches, their boxes and eggs, and what was seen and done."""

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Act, Fact


class Clutch(Fact):
    code = TextField()
    dam = IntegerField()
    sire = IntegerField(null=True)
    laid_s = IntegerField()


class Box(Fact):
    """The closed container of a clutch; masses in g, null when the keeper did not say."""

    clutch = IntegerField()
    shelf = IntegerField()
    medium = TextField()
    dry_mass_g = FloatField(null=True)
    water_g = FloatField(null=True)
    closing = TextField()

    @classmethod
    def of(cls, clutch: Clutch) -> "Box":
        """The clutch's box; every clutch has one."""
        box = cls.only(cls.clutch == clutch.entity)
        assert box is not None, f"clutch {clutch.code} has no box"
        return box


class Egg(Fact):
    """An egg at its place: x from left, y from the door's far side, shares of the box."""

    clutch = IntegerField()
    number = IntegerField()
    x = FloatField()
    y = FloatField()
    slug = IntegerField()
    shell = TextField()


class Turgor(Fact):
    """One look at an egg: its turgor grade 0-4."""

    egg = IntegerField()
    seen_s = IntegerField()
    grade = IntegerField()


class Watering(Fact):
    """Water poured into a box, g."""

    box = IntegerField()
    poured_s = IntegerField()
    water_g = FloatField()


def clutch_coded(code: str) -> Clutch | None:
    """The current clutch with that code, upper and lower case alike."""
    return Clutch.only(Clutch.code.collate("NOCASE") == code)


def codes_beginning(year_prefix: str) -> list[str]:
    """All codes that begin with `year_prefix`, also those of undone clutches."""
    rows = Clutch.select(Clutch.code).where(Clutch.code.startswith(year_prefix)).distinct()
    return [row.code for row in rows]


def acts_of(clutch: int, limit: int = 200) -> list[Act]:
    """The clutch's acts, newest first."""
    return list(Act.select().where(Act.clutch == clutch).order_by(Act.id.desc()).limit(limit))
