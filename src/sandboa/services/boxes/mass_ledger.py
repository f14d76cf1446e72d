"""A box's account: its masses, its pours, how it was closed, since it was last set up."""

from collections.abc import Iterator
from dataclasses import dataclass

from sandboa.core.box import Closing
from sandboa.core.rounds import EggActKind
from sandboa.core.water.ledger import MassChange, MassLedger, Pour, Weighing, unweighed_egg
from sandboa.records import rounds
from sandboa.records.clutches import Box, Clutch, Egg, EggEvent, Watering
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class BoxRows:
    """The current facts an account is made of, in any order.

    `taken_out` are (egg number, when s) of eggs removed, weighed or not; `eggs_g`
    the masses (g) of the clutch's eggs that were weighed.
    """

    waterings: list[Watering]
    weighings: list[rounds.Weighing]
    changes: list[rounds.MassChange]
    closings: list[rounds.ClosingChange]
    set_ups: list[rounds.SetUp]
    taken_out: list[tuple[int, float]]
    eggs_g: list[float]


def egg_taken_out(number: int) -> str:
    """What a change of mass is said to be when an egg leaves its box."""
    return f"egg {number}"


@dataclass(frozen=True)
class BoxAccount:
    """`closings` are (from s, closing) since lay day, the last the one in force."""

    medium: str
    closings: tuple[tuple[float, Closing], ...]
    ledger: MassLedger

    @property
    def closing(self) -> Closing:
        """How it is closed now."""
        return self.closings[-1][1]


def account_in(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> BoxAccount:
    """The account of a clutch's box from the house's facts."""
    box = snapshot.boxes[clutch.entity_id]
    rows = BoxRows(
        snapshot.box(box.entity_id).waterings,
        snapshot.box(box.entity_id).weighings,
        snapshot.box(box.entity_id).mass_changes,
        snapshot.box(box.entity_id).closings,
        snapshot.box(box.entity_id).set_ups,
        *_eggs(
            eggs := snapshot.eggs.get(clutch.entity_id, []),
            [e for egg in eggs for e in snapshot.egg(egg.entity_id).events],
        ),
    )
    return account_of(clutch, box, rows, as_of_s)


def read_rows(box: Box) -> BoxRows:
    """The rows of one box as they are in the database now."""
    own = box.entity_id
    eggs = Egg.current(clutch_id=box.clutch_id)
    events = [e for egg in eggs for e in EggEvent.current(egg_id=egg.entity_id)]
    return BoxRows(
        Watering.current(box_id=own),
        rounds.Weighing.current(box_id=own),
        rounds.MassChange.current(box_id=own),
        rounds.ClosingChange.current(box_id=own),
        rounds.SetUp.current(box_id=own),
        *_eggs(eggs, events),
    )


def _eggs(eggs: list[Egg], events: list[EggEvent]) -> tuple[list[tuple[int, float]], list[float]]:
    numbers = {egg.entity_id: egg.number for egg in eggs}
    taken_out = [
        (numbers[event.egg_id], float(event.at_s))
        for event in events
        if event.kind == EggActKind.REMOVED
    ]
    return taken_out, [egg.mass_g for egg in eggs if egg.mass_g and not egg.slug]


def _unweighed(rows: BoxRows) -> Iterator[MassChange]:
    """Eggs taken out that no change of mass was recorded for."""
    weighed = {change.what for change in rows.changes}
    for number, at_s in rows.taken_out:
        if egg_taken_out(number) not in weighed:
            yield unweighed_egg(at_s, rows.eggs_g)


def account_of(clutch: Clutch, box: Box, rows: BoxRows, as_of_s: float) -> BoxAccount:
    """The account as it stood at `as_of_s`. The clutch lies in a box, not with its dam."""
    assert box.medium, "eggs the dam keeps lie in no box"
    assert box.closing, "eggs the dam keeps lie in no box"
    changes = sorted((c for c in rows.closings if c.from_s <= as_of_s), key=lambda c: c.from_s)
    closings = [(float(c.from_s), Closing(c.closing)) for c in changes]
    set_ups = sorted((s for s in rows.set_ups if s.at_s <= as_of_s), key=lambda s: s.at_s)
    last = set_ups[-1] if set_ups else None
    begun_s = float(last.at_s if last else clutch.laid_s)
    ledger = MassLedger(
        set_up_s=begun_s,
        set_up_g=last.mass_g if last else box.set_up_mass_g,
        water_g=last.water_g if last else box.water_g,
        changes=tuple(
            change
            for change in (
                *(MassChange(c.at_s, c.delta_g) for c in rows.changes),
                *_unweighed(rows),
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
        ((float(clutch.laid_s), Closing(box.closing)), *closings),
        ledger,
    )
