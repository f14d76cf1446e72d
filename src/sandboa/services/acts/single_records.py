"""Acts that record one thing, which can be told anew: a weight, a meal, a pip, a set point."""

from collections.abc import Mapping, Sequence
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.records.animals import Departure, Lock, Meal, Pairing, Sign, Tub, Weight
from sandboa.records.clutches import BoxMove, Candling, Turgor, Watering
from sandboa.records.facts import Act, Fact
from sandboa.records.hatching import Alteration, Cut, EggFate, Emergence, Finished, Pip, Shed
from sandboa.records.house import LeftOut, Probe, ProbeCheck, ProbeMove, SetPoint, Task
from sandboa.records.notes import Note
from sandboa.records.photos import Photo
from sandboa.services.acts.standing import standing_of

#: What acts of each kind record, where that is one thing; of several tables one of them.
_SINGLE: Final[Mapping[str, type[Fact] | tuple[type[Fact], ...]]] = {
    ActKind.WEIGH: Weight,
    ActKind.MEAL: Meal,
    ActKind.SIGN: Sign,
    ActKind.LOCK: Lock,
    ActKind.WATER: Watering,
    ActKind.GRADE: Turgor,
    ActKind.CANDLE: Candling,
    ActKind.PIP: Pip,
    ActKind.EMERGENCE: Emergence,
    ActKind.CUT: Cut,
    ActKind.SHED: Shed,
    ActKind.TUB: Tub,
    ActKind.DEPARTURE: Departure,
    ActKind.SET_POINT: SetPoint,
    ActKind.MOVE: BoxMove,
    ActKind.ALTERATION: Alteration,
    ActKind.FATE: EggFate,
    ActKind.FINISHED: Finished,
    ActKind.PROBE_CHECK: ProbeCheck,
    ActKind.LEFT_OUT: LeftOut,
    ActKind.PROBE: (Probe, ProbeMove),
    ActKind.PAIRING: Pairing,
    ActKind.PHOTO: Photo,
    ActKind.NOTE: Note,
    ActKind.TASK: Task,
}


def tables_of(kind: str) -> tuple[type[Fact], ...]:
    """The tables one of which holds what an act of that kind records; none for other kinds."""
    tables = _SINGLE.get(kind, ())
    return tables if isinstance(tables, tuple) else (tables,)


def standing_single(acts: Sequence[Act]) -> dict[int, Fact]:
    """What stands as one of those acts recorded it alone, by the act's id."""
    by_table: dict[type[Fact], list[int]] = {}
    for act in acts:
        for table in tables_of(act.kind):
            by_table.setdefault(table, []).append(act.id)
    return {act: rows[0] for act, rows in _standing(by_table).items() if len(rows) == 1}


def several_stand(act: Act) -> bool:
    """Whether several such things stand as that act recorded them."""
    return len(_standing({table: [act.id] for table in tables_of(act.kind)}).get(act.id, [])) > 1


def _standing(by_table: Mapping[type[Fact], Sequence[int]]) -> dict[int, list[Fact]]:
    rows: dict[int, list[Fact]] = {}
    for table, ids in by_table.items():
        for act_id, row in standing_of(table, ids):
            rows.setdefault(act_id, []).append(row)
    return rows
