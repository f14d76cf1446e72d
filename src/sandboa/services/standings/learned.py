"""What the house's closed eggs taught of signs and losses; held while they stand."""

from collections.abc import Callable, Iterator

from sandboa.core.hatching import Fate
from sandboa.core.rules_in_force import rules_in_force
from sandboa.core.settings import SETTINGS
from sandboa.core.standing import Situation
from sandboa.core.standing.learning import ClosedEgg, LearnedStanding, learn_standing
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch, Egg
from sandboa.services.snapshot.closed_clutches import record_of_closed
from sandboa.services.snapshot.kept import Same
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.services.standings.observations import observations_of


def learned_standing(snapshot: Snapshot) -> LearnedStanding:
    """The rules that eggs are judged by in this house, with what its closed clutches taught.

    What a keeper set stays as it was set.
    """
    # Every egg asks, and the stamp alone is made of every closed clutch.
    return snapshot.own.held("learned standing", None, lambda: _learned(snapshot))


def _learned(snapshot: Snapshot) -> LearnedStanding:
    closed, values = snapshot.closed, snapshot.settings.values

    def learn() -> LearnedStanding:
        ordered = sorted(closed, key=lambda one: one[1].at_s)
        eggs = [egg for clutch, _ in ordered for egg in _closed_eggs(snapshot, clutch)]
        own = frozenset(name for name, value in values.items() if value != SETTINGS[name].default)
        return learn_standing(eggs, rules_in_force(values).standing, own)

    stamp = (
        record_of_closed(snapshot),
        Same(snapshot.settings, snapshot.shelves, snapshot.histories.cabinets),
    )
    return snapshot.kept.held("learned standing", stamp, learn)


def _closed_eggs(snapshot: Snapshot, clutch: Clutch) -> Iterator[ClosedEgg]:
    """The eggs of a closed clutch of which a pip, or a declared death, says how they ended."""
    eggs = [egg for egg in snapshot.eggs.get(clutch.entity_id, []) if not egg.slug]
    share_at = _by_days(snapshot, clutch, eggs)
    for egg in eggs:
        held = snapshot.egg(egg.entity_id)
        if held.pip_s is not None or held.emergence is not None:
            end_s, lived = held.pip_s or float(held.emergence.seen_s), True  # type: ignore[union-attr]
        elif held.fate is not None and held.fate.fate == Fate.DEAD_IN_EGG:
            end_s, lived = float(held.fate.at_s), False
        else:
            continue
        # A share beyond the term says only that it is late.
        share = min(max(share_at(end_s), 0.02), 1.1)
        seen = observations_of(snapshot, egg, share_at, end_s)
        yield ClosedEgg(tuple(seen), Situation(clutch.laid_s, end_s, share), lived)


def _by_days(snapshot: Snapshot, clutch: Clutch, eggs: list[Egg]) -> Callable[[float], float]:
    """Share developed at a time (s) by days alone: of the days to its mean pip, else of those its
    set point gives. Reading a season's temperatures of every closed clutch would take minutes; a
    look is told to a few per cent of the term without."""
    pips = [s for egg in eggs if (s := snapshot.egg(egg.entity_id).pip_s) is not None]
    if pips:
        whole_s = max(sum(pips) / len(pips) - clutch.laid_s, SECONDS_PER_DAY)
    else:
        cabinet = snapshot.shelf_at(
            snapshot.box_of(clutch, clutch.laid_s), clutch.laid_s
        ).cabinet_id
        set_points = snapshot.cabinet(cabinet).set_points
        set_c = set_points.at(clutch.laid_s) if set_points else _USUAL_C
        rate = max(float(snapshot.settings.rules.clock.rate_per_day(set_c)), 1e-3)
        whole_s = SECONDS_PER_DAY / rate
    return lambda at_s: max(at_s - clutch.laid_s, 0.0) / whole_s


#: °C a cabinet is taken to be set to where nothing is recorded (assumption).
_USUAL_C = 31.5
