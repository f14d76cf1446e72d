"""Closing a visit to a box: everything seen and done at it, recorded as one act.

A visit has a key made by the device that closed it. Delivered again, it is
the same visit. What another device recorded meanwhile is told as a conflict;
nothing of either is lost.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.box import Closing
from sandboa.core.candling import Disc, Vessels
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.dimples.stages import GRADES
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EGG_MASS_RANGE_G
from sandboa.core.rounds import BoxActKind, EggActKind
from sandboa.core.standing import RECORDED_KINDS, SIGNS, SignKind
from sandboa.core.units import SECONDS_PER_HOUR, require_range
from sandboa.core.water import (
    POURED_RANGE_G,
    WATER_SIGNS,
    WaterSignKind,
    Weighing,
    medium_named,
    require_plausible_weighing,
)
from sandboa.core.water.top_up import BOX_MASS_RANGE_G
from sandboa.journal.acts import act
from sandboa.journal.at_the_box import clutch_called, egg_of, require_between_lay_and_now
from sandboa.journal.box_account import account_of, read_rows
from sandboa.journal.cabinets import shelf_called
from sandboa.journal.errors import Conflict, NotFound
from sandboa.records import rounds
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Candling,
    Clutch,
    Egg,
    EggEvent,
    Turgor,
    Watering,
    eggs_in_box,
)
from sandboa.records.database import database
from sandboa.records.facts import Act
from sandboa.records.rounds import visit_with

#: What a nose says of a whole box on opening it.
BOX_SMELLS: Final = ("none", "off", "foul")
SMELL_KIND: Final = "smell"
#: Visits written in one transaction (assumption: a fifth of a second's work).
TOGETHER: Final = 50
#: s a door is open at the longest in one visit (assumption: longer is a phone left lying).
LONGEST_VISIT_S: Final = 4 * SECONDS_PER_HOUR


@dataclass(frozen=True, slots=True)
class EggSeen:
    """What was recorded of one egg; None and empty where nothing was.

    `signs` are (kind, value) of core.standing.signs. `mass_g` is of an egg
    that is taken out, when it was weighed.
    """

    number: int
    grade: int | None = None
    vessels: Vessels | None = None
    disc: Disc | None = None
    signs: tuple[tuple[SignKind, str], ...] = ()
    acts: tuple[EggActKind, ...] = ()
    mass_g: float | None = None


@dataclass(frozen=True, slots=True)
class FreshMedium:
    """Medium swapped: what the box was set up with anew, g."""

    medium: str
    water_g: float | None = None
    mass_g: float | None = None


@dataclass(frozen=True, slots=True)
class BoxVisit:
    """One box opened and shut again.

    Attributes
    ----------
    key: the device's own, 8-64 characters; the same visit has the same key.
    code: the clutch.
    opened_s, closed_s: door open, door shut.
    seen_act: the newest act of this clutch the device knew of, None in an old device.
    eggs: exceptions. With `rest_as_before` every other live egg is recorded
        as it was at the last look, and as firm where nobody had looked.
    signs: (lid | medium | weight | smell, value).
    mass_g: the box on the scale as it was found, before anything was done.
    water_g: poured in; `acts`, `closing`, `shelf` (cabinet, shelf), `fresh`: done at it.
    mass_change_g: what else was put in (+) or taken out (-), g.
    """

    key: str
    code: str
    opened_s: float
    closed_s: float
    seen_act: int | None = None
    eggs: tuple[EggSeen, ...] = ()
    rest_as_before: bool = True
    signs: tuple[tuple[str, str], ...] = ()
    mass_g: float | None = None
    water_g: float | None = None
    acts: tuple[BoxActKind, ...] = ()
    closing: Closing | None = None
    shelf: tuple[str, str] | None = None
    fresh: FreshMedium | None = None
    mass_change_g: float | None = None


@dataclass(frozen=True, slots=True)
class Closed:
    """`known` when it had been delivered before; `conflicts` are sentences."""

    act: Act
    known: bool
    conflicts: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Refused:
    """A visit that was not stored: why, and at which field."""

    reason: str
    field: str | None


def deliver(visits: Sequence[BoxVisit], now_s: float) -> list[Closed | Refused]:
    """Record visits in their order, each once for its key; one refused does not stop the next.

    They are written some at a time, so that a phone that was offline for a
    season does not keep others waiting; whatever was written stays when the
    rest could not be, and delivering all of them again adds only the rest.
    """
    told: list[Closed | Refused] = []
    for start in range(0, len(visits), TOGETHER):
        with database.atomic("IMMEDIATE"):
            told += [_delivered(visit, now_s) for visit in visits[start : start + TOGETHER]]
    return told


def _delivered(visit: BoxVisit, now_s: float) -> Closed | Refused:
    try:
        return close_visit(visit, now_s)
    except NotPlausible as error:
        return Refused(str(error), error.field)
    except (NotFound, Conflict) as error:
        return Refused(str(error), None)


def close_visit(visit: BoxVisit, now_s: float) -> Closed:
    """Record a visit, once for its key.

    Raises NotFound for an unknown clutch, egg or shelf; NotPlausible, with the
    field, for a time before lay or ahead, a sign or grade that is none, an egg
    that is a slug or was removed, or a weighing that cannot be. Nothing is
    stored then.
    """
    if not 8 <= len(visit.key) <= 64:
        raise NotPlausible("key", "a visit's key has 8 to 64 characters")
    # The key is looked for in the transaction that writes: two deliveries at once are one visit.
    with database.atomic("IMMEDIATE"):
        known = visit_with(visit.key)
        if known is not None:
            return Closed(Act.get_by_id(known.act), known=True, conflicts=_told(known.conflict))
        closing = _Closing(clutch_called(visit.code), visit, now_s)
        closing.check()
        conflicts = tuple(closing.conflicts())
        with act("visit", "; ".join(closing.summary()), now_s, closing.clutch.entity) as visiting:
            closing.write(visiting, conflicts)
    return Closed(visiting, known=False, conflicts=conflicts)


def _told(conflict: str) -> tuple[str, ...]:
    return tuple(conflict.split("\n")) if conflict else ()


class _Closing:
    """One visit being checked and written."""

    def __init__(self, clutch: Clutch, visit: BoxVisit, now_s: float) -> None:
        self.clutch, self.visit, self.now_s = clutch, visit, now_s
        self.box = Box.of(clutch)
        self.rows = read_rows(self.box)
        self.at_s = int(visit.closed_s)
        self.eggs = {egg.number: egg_of(clutch, egg.number) for egg in visit.eggs}

    def check(self) -> None:
        """Raise for whatever of the visit cannot be."""
        visit = self.visit
        require_between_lay_and_now(self.clutch, visit.opened_s, self.now_s)
        require_between_lay_and_now(self.clutch, visit.closed_s, self.now_s)
        if not 0 <= visit.closed_s - visit.opened_s <= LONGEST_VISIT_S:
            raise NotPlausible("closed_at", "a visit is shut after it is opened, within 4 hours")
        if self.box.medium is None:
            raise NotPlausible("code", f"the dam keeps {self.clutch.code}: its eggs are left alone")
        for kind, value in visit.signs:
            _require_box_sign(kind, value)
        if len(self.eggs) < len(visit.eggs):
            raise NotPlausible("eggs", "the same egg stands twice in this visit")
        for seen in visit.eggs:
            self._check_egg(seen)
        self._check_masses()

    def _check_egg(self, seen: EggSeen) -> None:
        egg = self.eggs[seen.number]
        if seen.grade is not None and seen.grade not in GRADES:
            raise NotPlausible("grade", f"turgor grade {seen.grade} is not one of 0, 1, 2, 3, 4")
        if egg.slug and (seen.grade is not None or seen.vessels is not None):
            raise NotPlausible("eggs", f"egg {seen.number} is a slug: dents say nothing about it")
        removed = _removed_s(egg)
        if removed is not None and removed <= self.at_s:
            raise NotPlausible("eggs", f"egg {seen.number} was removed: nothing to record of it")
        for kind, value in seen.signs:
            if kind not in RECORDED_KINDS or (kind, value) not in SIGNS:
                raise NotPlausible("signs", f'"{value[:40]}" is no sign of {kind}')
        if seen.mass_g is not None:
            require_range(f"egg {seen.number}", seen.mass_g, EGG_MASS_RANGE_G, "g")

    def _check_masses(self) -> None:
        visit = self.visit
        if visit.water_g is not None:
            require_range("water_g", visit.water_g, POURED_RANGE_G, "g")
        if visit.mass_change_g is not None:
            require_range("mass_change_g", visit.mass_change_g, (-5_000.0, 5_000.0), "g")
        if visit.mass_g is not None:
            account = account_of(self.clutch, self.box, self.rows, self.at_s)
            require_plausible_weighing(account.ledger, Weighing(self.at_s, visit.mass_g))
        if visit.fresh is not None:
            medium_named(visit.fresh.medium)
            if visit.fresh.water_g is not None:
                require_range("water_g", visit.fresh.water_g, (0.0, BOX_MASS_RANGE_G[1]), "g")
            if visit.fresh.mass_g is not None:
                require_range("mass_g", visit.fresh.mass_g, BOX_MASS_RANGE_G, "g")

    def conflicts(self) -> Iterator[str]:
        """What was recorded at this box since the device last heard of it, where it collides."""
        seen_act = self.visit.seen_act
        if seen_act is None:
            return
        if rounds.Visit.current(
            rounds.Visit.clutch == self.clutch.entity, rounds.Visit.act > seen_act
        ):
            yield (
                f"Another device closed box {self.clutch.code} meanwhile. "
                "Both visits are kept; the later look counts."
            )
        poured = sum(w.water_g for w in self.rows.waterings if w.act > seen_act)
        if poured and self.visit.water_g:
            yield (
                f"{poured:g} g of water had been added meanwhile; with these "
                f"{self.visit.water_g:g} g it is {poured + self.visit.water_g:g} g. "
                "Undo one if it is the same water."
            )
        for seen in self.visit.eggs:
            looks = Turgor.current(
                Turgor.egg == self.eggs[seen.number].entity, Turgor.act > seen_act
            )
            for look in looks:
                if seen.grade is not None and look.grade != seen.grade:
                    yield (
                        f"Egg {seen.number}: meanwhile {GRADE_WORDS[look.grade]} was recorded, "
                        f"this visit says {GRADE_WORDS[seen.grade]}."
                    )
                    break

    def write(self, visiting: Act, conflicts: tuple[str, ...]) -> None:
        """Record everything under the open act."""
        visit = self.visit
        rounds.Visit.record(
            visiting,
            clutch=self.clutch.entity,
            key=visit.key,
            opened_s=int(visit.opened_s),
            closed_s=self.at_s,
            conflict="\n".join(conflicts),
        )
        for seen in visit.eggs:
            self._write_egg(visiting, seen)
        if visit.rest_as_before:
            self._write_rest(visiting)
        self._write_box(visiting)

    def _write_egg(self, visiting: Act, seen: EggSeen) -> None:
        egg = self.eggs[seen.number].entity
        if seen.grade is not None:
            Turgor.record(visiting, egg=egg, seen_s=self.at_s, grade=seen.grade)
        if seen.vessels is not None:
            Candling.record(
                visiting,
                egg=egg,
                seen_s=self.at_s,
                vessels=seen.vessels.value,
                disc=seen.disc.value if seen.disc else None,
            )
        for kind, value in seen.signs:
            rounds.EggSign.record(visiting, egg=egg, seen_s=self.at_s, kind=kind.value, value=value)
        for done in seen.acts:
            EggEvent.record(visiting, egg=egg, at_s=self.at_s, kind=done.value)
            if done is EggActKind.REMOVED:
                self._take_out(visiting, seen)

    def _take_out(self, visiting: Act, seen: EggSeen) -> None:
        """An egg leaves the box with its mass: the reference goes down by as much."""
        mass_g = seen.mass_g or self.eggs[seen.number].mass_g
        if mass_g:
            self._change_mass(visiting, -mass_g, f"egg {seen.number}")

    def _write_rest(self, visiting: Act) -> None:
        graded = {seen.number for seen in self.visit.eggs if seen.grade is not None}
        for number, egg, grade in eggs_in_box(self.clutch.entity, self.at_s):
            if number not in graded:
                Turgor.record(visiting, egg=egg, seen_s=self.at_s, grade=grade or 0)

    def _write_box(self, visiting: Act) -> None:
        visit, box = self.visit, self.box.entity
        for kind, value in visit.signs:
            rounds.BoxSign.record(visiting, box=box, seen_s=self.at_s, kind=kind, value=value)
        if visit.mass_g is not None:
            rounds.Weighing.record(visiting, box=box, at_s=self.at_s, mass_g=visit.mass_g)
        if visit.water_g is not None:
            Watering.record(visiting, box=box, poured_s=self.at_s, water_g=visit.water_g)
        if visit.mass_change_g:
            self._change_mass(visiting, visit.mass_change_g, "put in or taken out")
        for done in visit.acts:
            rounds.BoxDone.record(visiting, box=box, at_s=self.at_s, kind=done.value)
        if visit.closing is not None:
            self._close_with(visiting, visit.closing)
        if visit.fresh is not None:
            rounds.SetUp.record(
                visiting,
                box=box,
                at_s=self.at_s,
                medium=medium_named(visit.fresh.medium).name,
                water_g=visit.fresh.water_g,
                mass_g=visit.fresh.mass_g,
            )
        if visit.shelf is not None:
            self._move(visiting, *visit.shelf)

    def _change_mass(self, visiting: Act, delta_g: float, what: str) -> None:
        rounds.MassChange.record(
            visiting, box=self.box.entity, at_s=self.at_s, delta_g=delta_g, what=what
        )

    def _close_with(self, visiting: Act, closing: Closing) -> None:
        table = rounds.ClosingChange
        held = table.only(table.box == self.box.entity, table.from_s == self.at_s)
        if held is not None:
            held.correct(visiting, closing=closing.value)
        else:
            table.record(visiting, box=self.box.entity, from_s=self.at_s, closing=closing.value)

    def _move(self, visiting: Act, cabinet: str, shelf: str) -> None:
        place = shelf_called(cabinet, shelf).entity
        held = BoxMove.only(BoxMove.box == self.box.entity, BoxMove.from_s == self.at_s)
        if held is not None:
            held.correct(visiting, shelf=place)
        else:
            BoxMove.record(visiting, box=self.box.entity, shelf=place, from_s=self.at_s)

    def summary(self) -> Iterator[str]:
        """The visit in the words of the log."""
        visit = self.visit
        yield f"Visit, {_open_for(visit.closed_s - visit.opened_s)} open"
        for seen in visit.eggs:
            words = [
                *([GRADE_WORDS[seen.grade]] if seen.grade is not None else []),
                *([f"vessels {seen.vessels}"] if seen.vessels else []),
                *(SIGNS[sign].words for sign in seen.signs),
                *seen.acts,
            ]
            yield f"egg {seen.number}: {', '.join(words) or 'looked at'}"
        yield from (f"{kind} {value}" for kind, value in visit.signs)
        if visit.mass_g is not None:
            yield f"weighed {visit.mass_g:g} g"
        if visit.water_g is not None:
            yield f"{visit.water_g:g} g of water added"
        yield from visit.acts
        if visit.fresh is not None:
            yield f"fresh {visit.fresh.medium}"
        if visit.closing is not None:
            yield f"closed with {visit.closing}"
        if visit.shelf is not None:
            yield f"moved to {visit.shelf[0]}, {visit.shelf[1]}"
        if visit.rest_as_before:
            yield "the rest as before" if visit.eggs else "all as before"


def _open_for(seconds: float) -> str:
    if seconds < 120:
        return f"{seconds:.0f} s"
    return f"{seconds / 60:.0f} min"


def _removed_s(egg: Egg) -> float | None:
    row = EggEvent.only(EggEvent.egg == egg.entity, EggEvent.kind == EggActKind.REMOVED.value)
    return float(row.at_s) if row else None


def _require_box_sign(kind: str, value: str) -> None:
    if kind == SMELL_KIND:
        if value not in BOX_SMELLS:
            raise NotPlausible("signs", f'"{value[:40]}" is no smell known here')
        return
    if kind not in set(WaterSignKind) or (WaterSignKind(kind), value) not in WATER_SIGNS:
        raise NotPlausible("signs", f'"{value[:40]}" is no sign of the box\'s {kind[:20]}')
