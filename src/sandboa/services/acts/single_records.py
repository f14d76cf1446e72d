"""Acts that record one thing, which can be told anew: a weight, a meal, a pip, a set point."""

from collections.abc import Mapping, Sequence
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.records.animals import Departure, Lock, Meal, Sign, Tub, Weight
from sandboa.records.clutches import BoxMove, Candling, Turgor, Watering
from sandboa.records.facts import Act, Fact
from sandboa.records.hatching import Alteration, Cut, Emergence, Pip, Shed
from sandboa.records.house import SetPoint
from sandboa.services.acts.standing import standing_of

#: What acts of each kind record, where that is one thing.
SINGLE: Final[Mapping[str, type[Fact]]] = {
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
}


def standing_single(acts: Sequence[Act]) -> dict[int, Fact]:
    """What stands as one of those acts recorded it alone, by the act's id."""
    by_table: dict[type[Fact], list[int]] = {}
    for act in acts:
        table = SINGLE.get(act.kind)
        if table is not None:
            by_table.setdefault(table, []).append(act.id)
    found: dict[int, Fact] = {}
    several: set[int] = set()
    for table, ids in by_table.items():
        for act_id, row in standing_of(table, ids):
            if act_id in found:
                several.add(act_id)
            found[act_id] = row
    return {act: row for act, row in found.items() if act not in several}
