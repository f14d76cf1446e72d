"""What the house knows now: the current facts of every table, read once."""

from collections import defaultdict
from dataclasses import dataclass
from functools import cached_property
from typing import Final, TypeVar

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.climate.probe_checks import Check, CheckKind
from sandboa.core.development import SetPoints
from sandboa.core.development.delays import EMERGENCE
from sandboa.core.development.place_offsets import OFFSET_DAYS
from sandboa.core.hatching import Fate
from sandboa.core.location_history import LocationHistory
from sandboa.core.methods import DamSchool
from sandboa.core.rounds import EggActKind
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Candling,
    Clutch,
    Egg,
    EggEvent,
    Turgor,
    Watering,
)
from sandboa.records.facts import Fact, newest_act_by_clutch, newest_act_of
from sandboa.records.hatching import (
    Alteration,
    Cut,
    EggFate,
    Emergence,
    Finding,
    Finished,
    Hatchling,
    Opening,
    Pip,
    Shed,
)
from sandboa.records.house import (
    Animal,
    Cabinet,
    Device,
    LeftOut,
    Probe,
    ProbeCheck,
    ProbeMove,
    SetPoint,
    Shelf,
)
from sandboa.records.methods import ClutchMethod
from sandboa.records.rounds import (
    BoxDone,
    BoxSign,
    ClosingChange,
    EggSign,
    MassChange,
    Postponement,
    SetUp,
    Visit,
    Weighing,
)
from sandboa.services.acts.errors import NotFound
from sandboa.services.cabinets.commands import set_points
from sandboa.services.snapshot.herd import Herd, read_herd
from sandboa.services.snapshot.kept import Kept
from sandboa.services.snapshot.series import SeriesCache
from sandboa.services.snapshot.settings import HouseSettings, house_settings

#: s after laying beyond which no egg is still in its box (assumption: twice a cool term).
LONGEST_TERM_S: Final = 150 * SECONDS_PER_DAY

FactT = TypeVar("FactT", bound=Fact)


@dataclass(frozen=True, slots=True)
class LastActs:
    """Ids of the latest acts: at each clutch, touching every clutch, and touching why eggs died."""

    by_clutch: dict[int, int]
    every_clutch: int
    losses: int


@dataclass(frozen=True)
class Snapshot:
    """Current facts by entity or by what they belong to.

    `probes_at` and `box_locations` tell of places: probes where they hang now,
    boxes and probes through time.
    """

    version: int
    readings: SeriesCache
    kept: Kept
    last_acts: LastActs
    animals: dict[int, Animal]
    cabinets: dict[int, Cabinet]
    shelves: dict[int, Shelf]
    set_points: dict[int, SetPoints]
    probes: dict[int, Probe]
    probes_at: dict[int, list[Probe]]
    clutches: list[Clutch]
    boxes: dict[int, Box]
    eggs: dict[int, list[Egg]]
    methods: dict[int, ClutchMethod]
    turgor: dict[int, list[Turgor]]
    candlings: dict[int, list[Candling]]
    egg_events: dict[int, list[EggEvent]]
    waterings: dict[int, list[Watering]]
    box_locations: dict[int, LocationHistory]
    probe_locations: dict[int, LocationHistory]
    checks: dict[int, list[Check]]
    left_out: dict[int, list[LeftOut]]
    devices: dict[int, Device]
    pips: dict[int, Pip]
    cuts: dict[int, Cut]
    emergences: dict[int, Emergence]
    hatchlings: dict[int, list[Hatchling]]
    sheds: dict[int, Shed]
    fates: dict[int, EggFate]
    openings: dict[int, Opening]
    findings: dict[int, list[Finding]]
    finished: dict[int, Finished]
    alterations: dict[int, list[Alteration]]
    visits: dict[int, list[Visit]]
    egg_signs: dict[int, list[EggSign]]
    box_signs: dict[int, list[BoxSign]]
    box_done: dict[int, list[BoxDone]]
    weighings: dict[int, list[Weighing]]
    mass_changes: dict[int, list[MassChange]]
    closings: dict[int, list[ClosingChange]]
    set_ups: dict[int, list[SetUp]]
    postponements: dict[int, list[Postponement]]
    settings: HouseSettings

    @cached_property
    def herd(self) -> Herd:
        """The animals as they stand; read when first asked for."""
        return read_herd()

    def clutch_called(self, code: str) -> Clutch:
        """The clutch of that code, upper and lower case alike; NotFound otherwise."""
        for clutch in self.clutches:
            if clutch.code.casefold() == code.casefold():
                return clutch
        raise NotFound(f"there is no clutch {code}")

    def clutch_in(self, box: int) -> Clutch | None:
        """The clutch whose box has that id; None for a box no longer there."""
        return next((c for c in self.clutches if self.boxes[c.entity_id].entity_id == box), None)

    def shelf_at(self, box: Box, at_s: float) -> Shelf:
        """The shelf a box stands on at a time."""
        place = self.box_locations[box.entity_id].at(at_s)
        return self.shelves[place if place is not None else box.shelf_id]

    def pip_s(self, egg: int) -> float | None:
        """When the egg pipped: as seen, or a usual while before it was seen out."""
        if egg in self.pips:
            return float(self.pips[egg].seen_s)
        if egg in self.emergences:
            return self.emergences[egg].seen_s - EMERGENCE.median_days * SECONDS_PER_DAY
        return None

    def ended_s(self, egg: int, as_of_s: float) -> float | None:
        """When an egg stopped being one to wait for, closed: taken out or declared lost."""
        ends = [e.at_s for e in self.egg_events.get(egg, []) if e.kind == EggActKind.REMOVED]
        if egg in self.fates and Fate(self.fates[egg].fate) is not Fate.HATCHED:
            ends.append(self.fates[egg].at_s)
        return min((float(s) for s in ends if s <= as_of_s), default=None)

    def pipped(self, egg: int) -> bool:
        """Whether an egg pipped, seen or not: one that hatched, or died in the slit, did."""
        declared = self.fates.get(egg)
        return self.pip_s(egg) is not None or (
            declared is not None and Fate(declared.fate).has_pipped
        )

    def last_look_s(self, egg: Egg, as_of_s: float) -> float | None:
        """When anything was last recorded of how an egg looks; None when nobody looked."""
        moments = [
            *(t.seen_s for t in self.turgor.get(egg.entity_id, [])),
            *(c.seen_s for c in self.candlings.get(egg.entity_id, [])),
            *(s.seen_s for s in self.egg_signs.get(egg.entity_id, [])),
        ]
        return max((float(m) for m in moments if m <= as_of_s), default=None)

    def kept_by_dam(self, clutch: int) -> bool:
        """Whether the dam keeps, or kept, the eggs of a clutch."""
        own = self.methods.get(clutch)
        return own is not None and own.dam == DamSchool.MATERNAL

    def under_way(self, clutch: Clutch, at_s: float) -> bool:
        """Whether eggs of the clutch are in their box at that time.

        Not before it was laid, nor once it is done; nor when it was laid so
        long ago that nobody can have eggs of it, whatever was never recorded.
        """
        done = clutch.entity_id in self.finished
        return not done and clutch.laid_s <= at_s <= clutch.laid_s + LONGEST_TERM_S

    def kept_from_s(self, now_s: float) -> float:
        """From when readings are kept at hand: what clutches under way can ask for."""
        laid = [c.laid_s for c in self.clutches if self.under_way(c, now_s)]
        return min([now_s, *laid]) - (OFFSET_DAYS + 1) * SECONDS_PER_DAY


def read_snapshot(version: int, series: SeriesCache, kept: Kept) -> Snapshot:
    """All facts as they hold now; `version` is the newest act."""
    set_point_rows = _grouped(SetPoint, "cabinet_id")
    probes = Probe.current()
    boxes = Box.current()
    clutches = sorted(Clutch.current(), key=lambda c: (c.laid_s, c.code))
    laid_s = {c.entity_id: c.laid_s for c in clutches}
    box_moves, probe_moves = _grouped(BoxMove, "box_id"), _grouped(ProbeMove, "probe_id")
    probe_locations = {
        p.entity_id: LocationHistory.of(
            p.since_s,
            p.place_id,
            [(m.from_s, m.place_id) for m in probe_moves.get(p.entity_id, [])],
        )
        for p in probes
    }
    hanging: dict[int, list[Probe]] = defaultdict(list)
    for probe in probes:
        place = probe_locations[probe.entity_id].last
        if place is not None:
            hanging[place].append(probe)
    return Snapshot(
        version=version,
        readings=series,
        kept=kept,
        last_acts=LastActs(
            newest_act_by_clutch(),
            newest_act_of(ActKind.touching(Touch.EVERY_CLUTCH)),
            newest_act_of(ActKind.touching(Touch.LOSSES)),
        ),
        animals=_by_entity(Animal),
        cabinets=_by_entity(Cabinet),
        shelves=_by_entity(Shelf),
        set_points={
            cabinet: set_points(sorted(rows, key=lambda r: r.from_s))
            for cabinet, rows in set_point_rows.items()
        },
        probes={p.entity_id: p for p in probes},
        probes_at=dict(hanging),
        clutches=clutches,
        boxes={b.clutch_id: b for b in boxes},
        eggs=_grouped(Egg, "clutch_id", order="number"),
        methods={m.clutch_id: m for m in ClutchMethod.current()},
        turgor=_grouped(Turgor, "egg_id", order="seen_s"),
        candlings=_grouped(Candling, "egg_id", order="seen_s"),
        egg_events=_grouped(EggEvent, "egg_id", order="at_s"),
        waterings=_grouped(Watering, "box_id", order="poured_s"),
        box_locations={
            b.entity_id: LocationHistory.of(
                laid_s[b.clutch_id],
                b.shelf_id,
                [(m.from_s, m.shelf_id) for m in box_moves.get(b.entity_id, [])],
            )
            for b in boxes
            if b.clutch_id in laid_s
        },
        probe_locations=probe_locations,
        checks={
            probe: [Check(CheckKind(r.kind), r.at_s, r.shown, r.expected) for r in rows]
            for probe, rows in _grouped(ProbeCheck, "probe_id", order="at_s").items()
        },
        left_out=_grouped(LeftOut, "probe_id", order="from_s"),
        devices=_by_entity(Device),
        pips={p.egg_id: p for p in Pip.current()},
        cuts={c.egg_id: c for c in Cut.current()},
        emergences={e.egg_id: e for e in Emergence.current()},
        hatchlings=_grouped(Hatchling, "egg_id", order="part"),
        sheds={s.hatchling_id: s for s in Shed.current()},
        fates={f.egg_id: f for f in EggFate.current()},
        openings={o.egg_id: o for o in Opening.current()},
        findings=_grouped(Finding, "egg_id"),
        finished={f.clutch_id: f for f in Finished.current()},
        alterations=_grouped(Alteration, "cabinet_id", order="at_s"),
        visits=_grouped(Visit, "clutch_id", order="closed_s"),
        egg_signs=_grouped(EggSign, "egg_id", order="seen_s"),
        box_signs=_grouped(BoxSign, "box_id", order="seen_s"),
        box_done=_grouped(BoxDone, "box_id", order="at_s"),
        weighings=_grouped(Weighing, "box_id", order="at_s"),
        mass_changes=_grouped(MassChange, "box_id", order="at_s"),
        closings=_grouped(ClosingChange, "box_id", order="from_s"),
        set_ups=_grouped(SetUp, "box_id", order="at_s"),
        postponements=_grouped(Postponement, "clutch_id"),
        settings=house_settings(),
    )


def _by_entity(table: type[FactT]) -> dict[int, FactT]:
    return {row.entity_id: row for row in table.current()}


def _grouped(table: type[FactT], owner: str, order: str = "id") -> dict[int, list[FactT]]:
    return _by(sorted(table.current(), key=lambda r: (getattr(r, order), r.id)), owner)


def _by(rows: list[FactT], owner: str) -> dict[int, list[FactT]]:
    groups: dict[int, list[FactT]] = defaultdict(list)
    for row in rows:
        groups[getattr(row, owner)].append(row)
    return dict(groups)
