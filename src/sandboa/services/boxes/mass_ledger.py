"""A box's account: its masses, its pours, how it was closed, since it was last set up."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from sandboa.core.box import Closing
from sandboa.core.rounds import EggActKind
from sandboa.core.water.ledger import MassChange, MassLedger, Pour, Weighing, unweighed_egg
from sandboa.core.water.rules import WaterRules
from sandboa.records import rounds
from sandboa.records.clutches import Box, Egg, EggEvent, EggStay, Watering
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class Carried:
    """An egg put into a box, or taken out of it, at `at_s`; its mass (g) where it is known."""

    egg: int
    at_s: float
    into: bool
    mass_g: float | None


@dataclass(frozen=True)
class BoxRows:
    """The current facts an account is made of, in any order.

    `carried` are eggs that came and went, weighed or not; `eggs_g` the masses (g) of those
    that were weighed.
    """

    waterings: list[Watering]
    weighings: list[rounds.Weighing]
    changes: list[rounds.MassChange]
    closings: list[rounds.ClosingChange]
    set_ups: list[rounds.SetUp]
    carried: list[Carried]
    eggs_g: list[float]


@dataclass(frozen=True)
class BoxAccount:
    """`closings` are (from s, closing) since it was first set up, the last the one in force."""

    medium: str
    closings: tuple[tuple[float, Closing], ...]
    ledger: MassLedger

    @property
    def closing(self) -> Closing:
        """How it is closed now."""
        return self.closings[-1][1]


def account_in(snapshot: Snapshot, box: Box, as_of_s: float) -> BoxAccount:
    """The account of a box from the house's facts."""
    held = snapshot.box(box.entity_id)
    eggs = snapshot.eggs_of_box.get(box.entity_id, [])
    rows = BoxRows(
        held.waterings,
        held.weighings,
        held.mass_changes,
        held.closings,
        held.set_ups,
        [
            carried
            for egg in eggs
            for carried in _carried(
                box.entity_id,
                egg,
                snapshot.egg(egg.entity_id).stays,
                snapshot.egg(egg.entity_id).events,
            )
        ],
        _weighed(eggs),
    )
    return account_of(box, rows, as_of_s, snapshot.settings.rules.water)


def read_rows(box: Box) -> BoxRows:
    """The rows of one box as they are in the database now."""
    own = box.entity_id
    eggs = [
        egg
        for stay in {stay.egg_id for stay in EggStay.current(box_id=own)}
        if (egg := Egg.now(stay)) is not None
    ]
    return BoxRows(
        Watering.current(box_id=own),
        rounds.Weighing.current(box_id=own),
        rounds.MassChange.current(box_id=own),
        rounds.ClosingChange.current(box_id=own),
        rounds.SetUp.current(box_id=own),
        [
            carried
            for egg in eggs
            for carried in _carried(
                own,
                egg,
                sorted(EggStay.current(egg_id=egg.entity_id), key=lambda stay: stay.from_s),
                EggEvent.current(egg_id=egg.entity_id),
            )
        ],
        _weighed(eggs),
    )


def _carried(
    box: int, egg: Egg, stays: Sequence[EggStay], events: Sequence[EggEvent]
) -> Iterator[Carried]:
    """When an egg was put into the box after it was laid, and when it was taken out."""
    before: int | None = None
    for number, stay in enumerate(stays):
        if number and stay.box_id != before and box in (stay.box_id, before):
            yield Carried(egg.entity_id, float(stay.from_s), stay.box_id == box, egg.mass_g)
        before = stay.box_id
    if before == box:
        for event in events:
            if event.kind == EggActKind.REMOVED:
                yield Carried(egg.entity_id, float(event.at_s), False, None)


def _weighed(eggs: Sequence[Egg]) -> list[float]:
    return [egg.mass_g for egg in eggs if egg.mass_g and not egg.slug]


def _unrecorded(rows: BoxRows, begun_s: float, rules: WaterRules) -> Iterator[MassChange]:
    """Eggs that came or went, and no change of mass was recorded for.

    What lay in the box when it was set up was weighed with it.
    """
    recorded = {(change.egg_id, change.at_s) for change in rows.changes}
    for carried in rows.carried:
        if carried.at_s <= begun_s or (carried.egg, carried.at_s) in recorded:
            continue
        if carried.mass_g is not None:
            yield MassChange(carried.at_s, carried.mass_g if carried.into else -carried.mass_g)
        else:
            yield unweighed_egg(carried.at_s, rows.eggs_g, into=carried.into, rules=rules)


def account_of(box: Box, rows: BoxRows, as_of_s: float, rules: WaterRules) -> BoxAccount:
    """The account as it stood at `as_of_s`. It is a box with a medium, no dam's tub."""
    assert box.medium, "eggs the dam keeps lie in no box"
    assert box.closing, "eggs the dam keeps lie in no box"
    changes = sorted((c for c in rows.closings if c.from_s <= as_of_s), key=lambda c: c.from_s)
    closings = [(float(c.from_s), Closing(c.closing)) for c in changes]
    set_ups = sorted((s for s in rows.set_ups if s.at_s <= as_of_s), key=lambda s: s.at_s)
    last = set_ups[-1] if set_ups else None
    begun_s = float(last.at_s if last else box.from_s)
    ledger = MassLedger(
        set_up_s=begun_s,
        set_up_g=last.mass_g if last else box.set_up_mass_g,
        water_g=last.water_g if last else box.water_g,
        changes=tuple(
            change
            for change in (
                *(MassChange(c.at_s, c.delta_g) for c in rows.changes),
                *_unrecorded(rows, begun_s, rules),
            )
            if begun_s <= change.at_s <= as_of_s
        ),
        pours=tuple(
            Pour(w.poured_s, w.water_g) for w in rows.waterings if begun_s <= w.poured_s <= as_of_s
        ),
        weighings=tuple(
            Weighing(w.at_s, w.mass_g)
            for w in rows.weighings
            # Weighed as it was found: what was weighed at a change of medium was the old one.
            if begun_s <= w.at_s <= as_of_s and not (last is not None and w.at_s == begun_s)
        ),
    )
    return BoxAccount(
        last.medium if last else box.medium,
        ((float(box.from_s), Closing(box.closing)), *closings),
        ledger,
    )
