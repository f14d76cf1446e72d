"""The histories of everything in the house, read table by table."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any, TypeVar

from sandboa.core.climate.probe_checks import Check, CheckKind
from sandboa.core.development.rules import ForecastRules
from sandboa.core.location_history import LocationHistory
from sandboa.records.clutches import (
    Box,
    BoxMove,
    Candling,
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
from sandboa.records.house import LeftOut, Probe, ProbeCheck, ProbeMove, SetPoint
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

FactT = TypeVar("FactT", bound=Fact)
_HistoryT = TypeVar("_HistoryT")


@dataclass(frozen=True, slots=True)
class Histories:
    """Histories by the id of what they are of; what nothing is recorded of is absent."""

    eggs: dict[int, EggHistory]
    boxes: dict[int, BoxHistory]
    probes: dict[int, ProbeHistory]
    cabinets: dict[int, CabinetHistory]
    clutches: dict[int, ClutchHistory]


def read_histories(
    rules: ForecastRules,
    boxes: Iterable[Box],
    probes: Iterable[Probe],
    eggs: Iterable[tuple[Egg, float]],
) -> Histories:
    """Everything recorded, by subject; `eggs` with when each was laid (s)."""
    of_boxes = _boxes(boxes)
    of_eggs = _eggs(rules.emergence.median_days)
    _look_at(eggs, of_eggs, of_boxes)
    return Histories(of_eggs, of_boxes, _probes(probes), _cabinets(), _clutches())


def grouped(table: type[FactT], owner: str, order: str = "id") -> dict[int, list[FactT]]:
    """Current rows of a table by what they belong to, each group in order."""
    groups: dict[int, list[FactT]] = defaultdict(list)
    for row in sorted(table.current(), key=lambda r: (getattr(r, order), r.id)):
        groups[getattr(row, owner)].append(row)
    return dict(groups)


def _eggs(emergence_days: float) -> dict[int, EggHistory]:
    found: defaultdict[int, EggHistory] = defaultdict(
        lambda: EggHistory(emergence_days=emergence_days)
    )
    _fill(found, "stays", grouped(EggStay, "egg_id", "from_s"))
    _fill(found, "shells", grouped(ShellLook, "egg_id", "seen_s"))
    _fill(found, "candlings", grouped(Candling, "egg_id", "seen_s"))
    _fill(found, "events", grouped(EggEvent, "egg_id", "at_s"))
    _fill(found, "signs", grouped(EggSign, "egg_id", "seen_s"))
    _fill(found, "findings", grouped(Finding, "egg_id"))
    _fill(found, "hatchlings", grouped(Hatchling, "egg_id", "part"))
    for name, table in (
        ("pip", Pip), ("cut", Cut), ("emergence", Emergence), ("fate", EggFate),
        ("opening", Opening),
    ):  # fmt: skip
        _fill(found, name, _single(table, "egg_id"))
    return dict(found)


def _look_at(
    eggs: Iterable[tuple[Egg, float]],
    of_eggs: dict[int, EggHistory],
    of_boxes: dict[int, BoxHistory],
) -> None:
    """Give each egg the looks at it: those recorded, and those told of its box."""
    seen = grouped(Turgor, "egg_id", "seen_s")
    visits = {box: history.visits for box, history in of_boxes.items()}
    for egg, laid_s in eggs:
        history = of_eggs.get(egg.entity_id)
        if history is not None:
            told = told_as_before(history.stays, history.events, history.pip, visits)
            history.turgor = looks_at(egg, laid_s, seen.get(egg.entity_id, []), told)


def _boxes(boxes: Iterable[Box]) -> dict[int, BoxHistory]:
    moves = grouped(BoxMove, "box_id")
    found = {
        box.entity_id: BoxHistory(
            LocationHistory.of(
                box.from_s,
                box.shelf_id,
                [(m.from_s, m.shelf_id) for m in moves.get(box.entity_id, [])],
            )
        )
        for box in boxes
    }
    _fill(found, "waterings", grouped(Watering, "box_id", "poured_s"))
    _fill(found, "signs", grouped(BoxSign, "box_id", "seen_s"))
    _fill(found, "done", grouped(BoxDone, "box_id", "at_s"))
    _fill(found, "weighings", grouped(Weighing, "box_id", "at_s"))
    _fill(found, "mass_changes", grouped(MassChange, "box_id", "at_s"))
    _fill(found, "closings", grouped(ClosingChange, "box_id", "from_s"))
    _fill(found, "set_ups", grouped(SetUp, "box_id", "at_s"))
    _fill(found, "visits", grouped(Visit, "box_id", "closed_s"))
    _fill(found, "postponements", grouped(Postponement, "box_id"))
    return found


def _probes(probes: Iterable[Probe]) -> dict[int, ProbeHistory]:
    moves = grouped(ProbeMove, "probe_id")
    checks = grouped(ProbeCheck, "probe_id", "at_s")
    left_out = grouped(LeftOut, "probe_id", "from_s")
    return {
        p.entity_id: ProbeHistory(
            LocationHistory.of(
                p.since_s,
                p.place_id,
                [(m.from_s, m.place_id) for m in moves.get(p.entity_id, [])],
            ),
            [
                Check(CheckKind(r.kind), r.at_s, r.shown, r.expected)
                for r in checks.get(p.entity_id, [])
            ],
            left_out.get(p.entity_id, []),
        )
        for p in probes
    }


def _cabinets() -> dict[int, CabinetHistory]:
    found: defaultdict[int, CabinetHistory] = defaultdict(CabinetHistory)
    for cabinet, rows in grouped(SetPoint, "cabinet_id", "from_s").items():
        found[cabinet].set_points = set_points(rows)
    _fill(found, "alterations", grouped(Alteration, "cabinet_id", "at_s"))
    return dict(found)


def _clutches() -> dict[int, ClutchHistory]:
    found: defaultdict[int, ClutchHistory] = defaultdict(ClutchHistory)
    _fill(found, "method", _single(ClutchMethod, "clutch_id"))
    _fill(found, "origin", _single(ClutchOrigin, "clutch_id"))
    _fill(found, "finished", _single(Finished, "clutch_id"))
    return dict(found)


def _single(table: type[FactT], owner: str) -> dict[int, FactT]:
    """Current rows of a table that has one for each of what they belong to."""
    return {getattr(row, owner): row for row in table.current()}


def _fill(found: dict[int, _HistoryT], name: str, rows: dict[int, Any]) -> None:
    """Give each history its rows; rows of a box that is no more belong to none."""
    for owner, recorded in rows.items():
        if isinstance(found, defaultdict) or owner in found:
            setattr(found[owner], name, recorded)
