"""What dam, sire and the other boxes say of a lost egg."""

from collections.abc import Sequence
from typing import Final

from sandboa.core.causes.evidence import Neighbours, Parents
from sandboa.core.causes.time_of_death import DeathWindow
from sandboa.core.hatching import Fate
from sandboa.core.hatching.fates import DeathStage, span_of
from sandboa.core.laying import Sign as SignSeen
from sandboa.core.pairing.genes import Gene
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.animals import Sign, Weight
from sandboa.records.facts import act_of
from sandboa.records.house import Cabinet
from sandboa.services.animals.genes import odds_of
from sandboa.services.losses.box_evidence import box_of_death
from sandboa.services.losses.outcomes import ClutchOutcomes, EggOutcome
from sandboa.services.snapshot.snapshot import Snapshot

#: Years up to which a dam's first recorded clutch is taken to be her first (assumption).
_YOUNG_YEARS: Final = 4
#: Days before lay within which a weight is one of before pairing (assumption).
_BEFORE_LAY_DAYS: Final = (25.0, 300.0)
#: Days between two layings within which they are of one season, and by which two eggs may differ
#: in age and be of the same (assumptions).
_SEASON_DAYS: Final = 100.0
_SAME_AGE_DAYS: Final = 3.0
#: Days after the first cabinet was entered in which others are entered that stood there already
#: (assumption).
_MOVING_IN_DAYS: Final = 30.0
#: Days by which deaths in two boxes are of the same weeks (assumption).
_SAME_WEEKS_DAYS: Final = 7.0


def parents_of(
    snapshot: Snapshot,
    outcomes: ClutchOutcomes,
    others: Sequence[ClutchOutcomes],
    window: DeathWindow,
    genes: list[Gene],
) -> Parents:
    """What is known of dam and sire; this clutch is left out of the counts."""
    clutch = outcomes.clutch
    of_dam = [o for o in others if o.clutch.dam_id == clutch.dam_id]
    of_sire = [
        o for o in others if clutch.sire_id is not None and o.clutch.sire_id == clutch.sire_id
    ]
    pair = [o for o in of_dam if o.clutch.sire_id == clutch.sire_id and clutch.sire_id is not None]
    closed = [o for o in of_dam if snapshot.clutch(o.clutch.entity_id).finished is not None]
    fertile = [end for o in closed for end in o.eggs if end.fate is not Fate.SLUG]
    odds = (
        odds_of(clutch.dam_id, clutch.sire_id, genes)
        if clutch.sire_id is not None and genes
        else None
    )
    same_stage = snapshot.settings.rules.losses.limits.same_stage
    pair_ends = [end for o in pair for end in o.eggs if end.fate not in (None, Fate.SLUG)]
    return Parents(
        dam_slugs=_slugs(of_dam),
        sire_slugs=_slugs(of_sire),
        dam_hatched=(sum(e.fate is Fate.HATCHED for e in fertile), len(fertile)),
        first_clutch=_first(snapshot, outcomes, of_dam),
        dam_before_g=_before_g(clutch.dam_id, clutch.laid_s),
        dam_ill=_ill_before(clutch.dam_id, clutch.laid_s),
        lightest_g=snapshot.settings["lightest_dam_g"],
        can_double=None if odds is None else bool(odds.may_die),
        double_share=odds.dies if odds else 0.0,
        pair_lost_alike=(
            sum(
                e.window is not None and abs(e.window.middle - window.middle) <= same_stage
                for e in pair_ends
            ),
            len(pair_ends),
        ),
    )


def neighbours_of(
    snapshot: Snapshot, outcomes: ClutchOutcomes, others: Sequence[ClutchOutcomes], end: EggOutcome
) -> Neighbours:
    """Other boxes in the weeks of the egg's death, in its cabinet and elsewhere."""
    middle_s = (end.died_from_s + end.died_by_s) / 2.0
    own = box_of_death(snapshot, end) or snapshot.box_of(outcomes.clutch, middle_s)
    cabinet = snapshot.shelf_at(own, middle_s).cabinet_id
    here = [
        o for o in others if _lies(o, middle_s) and _cabinet_at(snapshot, o, middle_s) == cabinet
    ]
    there = [
        o for o in others if _lies(o, middle_s) and _cabinet_at(snapshot, o, middle_s) != cabinet
    ]
    season = [
        o
        for o in others
        if abs(o.clutch.laid_s - outcomes.clutch.laid_s) <= _SEASON_DAYS * SECONDS_PER_DAY
        and _cabinet_at(snapshot, o, o.clutch.laid_s) == cabinet
    ]
    full_term = span_of(DeathStage.FULL_TERM)[0]
    term_boxes = [
        o
        for o in (*here, outcomes)
        if any(e.lost and e.window is not None and e.window.middle >= full_term for e in o.eggs)
    ]
    began_s = _began_s(snapshot, cabinet)
    altered = [row.at_s for row in snapshot.cabinet(cabinet).alterations if row.at_s < middle_s]
    return Neighbours(
        same_cabinet=_summed([_lost_then(o, end) for o in here]),
        elsewhere=_summed([_lost_then(o, end) for o in there]),
        same_age=_summed([_lost_at_age(o, outcomes, end) for o in season]),
        boxes=len(season),
        full_term_boxes=len(term_boxes),
        new_days=None if began_s is None else max(middle_s - began_s, 0.0) / SECONDS_PER_DAY,
        altered_days=(middle_s - max(altered)) / SECONDS_PER_DAY if altered else None,
    )


def _slugs(clutches: Sequence[ClutchOutcomes]) -> tuple[int, int]:
    eggs = [end for o in clutches for end in o.eggs]
    return sum(e.fate is Fate.SLUG or bool(e.egg.slug) for e in eggs), len(eggs)


def _first(
    snapshot: Snapshot, outcomes: ClutchOutcomes, of_dam: Sequence[ClutchOutcomes]
) -> bool | None:
    """Whether it is her first clutch; None where she may have laid before the record began."""
    if any(o.clutch.laid_s < outcomes.clutch.laid_s for o in of_dam):
        return False
    year = snapshot.animals[outcomes.clutch.dam_id].hatch_year
    if year is None:
        return None
    laid_year = 1970 + outcomes.clutch.laid_s / SECONDS_PER_DAY / 365.2425
    return True if laid_year - year <= _YOUNG_YEARS + 1 else None


def _before_g(dam: int, laid_s: float) -> float | None:
    """Her lightest weight in the months before the clutch, growing eggs not yet heavy in her."""
    first, last = (laid_s - days * SECONDS_PER_DAY for days in reversed(_BEFORE_LAY_DAYS))
    weights = [w.mass_g for w in Weight.current(animal_id=dam) if first <= w.at_s <= last]
    return min(weights, default=None)


def _ill_before(dam: int, laid_s: float) -> bool:
    """Whether she was seen ill in the months before she laid."""
    first_s = laid_s - _BEFORE_LAY_DAYS[1] * SECONDS_PER_DAY
    return any(first_s <= s.seen_s <= laid_s for s in Sign.current(dam_id=dam, kind=SignSeen.ILL))


def _lies(outcomes: ClutchOutcomes, at_s: float) -> bool:
    return outcomes.clutch.laid_s <= at_s <= outcomes.until_s


def _cabinet_at(snapshot: Snapshot, outcomes: ClutchOutcomes, at_s: float) -> int:
    return snapshot.shelf_at(snapshot.box_of(outcomes.clutch, at_s), at_s).cabinet_id


def _lost_then(other: ClutchOutcomes, end: EggOutcome) -> tuple[int, int]:
    """(eggs of the other box that died in the same weeks, eggs that lived until them)."""
    slack_s = _SAME_WEEKS_DAYS * SECONDS_PER_DAY
    from_s, by_s = end.died_from_s - slack_s, end.died_by_s + slack_s
    lost = lying = 0
    for egg in other.eggs:
        if egg.fate is Fate.SLUG or egg.egg.slug:
            continue
        if egg.window is None:
            lying += 1
            continue
        middle_s = (egg.died_from_s + egg.died_by_s) / 2.0
        if middle_s >= from_s:
            lying += 1
            lost += middle_s <= by_s
    return lost, lying


def _lost_at_age(
    other: ClutchOutcomes, outcomes: ClutchOutcomes, end: EggOutcome
) -> tuple[int, int]:
    """(eggs of the other box that may have died at the same age, eggs that reached it)."""
    slack_s = _SAME_AGE_DAYS * SECONDS_PER_DAY
    from_s, by_s = (
        end.died_from_s - outcomes.clutch.laid_s - slack_s,
        end.died_by_s - outcomes.clutch.laid_s + slack_s,
    )
    lost = reached = 0
    for egg in other.eggs:
        if egg.fate in (None, Fate.SLUG) or egg.egg.slug:
            continue
        if egg.window is None:
            reached += 1
            continue
        began_s, ended_s = (s - other.clutch.laid_s for s in (egg.died_from_s, egg.died_by_s))
        if ended_s >= from_s:
            reached += 1
            lost += began_s <= by_s
    return lost, reached


def _summed(pairs: Sequence[tuple[int, int]]) -> tuple[int, int]:
    return sum(lost for lost, _ in pairs), sum(eggs for _, eggs in pairs)


def _began_s(snapshot: Snapshot, cabinet: int) -> float | None:
    """When the cabinet came into use; None where it may be older than its record.

    One entered with the house's first was there before, for all anybody knows: only who adds one
    to a house that is long on record has a new one.
    """
    rows = Cabinet.ever(entity_id=cabinet)
    if not rows:
        return None
    began = act_of(rows[0]).recorded_s
    first = min(act_of(row).recorded_s for row in Cabinet.ever())
    if began - first < _MOVING_IN_DAYS * SECONDS_PER_DAY:
        return None
    stood = [
        box.from_s
        for box in snapshot.boxes.values()
        if snapshot.shelves[box.shelf_id].cabinet_id == cabinet
    ]
    return float(min([began, *stood]))
