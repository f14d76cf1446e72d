"""Clutches, their boxes and eggs, and what was seen and done."""

from peewee import FloatField, IntegerField, TextField

from sandboa.core.rounds import EggActKind
from sandboa.records.database import database
from sandboa.records.facts import Act, Fact


class Clutch(Fact):
    code = TextField()
    dam_id = IntegerField()
    sire_id = IntegerField(null=True)
    laid_s = IntegerField()


class Box(Fact):
    """Where a clutch lies; masses in g, null when the keeper did not say.

    Medium, closing and contact are null where the dam keeps the eggs in her tub.
    """

    clutch_id = IntegerField()
    shelf_id = IntegerField()
    medium = TextField(null=True)
    dry_mass_g = FloatField(null=True)
    water_g = FloatField(null=True)
    closing = TextField(null=True)
    contact = TextField(null=True)
    set_up_mass_g = FloatField(null=True)

    @classmethod
    def of(cls, clutch: Clutch) -> "Box":
        """The clutch's box; every clutch has one."""
        box = cls.only(clutch_id=clutch.entity_id)
        assert box is not None, f"clutch {clutch.code} has no box"
        return box


class BoxMove(Fact):
    """From `from_s` on the box stands on `shelf`; before its first move on the one it began on."""

    box_id = IntegerField()
    shelf_id = IntegerField()
    from_s = IntegerField()


class Egg(Fact):
    """An egg at its place: x from left, y from the door's far side, shares of the box.

    Eggs of the same `clump` number stick together.
    """

    clutch_id = IntegerField()
    number = IntegerField()
    x = FloatField()
    y = FloatField()
    slug = IntegerField()
    shell = TextField()
    clump = IntegerField(null=True)
    mass_g = FloatField(null=True)


class Candling(Fact):
    """One look at an egg with the torch: vessels, and where the disc lay."""

    egg_id = IntegerField()
    seen_s = IntegerField()
    vessels = TextField()
    disc = TextField(null=True)


class EggEvent(Fact):
    """What happened to an egg: turned, torn, dropped ..."""

    egg_id = IntegerField()
    at_s = IntegerField()
    kind = TextField()


class DamCheck(Fact):
    """Whether a lump was left in the dam's belly after laying."""

    clutch_id = IntegerField()
    at_s = IntegerField()
    lump = TextField()


class Turgor(Fact):
    """One look at an egg: its turgor grade 0-4."""

    egg_id = IntegerField()
    seen_s = IntegerField()
    grade = IntegerField()


class Watering(Fact):
    """Water poured into a box, g."""

    box_id = IntegerField()
    poured_s = IntegerField()
    water_g = FloatField()


def eggs_in_box(clutch: int, at_s: float) -> list[tuple[int, int, int | None]]:
    """(number, entity, latest grade by `at_s`) of the eggs still closed and in their box then.

    Slugs, removed and pipped eggs are left out; the grade is None where nobody had looked.
    """
    rows: list[tuple[int, int, int | None]] = database.execute_sql(
        """
        SELECT number, entity_id, (
            SELECT grade FROM turgor WHERE turgor.egg_id = egg.entity_id
            AND turgor.superseded_by_id IS NULL AND seen_s <= ?2
            ORDER BY seen_s DESC, id DESC LIMIT 1
        ) FROM egg WHERE clutch_id = ?1 AND superseded_by_id IS NULL AND NOT slug AND NOT EXISTS (
            SELECT 1 FROM egg_event AS event WHERE event.egg_id = egg.entity_id
            AND event.superseded_by_id IS NULL AND kind = ?3 AND at_s <= ?2
        ) AND NOT EXISTS (
            SELECT 1 FROM pip WHERE pip.egg_id = egg.entity_id
            AND pip.superseded_by_id IS NULL AND pip.seen_s <= ?2
        ) ORDER BY number
        """,
        (clutch, int(at_s), EggActKind.REMOVED.value),
    ).fetchall()
    return rows


def clutch_coded(code: str) -> Clutch | None:
    """The current clutch with that code, upper and lower case alike."""
    wanted = (Clutch.code.collate("NOCASE") == code) & Clutch.superseded_by_id.is_null()
    found: Clutch | None = Clutch.get_or_none(wanted)
    return found


def codes_beginning(year_prefix: str) -> list[str]:
    """All codes that begin with `year_prefix`, also those of undone clutches."""
    rows = Clutch.select(Clutch.code).where(Clutch.code.startswith(year_prefix)).distinct()
    return [row.code for row in rows]


def acts_of(clutch: int, limit: int = 200) -> list[Act]:
    """The clutch's acts, newest first."""
    return list(Act.select().where(Act.clutch_id == clutch).order_by(Act.id.desc()).limit(limit))
