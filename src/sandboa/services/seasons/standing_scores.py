"""How good the kept standings of eggs in closed clutches were."""

from collections.abc import Sequence

from sandboa.core.hatching import Fate
from sandboa.core.standing import JUDGED_DAYS, StandingScore, ToldEgg, score_standings
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import issued_forecasts
from sandboa.services.losses.outcomes import ClutchOutcomes, EggOutcome
from sandboa.services.seasons.counted import CountedClutch
from sandboa.services.snapshot.snapshot import Snapshot


def standing_scores(snapshot: Snapshot, clutches: Sequence[CountedClutch]) -> list[StandingScore]:
    """By day, over the eggs of those clutches that were judged on it.

    Eggs of which nobody knows the end, and those taken out closed, say nothing.
    """
    by_day: dict[int, list[ToldEgg]] = {day: [] for day in JUDGED_DAYS}
    ends = {
        end.egg.entity_id: (clutch.outcomes, end)
        for clutch in clutches
        if clutch.outcomes is not None
        for end in clutch.outcomes.eggs
        if end.fate not in (None, Fate.REMOVED, Fate.UNKNOWN)
    }
    for told in issued_forecasts.all_standings_told():
        if told.egg_id not in ends or told.day not in by_day or told.will_hatch is None:
            continue
        outcomes, end = ends[told.egg_id]
        hatched = end.emerged_s is not None or (end.fate is not None and end.fate.has_hatched)
        lived = _lived(outcomes, end, told.day)
        by_day[told.day].append(ToldEgg(told.alive, told.will_hatch, hatched, lived))
    rules = snapshot.settings.rules.standing
    found = (score_standings(day, told, rules) for day, told in by_day.items())
    return [s for s in found if s is not None]


def _lived(outcomes: ClutchOutcomes, end: EggOutcome, day: int) -> bool | None:
    """Whether the egg lived on a day after lay, by its pip or its opening; None where neither says.

    Signs seen by torch do not count: the standing itself rests on them.
    """
    then_s = outcomes.clutch.laid_s + day * SECONDS_PER_DAY
    if end.pipped_s is not None or end.emerged_s is not None or end.window is None:
        return True
    if not end.opened:
        return None
    if end.died_from_s >= then_s:
        return True
    return False if end.died_by_s <= then_s else None
