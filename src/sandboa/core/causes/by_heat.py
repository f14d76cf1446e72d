"""Too hot, too cold, unstable, equipment, poisoned air: what the cabinet says (rule G)."""

from collections.abc import Iterator
from typing import Final

from sandboa.core.causes.evidence import FaultThen, LossEvidence
from sandboa.core.causes.findings import DEFECTS, FindingKind
from sandboa.core.causes.grounds import CauseSign
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseLimits, CauseRules
from sandboa.core.hatching.fates import DeathStage, Fate
from sandboa.core.messages import Difference, Message, Temperature

#: Faults that leave eggs without their heat; overshoot shows as swings, a door as nothing lasting.
HARMFUL: Final = frozenset({"fan", "power cut"})


def too_hot(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, heat = Cause.TOO_HOT, egg.heat
    limits = rules.limits
    if sum(s.defects for s in egg.siblings) >= 2:
        yield CauseSign(cause, "sibling defects")
    if sum(s.small for s in egg.siblings) >= 2:
        yield CauseSign(cause, "small siblings")
    if egg.found(FindingKind.FORM, *DEFECTS):
        yield CauseSign(cause, "defect", found=True)
    if egg.pipped_early_days is not None and egg.pipped_early_days >= limits.early_days:
        early = f"its siblings pipped {egg.pipped_early_days:.0f} days early for the set point"
        yield CauseSign(cause, "hatched early", 1.0, early)
    if heat is None:
        return
    if heat.hot_degree_hours >= limits.hot_degree_hours:
        words = Message(
            "{hours:.0f} degree-hours too hot, up to {highest}",
            hours=heat.hot_degree_hours, highest=Temperature(heat.highest_c),
        )  # fmt: skip
        then = _then(egg, rules, heat.hot)
        yield CauseSign(cause, "hot", then, words)
        if heat.hot_degree_hours >= limits.very_hot_degree_hours:
            yield CauseSign(cause, "very hot", then)
        yield from _others(egg, rules, cause)
    elif heat.highest_c <= limits.never_hot_c + 0.5 and heat.measured >= limits.measured_enough:
        yield CauseSign(
            cause,
            "never hot",
            1.0,
            Message("never above {highest}", highest=Temperature(heat.highest_c)),
        )


def too_cold(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, heat = Cause.TOO_COLD, egg.heat
    limits = rules.limits
    if egg.pipped_early_days is not None and egg.pipped_early_days <= -limits.late_days:
        late = f"its siblings pipped {-egg.pipped_early_days:.0f} days late for the set point"
        yield CauseSign(cause, "hatched late", 1.0, late)
    if _immature(egg):
        yield CauseSign(cause, "immature")
    if heat is None:
        return
    if heat.cold_hours >= limits.cold_hours or heat.lowest_c < limits.deep_cold_c:
        words = Message(
            "{hours:.0f} h in a row below {limit}, down to {lowest}",
            hours=heat.cold_hours, limit=Temperature(rules.climate.slow_below_c, 0),
            lowest=Temperature(heat.lowest_c),
        )  # fmt: skip
        then = _then(egg, rules, heat.cold)
        yield CauseSign(cause, "cold", then, words)
        if heat.cold_hours >= limits.very_cold_hours or heat.lowest_c < limits.deep_cold_c:
            yield CauseSign(cause, "very cold", then)
        yield from _others(egg, rules, cause)
    elif heat.cold_hours < 6.0 and heat.measured >= limits.measured_enough:
        yield CauseSign(cause, "steady")


def _then(egg: LossEvidence, rules: CauseRules, span: tuple[float, float] | None) -> float:
    """Chance (0-1) that it died in a span of shares developed, or soon after it."""
    if span is None:
        return 1.0
    return egg.window.chance_between(span[0], span[1] + rules.limits.fault_reach)


def _immature(egg: LossEvidence) -> bool:
    """Given up late, but found less grown than an egg that lived until near then."""
    found = egg.findings.get(FindingKind.STAGE, frozenset())
    return "mid" in found and egg.window.end > 0.75


def unstable(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, heat = Cause.UNSTABLE, egg.heat
    limits = rules.limits
    if heat is None:
        return
    if heat.swing_days >= limits.swing_days:
        words = Message(
            "{days} days with more than {swing} of swing",
            days=heat.swing_days, swing=Difference(rules.climate.swing_c),
        )  # fmt: skip
        then = _then(egg, rules, heat.swings)
        yield CauseSign(cause, "swings", then, words)
        if heat.swing_days >= limits.many_swing_days:
            yield CauseSign(cause, "many swings", then)
        yield from _others(egg, rules, cause)
    elif heat.measured >= limits.measured_enough:
        calm = 1.0 if heat.largest_swing_c <= limits.calm_swing_c else 0.7
        yield CauseSign(cause, "calm", calm)


def equipment(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, heat = Cause.EQUIPMENT, egg.heat
    limits = rules.limits
    if heat is None:
        return
    then = [f for f in heat.faults if _harmful(f, rules.limits) and f.start <= egg.window.end]
    chances = {
        fault: egg.window.chance_between(fault.start, fault.end + limits.fault_reach)
        for fault in then
    }
    harmful = [f for f in then if chances[f] > 0.05]
    if harmful:
        worst = max(harmful, key=lambda f: chances[f] * (1.0 + f.largest_c))
        words = f"{worst.kind}: up to {worst.hours:.0f} h, shortly before or while it died"
        yield CauseSign(cause, "fault", chances[worst], words)
        if worst.largest_c >= limits.severe_c or worst.hours >= limits.severe_hours:
            yield CauseSign(cause, "severe", chances[worst])
        lost, eggs = egg.neighbours.same_cabinet
        if eggs and lost >= 2:
            yield CauseSign(cause, "siblings too", min(1.0, 2.0 * lost / eggs))
    elif heat.measured >= limits.measured_enough:
        yield CauseSign(cause, "none")


def _harmful(fault: FaultThen, limits: CauseLimits) -> bool:
    lasting = fault.hours <= limits.longest_outage_hours
    return fault.kind in HARMFUL and lasting and fault.largest_c >= limits.harmless_c


def _others(egg: LossEvidence, rules: CauseRules, cause: Cause) -> Iterator[CauseSign]:
    """What strikes a cabinet strikes more than one egg in it."""
    around, own = egg.neighbours.same_cabinet, [s for s in egg.siblings if s.died is not None]
    reach = rules.limits.fault_reach
    alike = sum(
        egg.window.chance_between(s.died.start - reach, s.died.end + reach) > 0.0
        for s in own
        if s.died is not None
    )
    lost = around[0] + alike
    if lost >= 2:
        yield CauseSign(cause, "others too", 1.0, f"{lost} others lost at about that time")
    elif lost == 0 and around[1] + len(egg.siblings) >= 4:
        yield CauseSign(cause, "others fine")


def poisoned_air(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, around = Cause.POISONED_AIR, egg.neighbours
    limits = rules.limits
    if around.altered_days is not None and around.altered_days <= limits.new_days:
        yield CauseSign(cause, "altered", 1.0, f"altered {around.altered_days:.0f} days before")
    elif around.new_days is not None and around.new_days <= limits.new_days:
        yield CauseSign(cause, "new", 1.0, f"in use for {around.new_days:.0f} days only")
    # Vapours take a batch at one age of its eggs, whatever week that is for each box.
    lost, eggs = around.same_age
    in_time = limits.batch_from_days <= egg.death_day <= limits.batch_to_days
    own = [s for s in egg.siblings if s.fate not in (None, Fate.SLUG)]
    alike = [s for s in own if s.died is not None and s.died.overlaps(egg.window)]
    all_eggs, all_lost = eggs + len(own), lost + len(alike)
    if all_eggs and all_lost >= limits.batch_share * all_eggs:
        words = f"{all_lost + 1} of {all_eggs + 1} eggs of this cabinet were lost at that age"
        yield CauseSign(cause, "whole batch", 1.0 if in_time and around.boxes else 0.4, words)
        if around.elsewhere[1] and 3 * around.elsewhere[0] > around.elsewhere[1]:
            yield CauseSign(cause, "elsewhere too")
    elif all_eggs:
        yield CauseSign(cause, "others fine")


def full_term(egg: LossEvidence) -> bool:
    """Whether it died at full term, as far as anybody can tell."""
    return egg.found(FindingKind.STAGE, DeathStage.FULL_TERM.value) or egg.window.start >= 0.85


def most_hatched(egg: LossEvidence) -> bool | None:
    """Whether most of its siblings hatched; None while their fates are not known."""
    known = [s.fate for s in egg.siblings if s.fate not in (None, Fate.SLUG)]
    if not known:
        return None
    return 2 * sum(fate is Fate.HATCHED for fate in known) > len(known)
