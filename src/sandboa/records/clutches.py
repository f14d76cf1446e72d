"""Clutches, their boxes and eggs, and what was seen and done."""

from peewee import FloatField, IntegerField, TextField

from sandboa.records.facts import Fact


class Clutch(Fact):
    code = TextField()
    dam_id = IntegerField()
    sire_id = IntegerField(null=True)
    laid_s = IntegerField()


class PastClutch(Fact):
    """A clutch of before Sandboa, as a card tells it: of its eggs only counts are known.

    Days are noon UTC of them. `hatched` and `first_pip_s` are null where the card does not say,
    `kept_c` where nobody knows what it was kept at.
    """

    code = TextField(null=True)
    dam_id = IntegerField()
    sire_id = IntegerField(null=True)
    laid_s = IntegerField()
    eggs = IntegerField()
    slugs = IntegerField()
    hatched = IntegerField(null=True)
    first_pip_s = IntegerField(null=True)
    kept_c = FloatField(null=True)


class PossibleSire(Fact):
    """One of the sires a clutch may be of; its `sire_id` is null as long as there are several."""

    clutch_id = IntegerField()
    sire_id = IntegerField()


class ClutchOrigin(Fact):
    """A clutch that nobody saw laid, or that comes from elsewhere.

    It was laid between `laid_from_s` and `laid_until_s`, or showed `stage` by torch at
    `stage_seen_s` (core.laying.origin); neither where its lay time is known. It came at
    `arrived_s`, null where it was here all the time, and had been at about `before_c`, null where
    nobody knows. The `laid_s` of the clutch is the middle of it, as it was reckoned then.
    """

    clutch_id = IntegerField()
    kind = TextField()
    laid_from_s = IntegerField(null=True)
    laid_until_s = IntegerField(null=True)
    stage = TextField(null=True)
    stage_seen_s = IntegerField(null=True)
    arrived_s = IntegerField(null=True)
    before_c = FloatField(null=True)


class Box(Fact):
    """A container that holds eggs; masses in g, null when the keeper did not say.

    It stands on `shelf` from `from_s` on, until its first move; null in `until_s`: it is in use
    while eggs lie in it. `kind` is one of
    core.box.BoxKind, `species` of a box of another species. Medium, closing and
    contact are null where the dam keeps the eggs in her tub.
    """

    name = TextField()
    kind = TextField()
    species = TextField(null=True)
    shelf_id = IntegerField()
    from_s = IntegerField()
    until_s = IntegerField(null=True)
    medium = TextField(null=True)
    dry_mass_g = FloatField(null=True)
    water_g = FloatField(null=True)
    closing = TextField(null=True)
    contact = TextField(null=True)
    set_up_mass_g = FloatField(null=True)


class BoxMove(Fact):
    """From `from_s` on the box stands on `shelf`; before its first move on the one it began on."""

    box_id = IntegerField()
    shelf_id = IntegerField()
    from_s = IntegerField()


class Egg(Fact):
    """An egg; those of the same `clump` number stick together. Where it lies is in its stays.

    `shell` are the marks of its shell when it was laid (core.box.shell_marks).
    """

    clutch_id = IntegerField()
    number = IntegerField()
    slug = IntegerField()
    shell = TextField()
    clump = IntegerField(null=True)
    mass_g = FloatField(null=True)


class EggStay(Fact):
    """From `from_s` on an egg lies in that box: x from left, y from the door's far side, shares.

    The first stay of an egg reaches back to when it was laid.
    """

    egg_id = IntegerField()
    box_id = IntegerField()
    from_s = IntegerField()
    x = FloatField()
    y = FloatField()


class Candling(Fact):
    """One look at an egg with the torch: vessels, and where the disc lay."""

    egg_id = IntegerField()
    seen_s = IntegerField()
    vessels = TextField()
    disc = TextField(null=True)


class ShellLook(Fact):
    """The marks of a shell as they were seen after lay day (core.box.shell_marks)."""

    egg_id = IntegerField()
    seen_s = IntegerField()
    shells = TextField()


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


def stay_of_egg(egg: int, at_s: float) -> EggStay | None:
    """Where an egg lay at a time; its first stay reaches back. None for an unknown egg."""
    stays: list[EggStay] = sorted(EggStay.current(egg_id=egg), key=lambda stay: stay.from_s)
    lying = [stay for stay in stays if stay.from_s <= at_s] or stays[:1]
    return lying[-1] if lying else None


def box_of_egg(egg: int, at_s: float) -> int | None:
    """The box an egg lay in at a time; None for an unknown egg."""
    stay = stay_of_egg(egg, at_s)
    return None if stay is None else stay.box_id


def box_named(name: str) -> Box | None:
    """The current box of that name, upper and lower case alike."""
    wanted = (Box.name.collate("NOCASE") == name) & Box.superseded_by_id.is_null()
    found: Box | None = Box.get_or_none(wanted)
    return found


def clutch_coded(code: str) -> Clutch | None:
    """The current clutch with that code, upper and lower case alike."""
    wanted = (Clutch.code.collate("NOCASE") == code) & Clutch.superseded_by_id.is_null()
    found: Clutch | None = Clutch.get_or_none(wanted)
    return found


def codes_beginning(year_prefix: str) -> list[str]:
    """All codes that begin with `year_prefix`, also those of undone clutches."""
    rows = Clutch.select(Clutch.code).where(Clutch.code.startswith(year_prefix)).distinct()
    return [row.code for row in rows]
