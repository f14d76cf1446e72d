"""The histories of everything in the house: all of them once, then those that an act touched."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any, Final, TypeVar

from sandboa.core.climate.probe_checks import Check, CheckKind
from sandboa.core.development.rules import ForecastRules
from sandboa.core.location_history import LocationHistory
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Candling,
    Clutch,
    ClutchOrigin,
    Egg,
    EggEvent,
    EggStay,
    ShellLook,
    Turgor,
    Watering,
)
from sandboa.records.facts import Fact
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
)
from sandboa.records.held_rows import HeldRows
from sandboa.records.house import Cabinet, LeftOut, Probe, ProbeCheck, ProbeMove, SetPoint
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
from sandboa.services.cabinets.commands import set_points
from sandboa.services.snapshot.histories import (
    BoxHistory,
    CabinetHistory,
    ClutchHistory,
    EggHistory,
    ProbeHistory,
)
from sandboa.services.snapshot.looks import looks_at, told_as_before

HistoryT = TypeVar("HistoryT")


@dataclass(frozen=True, slots=True)
class Histories:
    """Histories by the id of what they are of; what nothing is recorded of is absent."""

    eggs: dict[int, EggHistory]
    boxes: dict[int, BoxHistory]
    probes: dict[int, ProbeHistory]
    cabinets: dict[int, CabinetHistory]
    clutches: dict[int, ClutchHistory]


#: What a history holds of rows that belong to it: its field, their table, the column of their
#: order; None where there is one row at most.
_Fields = tuple[tuple[str, type[Fact], str | None], ...]
_OF_EGG: Final[_Fields] = (
    ("stays", EggStay, "from_s"),
    ("shells", ShellLook, "seen_s"),
    ("candlings", Candling, "seen_s"),
    ("events", EggEvent, "at_s"),
    ("signs", EggSign, "seen_s"),
    ("findings", Finding, "id"),
    ("hatchlings", Hatchling, "part"),
    ("pip", Pip, None),
    ("cut", Cut, None),
    ("emergence", Emergence, None),
    ("fate", EggFate, None),
    ("opening", Opening, None),
)
_OF_BOX: Final[_Fields] = (
    ("waterings", Watering, "poured_s"),
    ("signs", BoxSign, "seen_s"),
    ("done", BoxDone, "at_s"),
    ("weighings", Weighing, "at_s"),
    ("mass_changes", MassChange, "at_s"),
    ("closings", ClosingChange, "from_s"),
    ("set_ups", SetUp, "at_s"),
    ("visits", Visit, "closed_s"),
    ("postponements", Postponement, "id"),
)
_OF_CLUTCH: Final[_Fields] = (
    ("method", ClutchMethod, None),
    ("origin", ClutchOrigin, None),
    ("finished", Finished, None),
)
#: Every table that histories are made of.
TABLES: Final[tuple[type[Fact], ...]] = (
    *(Egg, Turgor, Box, BoxMove, Clutch, Cabinet, SetPoint, Alteration),
    *(Probe, ProbeMove, ProbeCheck, LeftOut),
    *(table for _, table, _ in (*_OF_EGG, *_OF_BOX, *_OF_CLUTCH)),
)


def read_histories(
    rows: HeldRows, rules: ForecastRules, before: Histories | None = None
) -> Histories:
    """Everything recorded, by subject.

    With the histories `before` the last step of `rows`, only those that it touched are made
    anew, and the others are the same objects.
    """
    if before is None:
        eggs, boxes, probes, cabinets, clutches = (
            {row.entity_id for row in rows.of(table)}
            for table in (Egg, Box, Probe, Cabinet, Clutch)
        )
        before = Histories({}, {}, {}, {}, {})
    else:
        eggs, boxes = _touched_eggs(rows, before), _touched_boxes(rows)
        probes = _touched(rows, "probe_id", Probe, ProbeMove, ProbeCheck, LeftOut)
        cabinets = _touched(rows, "cabinet_id", Cabinet, SetPoint, Alteration)
        clutches = _touched(rows, "clutch_id", Clutch, *(table for _, table, _ in _OF_CLUTCH))
    of_boxes = _renewed(before.boxes, boxes, lambda box: _box(rows, box))
    days = rules.emergence.median_days
    return Histories(
        eggs=_renewed(before.eggs, eggs, lambda egg: _egg(rows, egg, of_boxes, days)),
        boxes=of_boxes,
        probes=_renewed(before.probes, probes, lambda probe: _probe(rows, probe)),
        cabinets=_renewed(before.cabinets, cabinets, lambda cabinet: _cabinet(rows, cabinet)),
        clutches=_renewed(before.clutches, clutches, lambda clutch: _clutch(rows, clutch)),
    )


def _touched(rows: HeldRows, owner: str, itself: type[Fact], *tables: type[Fact]) -> set[int]:
    """Things of whose rows one came or went: their own, and those that belong to them."""
    own = rows.changed(itself, "entity_id")
    return own.union(*(rows.changed(table, owner) for table in tables))


def _touched_boxes(rows: HeldRows) -> set[int]:
    return _touched(rows, "box_id", Box, BoxMove, *(table for _, table, _ in _OF_BOX))


def _touched_eggs(rows: HeldRows, before: Histories) -> set[int]:
    """Eggs with rows of their own, of a clutch, or in a box that was visited."""
    own = _touched(rows, "egg_id", Egg, Turgor, *(table for _, table, _ in _OF_EGG))
    clutches, boxes = rows.changed(Clutch, "entity_id"), rows.changed(Visit, "box_id")
    if clutches:
        of_clutches = rows.grouped(Egg, "clutch_id")
        own |= {egg.entity_id for clutch in clutches for egg in of_clutches.get(clutch, [])}
    if boxes:
        own |= {
            egg
            for egg, history in before.eggs.items()
            if any(stay.box_id in boxes for stay in history.stays)
        }
    return own


def _renewed(
    before: dict[int, HistoryT], touched: Iterable[int], make: Callable[[int], HistoryT | None]
) -> dict[int, HistoryT]:
    ids = list(touched)
    if not ids:
        return before
    renewed = dict(before)
    for id_ in ids:
        made = make(id_)
        if made is None:
            renewed.pop(id_, None)
        else:
            renewed[id_] = made
    return renewed


def _recorded(rows: HeldRows, owner: str, one: int, fields: _Fields) -> dict[str, Any]:
    """What is recorded of one thing, by field; nothing for fields without a row."""
    found: dict[str, Any] = {}
    for name, table, order in fields:
        own = rows.grouped(table, owner, order or "id").get(one)
        if own:
            found[name] = own if order else own[-1]
    return found


def _egg(
    rows: HeldRows, egg: int, of_boxes: Mapping[int, BoxHistory], emergence_days: float
) -> EggHistory | None:
    """With the looks at it: those recorded, and those told of its box."""
    own = rows.grouped(Egg, "entity_id").get(egg)
    clutch = rows.grouped(Clutch, "entity_id").get(own[0].clutch_id) if own else None
    recorded = _recorded(rows, "egg_id", egg, _OF_EGG)
    if not own or not clutch or not recorded:
        return None
    history = EggHistory(emergence_days=emergence_days, **recorded)
    visits = {
        stay.box_id: of_boxes[stay.box_id].visits
        for stay in history.stays
        if stay.box_id in of_boxes
    }
    told = told_as_before(history.stays, history.events, history.pip, visits)
    seen = rows.grouped(Turgor, "egg_id", "seen_s").get(egg, [])
    history.turgor = looks_at(own[0], float(clutch[0].laid_s), seen, told)
    return history


def _box(rows: HeldRows, box: int) -> BoxHistory | None:
    """None for a box that is no more: what was recorded of it belongs to nothing."""
    own = rows.grouped(Box, "entity_id").get(box)
    if not own:
        return None
    moves = [(m.from_s, m.shelf_id) for m in rows.grouped(BoxMove, "box_id").get(box, [])]
    stood = LocationHistory.of(own[0].from_s, own[0].shelf_id, moves)
    return BoxHistory(stood, **_recorded(rows, "box_id", box, _OF_BOX))


def _probe(rows: HeldRows, probe: int) -> ProbeHistory | None:
    own = rows.grouped(Probe, "entity_id").get(probe)
    if not own:
        return None
    moves = [(m.from_s, m.place_id) for m in rows.grouped(ProbeMove, "probe_id").get(probe, [])]
    checks = rows.grouped(ProbeCheck, "probe_id", "at_s").get(probe, [])
    return ProbeHistory(
        LocationHistory.of(own[0].since_s, own[0].place_id, moves),
        [Check(CheckKind(r.kind), r.at_s, r.shown, r.expected) for r in checks],
        rows.grouped(LeftOut, "probe_id", "from_s").get(probe, []),
    )


def _cabinet(rows: HeldRows, cabinet: int) -> CabinetHistory | None:
    if not rows.grouped(Cabinet, "entity_id").get(cabinet):
        return None
    set_to = rows.grouped(SetPoint, "cabinet_id", "from_s").get(cabinet)
    altered = rows.grouped(Alteration, "cabinet_id", "at_s").get(cabinet)
    if not set_to and not altered:
        return None
    return CabinetHistory(set_points(set_to) if set_to else None, altered or [])


def _clutch(rows: HeldRows, clutch: int) -> ClutchHistory | None:
    recorded = _recorded(rows, "clutch_id", clutch, _OF_CLUTCH)
    if not rows.grouped(Clutch, "entity_id").get(clutch):
        return None
    return ClutchHistory(**recorded) if recorded else None
