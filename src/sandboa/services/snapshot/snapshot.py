"""What the house knows now: the current facts of every table, read once."""

from collections import defaultdict
from dataclasses import dataclass
from functools import cached_property
from typing import Final, TypeVar

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.development import SetPoints
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.animals import Departure
from sandboa.records.clutches import (
    Box,
    Clutch,
    Egg,
    PastClutch,
)
from sandboa.records.facts import Fact, newest_act_by, newest_act_of
from sandboa.records.hatching import (
    Shed,
)
from sandboa.records.house import (
    Animal,
    Cabinet,
    Device,
    Probe,
    Shelf,
)
from sandboa.services.acts.errors import NotFound
from sandboa.services.snapshot.herd import Herd, read_herd
from sandboa.services.snapshot.histories import (
    BoxHistory,
    CabinetHistory,
    ClutchHistory,
    EggHistory,
    ProbeHistory,
)
from sandboa.services.snapshot.kept import Kept
from sandboa.services.snapshot.read_histories import Histories, grouped, read_histories
from sandboa.services.snapshot.series import SeriesCache
from sandboa.services.snapshot.settings import HouseSettings, house_settings

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
    where probes hang now, `sheds` by hatchling, `departures` by animal or hatchling; what was
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
    eggs: dict[int, list[Egg]]
    eggs_of_box: dict[int, list[Egg]]
    sheds: dict[int, list[Shed]]
    departures: dict[int, Departure]
    histories: Histories

    @cached_property
    def held_back(self) -> dict[int, Animal]:
        """Animals that hatched here, by what they were recorded as then."""
        rows = self.animals.values()
        return {row.hatchling_id: row for row in rows if row.hatchling_id is not None}

    @cached_property
    def past_clutches(self) -> list[PastClutch]:
        """Clutches of before Sandboa, in order of laying; read when first asked for."""
        return sorted(PastClutch.current(), key=lambda row: (row.laid_s, row.id))

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
        laid = [c.laid_s for c in self.clutches if self.under_way(c, now_s)]
        days = self.settings.rules.record.offset_days + 1
        return min([now_s, *laid]) - days * SECONDS_PER_DAY


def read_snapshot(version: int, series: SeriesCache, kept: Kept) -> Snapshot:
    """All facts as they hold now; `version` is the newest act."""
    boxes = Box.current()
    clutches = sorted(Clutch.current(), key=lambda c: (c.laid_s, c.code))
    probes = Probe.current()
    eggs = grouped(Egg, "clutch_id", order="number")
    laid_s = {clutch.entity_id: float(clutch.laid_s) for clutch in clutches}
    settings = house_settings()
    histories = read_histories(
        settings.rules.forecast,
        boxes,
        probes,
        ((egg, laid_s[clutch]) for clutch in laid_s for egg in eggs.get(clutch, [])),
    )
    hanging: dict[int, list[Probe]] = defaultdict(list)
    for probe in probes:
        place = histories.probes[probe.entity_id].locations.last
        if place is not None:
            hanging[place].append(probe)
    return Snapshot(
        version=version,
        readings=series,
        kept=kept,
        last_acts=LastActs(
            newest_act_by("clutch"),
            newest_act_of(ActKind.touching(Touch.EVERY_CLUTCH)),
            newest_act_of(ActKind.touching(Touch.LOSSES)),
        ),
        settings=settings,
        animals=_by_entity(Animal),
        devices=_by_entity(Device),
        cabinets=_by_entity(Cabinet),
        shelves=_by_entity(Shelf),
        probes={p.entity_id: p for p in probes},
        probes_at=dict(hanging),
        clutches=clutches,
        boxes={box.entity_id: box for box in boxes},
        eggs=eggs,
        eggs_of_box=_eggs_of_boxes(clutches, eggs, histories),
        sheds=grouped(Shed, "hatchling_id", "seen_s"),
        departures={left.animal_id: left for left in Departure.current()},
        histories=histories,
    )


def _eggs_of_boxes(
    clutches: list[Clutch], eggs: dict[int, list[Egg]], histories: Histories
) -> dict[int, list[Egg]]:
    found: dict[int, list[Egg]] = defaultdict(list)
    for clutch in clutches:
        for egg in eggs.get(clutch.entity_id, []):
            stays = histories.eggs[egg.entity_id].stays if egg.entity_id in histories.eggs else []
            for box in {stay.box_id for stay in stays}:
                found[box].append(egg)
    return dict(found)


def _by_entity(table: type[FactT]) -> dict[int, FactT]:
    return {row.entity_id: row for row in table.current()}
