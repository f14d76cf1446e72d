"""What the house knows now: the current facts of every table, carried on from act to act."""

from collections import defaultdict
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any, Final, TypeVar

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.development import SetPoints
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.animals import Departure
from sandboa.records.clutches import (
    Box,
    Clutch,
    Egg,
    EggStay,
    PastClutch,
)
from sandboa.records.facts import Fact, newest_act_by, newest_act_of
from sandboa.records.hatching import Finished, Shed
from sandboa.records.held_rows import HeldRows
from sandboa.records.house import (
    Animal,
    Cabinet,
    Device,
    Probe,
    ProbeMove,
    Setting,
    Shelf,
    Task,
)
from sandboa.services.acts.errors import NotFound
from sandboa.services.series.cache import SeriesCache
from sandboa.services.snapshot.herd import Herd, read_herd
from sandboa.services.snapshot.histories import (
    BoxHistory,
    CabinetHistory,
    ClutchHistory,
    EggHistory,
    ProbeHistory,
)
from sandboa.services.snapshot.kept import Kept
from sandboa.services.snapshot.read_histories import TABLES as HISTORY_TABLES
from sandboa.services.snapshot.read_histories import Histories, read_histories
from sandboa.services.snapshot.settings import HouseSettings, settings_of

#: s after laying beyond which no egg is still in its box (assumption: twice a cool term).
LONGEST_TERM_S: Final = 150 * SECONDS_PER_DAY

FactT = TypeVar("FactT", bound=Fact)


@dataclass(frozen=True, slots=True)
class LastActs:
    """Ids of the latest acts: about each clutch, touching every clutch, and touching why eggs
    died."""

    by_clutch: dict[int, int]
    every_clutch: int
    losses: int


@dataclass(frozen=True)
class Snapshot:
    """The house as it is recorded now.

    `eggs` are by clutch, `eggs_of_box` are those that ever lay in a box, by box, `probes_at` by
    where probes hang now, `sheds` by hatchling, `departures` by animal or hatchling, `tasks` (lines
    that are ticked) by whose list they are of, `past_clutches` those of before Sandboa; what was
    recorded of each egg, box, probe, cabinet and clutch is in its history (`egg`, `box`, `probe`,
    `cabinet`, `clutch`, each by its id).
    """

    version: int
    readings: SeriesCache
    kept: Kept
    last_acts: LastActs
    settings: HouseSettings
    animals: dict[int, Animal]
    devices: dict[int, Device]
    cabinets: dict[int, Cabinet]
    shelves: dict[int, Shelf]
    probes: dict[int, Probe]
    probes_at: dict[int, list[Probe]]
    clutches: list[Clutch]
    boxes: dict[int, Box]
    eggs: Mapping[int, list[Egg]]
    eggs_of_box: dict[int, list[Egg]]
    sheds: Mapping[int, list[Shed]]
    departures: dict[int, Departure]
    tasks: Mapping[int, list[Task]]
    past_clutches: list[PastClutch]
    histories: Histories
    #: What was worked out of this snapshot alone; it goes with it.
    own: Kept = field(default_factory=Kept)

    @cached_property
    def closed(self) -> list[tuple[Clutch, Finished]]:
        """Clutches that are closed, each with when, in order of laying."""
        ends = ((clutch, self.clutch(clutch.entity_id).finished) for clutch in self.clutches)
        return [(clutch, finished) for clutch, finished in ends if finished is not None]

    @cached_property
    def held_back(self) -> dict[int, Animal]:
        """Animals that hatched here, by what they were recorded as then."""
        rows = self.animals.values()
        return {row.hatchling_id: row for row in rows if row.hatchling_id is not None}

    @cached_property
    def herd(self) -> Herd:
        """The animals as they stand; read when first asked for."""
        return read_herd()

    def egg(self, egg: int) -> EggHistory:
        """What is recorded of an egg."""
        return self.histories.eggs.get(egg) or EggHistory()

    def box(self, box: int) -> BoxHistory:
        """What is recorded of a box; KeyError for one that is not there."""
        return self.histories.boxes[box]

    def probe(self, probe: int) -> ProbeHistory:
        """What is recorded of a probe; KeyError for one that is not there."""
        return self.histories.probes[probe]

    def cabinet(self, cabinet: int) -> CabinetHistory:
        """What is recorded of a cabinet."""
        return self.histories.cabinets.get(cabinet) or CabinetHistory()

    def set_points(self, cabinet: int) -> SetPoints:
        """What a cabinet was set to; KeyError where nobody recorded that."""
        held = self.cabinet(cabinet).set_points
        if held is None:
            raise KeyError(cabinet)
        return held

    def clutch(self, clutch: int) -> ClutchHistory:
        """What is recorded of a clutch beside its eggs and its box."""
        return self.histories.clutches.get(clutch) or ClutchHistory()

    @cached_property
    def empty(self) -> bool:
        """Whether there is no animal, no cabinet and no clutch, of now or before Sandboa."""
        return not (self.animals or self.cabinets or self.clutches or self.past_clutches)

    def ticked(self, subject: int) -> dict[str, float]:
        """When each ticked line of a dam's or a clutch's list was done (s), by name."""
        return {task.name: float(task.done_s) for task in self.tasks.get(subject, [])}

    def clutch_called(self, code: str) -> Clutch:
        """The clutch of that code, upper and lower case alike; NotFound otherwise."""
        for clutch in self.clutches:
            if clutch.code.casefold() == code.casefold():
                return clutch
        raise NotFound(f"there is no clutch {code}")

    @cached_property
    def clutch_by_id(self) -> dict[int, Clutch]:
        """Every clutch by its id."""
        return {clutch.entity_id: clutch for clutch in self.clutches}

    def eggs_in(self, box: int, at_s: float) -> list[Egg]:
        """Eggs that lie in a box at a time, whoever's, by clutch and number; taken out ones too."""
        return [
            egg
            for egg in self.eggs_of_box.get(box, [])
            if self.clutch_by_id[egg.clutch_id].laid_s <= at_s
            and (stay := self.egg(egg.entity_id).stay_at(at_s)) is not None
            and stay.box_id == box
        ]

    def boxes_of(self, clutch: Clutch, at_s: float) -> list[Box]:
        """Boxes in which eggs of a clutch lie at a time, by name."""
        return sorted(self._eggs_by_box(clutch, at_s), key=lambda box: box.name)

    def box_of(self, clutch: Clutch, at_s: float) -> Box:
        """The box in which most eggs of a clutch lie at a time."""
        held = self._eggs_by_box(clutch, at_s)
        return min(held, key=lambda box: (-held[box], box.name))

    def _eggs_by_box(self, clutch: Clutch, at_s: float) -> dict[Box, int]:
        held: dict[int, int] = defaultdict(int)
        for egg in self.eggs.get(clutch.entity_id, []):
            stay = self.egg(egg.entity_id).stay_at(at_s)
            if stay is not None and stay.box_id in self.boxes:
                held[stay.box_id] += 1
        return {self.boxes[box]: eggs for box, eggs in held.items()}

    def box_called(self, name: str) -> Box:
        """The box of that name, upper and lower case alike; NotFound otherwise."""
        for box in self.boxes.values():
            if box.name.casefold() == name.casefold():
                return box
        raise NotFound(f"there is no box {name}")

    def shelf_at(self, box: Box, at_s: float) -> Shelf:
        """The shelf a box stands on at a time."""
        place = self.box(box.entity_id).locations.at(at_s)
        return self.shelves[place if place is not None else box.shelf_id]

    def under_way(self, clutch: Clutch, at_s: float) -> bool:
        """Whether eggs of the clutch are in their box at that time.

        Not before it was laid, nor once it is done; nor when it was laid so
        long ago that nobody can have eggs of it, whatever was never recorded.
        """
        finished = self.clutch(clutch.entity_id).finished
        done = finished is not None and finished.at_s <= at_s
        return not done and clutch.laid_s <= at_s <= clutch.laid_s + LONGEST_TERM_S

    def kept_from_s(self, now_s: float) -> float:
        """From when readings are kept at hand: what clutches under way can ask for."""

        def earliest_s() -> float:
            laid = [c.laid_s for c in self.clutches if self.under_way(c, now_s)]
            days = self.settings.rules.record.offset_days + 1
            return min([now_s, *laid]) - days * SECONDS_PER_DAY

        return self.own.held("readings at hand", now_s, earliest_s)


#: Every table that a snapshot is made of.
TABLES: Final[tuple[type[Fact], ...]] = (
    *HISTORY_TABLES,
    *(Animal, Device, Shelf, Setting, Shed, Departure, Task, PastClutch),
)


def read_snapshot(
    rows: HeldRows, series: SeriesCache, kept: Kept, before: Snapshot | None = None
) -> Snapshot:
    """All facts as they hold by `rows`.

    With the snapshot `before` their last step forward, what that step did not touch is the same.
    """
    if rows.changed(Setting, "id"):
        # Histories are told by the numbers of the house.
        before = None
    settings = before.settings if before else settings_of(rows.of(Setting))
    histories = read_histories(rows, settings.rules.forecast, before.histories if before else None)

    def carried(name: str, make: Callable[[], Any], *tables: type[Fact]) -> Any:
        """What the snapshot before held, where no row of those tables came or went."""
        if before and not any(rows.changed(table, "id") for table in tables):
            return getattr(before, name)
        return make()

    clutches = carried(
        "clutches", lambda: sorted(rows.of(Clutch), key=lambda c: (c.laid_s, c.code)), Clutch
    )
    eggs = rows.grouped(Egg, "clutch_id", "number")
    return Snapshot(
        version=rows.version,
        readings=series,
        kept=kept,
        last_acts=LastActs(
            newest_act_by("clutch", rows.version),
            newest_act_of(ActKind.touching(Touch.EVERY_CLUTCH), rows.version),
            newest_act_of(ActKind.touching(Touch.LOSSES), rows.version),
        ),
        settings=settings,
        animals=carried("animals", lambda: _by_entity(rows, Animal), Animal),
        devices=carried("devices", lambda: _by_entity(rows, Device), Device),
        cabinets=carried("cabinets", lambda: _by_entity(rows, Cabinet), Cabinet),
        shelves=carried("shelves", lambda: _by_entity(rows, Shelf), Shelf),
        probes=carried("probes", lambda: _by_entity(rows, Probe), Probe),
        probes_at=carried("probes_at", lambda: _hanging(rows, histories), Probe, ProbeMove),
        clutches=clutches,
        boxes=carried("boxes", lambda: _by_entity(rows, Box), Box),
        eggs=eggs,
        eggs_of_box=carried(
            "eggs_of_box", lambda: _eggs_of_boxes(clutches, eggs, histories), Clutch, Egg, EggStay
        ),
        sheds=rows.grouped(Shed, "hatchling_id", "seen_s"),
        departures=carried(
            "departures", lambda: {left.animal_id: left for left in rows.of(Departure)}, Departure
        ),
        tasks=rows.grouped(Task, "subject_id", "done_s"),
        past_clutches=carried(
            "past_clutches",
            lambda: sorted(rows.of(PastClutch), key=lambda row: (row.laid_s, row.id)),
            PastClutch,
        ),
        histories=histories,
    )


def _hanging(rows: HeldRows, histories: Histories) -> dict[int, list[Probe]]:
    """Probes by where they hang now."""
    found: dict[int, list[Probe]] = defaultdict(list)
    for probe in rows.of(Probe):
        place = histories.probes[probe.entity_id].locations.last
        if place is not None:
            found[place].append(probe)
    return dict(found)


def _eggs_of_boxes(
    clutches: list[Clutch], eggs: Mapping[int, list[Egg]], histories: Histories
) -> dict[int, list[Egg]]:
    found: dict[int, list[Egg]] = defaultdict(list)
    for clutch in clutches:
        for egg in eggs.get(clutch.entity_id, []):
            stays = histories.eggs[egg.entity_id].stays if egg.entity_id in histories.eggs else []
            for box in {stay.box_id for stay in stays}:
                found[box].append(egg)
    return dict(found)


def _by_entity(rows: HeldRows, table: type[FactT]) -> dict[int, FactT]:
    return {row.entity_id: row for row in rows.of(table)}
