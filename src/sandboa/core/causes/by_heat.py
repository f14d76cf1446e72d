"""Too hot, too cold, unstable, equipment, poisoned air: what the cabinet says (rule G)."""

from collections.abc import Iterator
from typing import Final

from sandboa.core.causes.evidence import FaultThen, LossEvidence
from sandboa.core.causes.findings import DEFECTS, FindingKind
from sandboa.core.causes.grounds import CauseSign
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.scores import NEVER_HOT_C
from sandboa.core.climate.rules import SWING_C
from sandboa.core.development.cold_spells import COLD_BELOW_C
from sandboa.core.hatching.fates import DeathStage, Fate
from sandboa.core.messages import Difference, Message, Temperature

#: Days by which pips come before, or after, what the set point gives to speak of heat, or of cold
#: (assumption: beyond what clutches of one house differ by).
EARLY_DAYS: Final = 5.0
LATE_DAYS: Final = 6.0
#: °C·h above 33.5 from which it counts, and counts as much (assumption).
HOT_DEGREE_HOURS: Final = (3.0, 20.0)
#: h below 27 °C that are a long stretch, and a very long one (assumption).
COLD_HOURS: Final = (24.0, 72.0)
#: °C below which a cold is deep whatever its length (rule E: 20 for 24 h; assumption).
DEEP_COLD_C: Final = 21.0
#: Days with swings over 2 °C that are several, and many (rule G "several days"; assumption).
SWING_DAYS: Final = (3, 8)
#: °C up to which a day's swing is calm (rule E).
CALM_SWING_C: Final = 1.0
#: Share of the time that must be measured for "never" to be said.
MEASURED_ENOUGH: Final = 0.8
#: Share developed after a fault in which a death is still laid to it (assumption: some 9 days).
FAULT_REACH: Final = 0.15
#: h beyond which it is no outage any more but a cold stretch (assumption), and °C below which
#: it cost the eggs nothing.
LONGEST_OUTAGE_HOURS: Final = 60.0
HARMLESS_C: Final = 2.5
#: °C and h from which a fault is severe (assumption).
SEVERE_C: Final = 4.0
SEVERE_HOURS: Final = 12.0
#: Faults that leave eggs without their heat; overshoot shows as swings, a door as nothing lasting.
HARMFUL: Final = frozenset({"fan", "power cut"})
#: Days for which a cabinet counts as new, and an alteration as recent (assumption).
NEW_DAYS: Final = 150.0
#: Days after lay in which vapours kill a batch (rule G: "around weeks 4-6").
BATCH_DAYS: Final = (21.0, 49.0)
_BATCH_SHARE: Final = 0.6


def too_hot(egg: LossEvidence) -> Iterator[CauseSign]:
    cause, heat = Cause.TOO_HOT, egg.heat
    if sum(s.defects for s in egg.siblings) >= 2:
        yield CauseSign(cause, "sibling defects")
    if sum(s.small for s in egg.siblings) >= 2:
        yield CauseSign(cause, "small siblings")
    if egg.found(FindingKind.FORM, *DEFECTS):
        yield CauseSign(cause, "defect", found=True)
    if egg.pipped_early_days is not None and egg.pipped_early_days >= EARLY_DAYS:
        early = f"its siblings pipped {egg.pipped_early_days:.0f} days early for the set point"
        yield CauseSign(cause, "hatched early", 1.0, early)
    if heat is None:
        return
    if heat.hot_degree_hours >= HOT_DEGREE_HOURS[0]:
        words = Message(
            "{hours:.0f} degree-hours too hot, up to {highest}",
            hours=heat.hot_degree_hours, highest=Temperature(heat.highest_c),
        )  # fmt: skip
        then = _then(egg, heat.hot)
        yield CauseSign(cause, "hot", then, words)
        if heat.hot_degree_hours >= HOT_DEGREE_HOURS[1]:
            yield CauseSign(cause, "very hot", then)
        yield from _others(egg, cause)
    elif heat.highest_c <= NEVER_HOT_C + 0.5 and heat.measured >= MEASURED_ENOUGH:
        yield CauseSign(
            cause,
            "never hot",
            1.0,
            Message("never above {highest}", highest=Temperature(heat.highest_c)),
        )


def too_cold(egg: LossEvidence) -> Iterator[CauseSign]:
    cause, heat = Cause.TOO_COLD, egg.heat
    if egg.pipped_early_days is not None and egg.pipped_early_days <= -LATE_DAYS:
        late = f"its siblings pipped {-egg.pipped_early_days:.0f} days late for the set point"
        yield CauseSign(cause, "hatched late", 1.0, late)
    if _immature(egg):
        yield CauseSign(cause, "immature")
    if heat is None:
        return
    if heat.cold_hours >= COLD_HOURS[0] or heat.lowest_c < DEEP_COLD_C:
        words = Message(
            "{hours:.0f} h in a row below {limit}, down to {lowest}",
            hours=heat.cold_hours, limit=Temperature(COLD_BELOW_C, 0),
            lowest=Temperature(heat.lowest_c),
        )  # fmt: skip
        then = _then(egg, heat.cold)
        yield CauseSign(cause, "cold", then, words)
        if heat.cold_hours >= COLD_HOURS[1] or heat.lowest_c < DEEP_COLD_C:
            yield CauseSign(cause, "very cold", then)
        yield from _others(egg, cause)
    elif heat.cold_hours < 6.0 and heat.measured >= MEASURED_ENOUGH:
        yield CauseSign(cause, "steady")


def _then(egg: LossEvidence, span: tuple[float, float] | None) -> float:
    """Chance (0-1) that it died in a span of shares developed, or soon after it."""
    if span is None:
        return 1.0
    return egg.window.chance_between(span[0], span[1] + FAULT_REACH)


def _immature(egg: LossEvidence) -> bool:
    """Given up late, but found less grown than an egg that lived until near then."""
    found = egg.findings.get(FindingKind.STAGE, frozenset())
    return "mid" in found and egg.window.end > 0.75


def unstable(egg: LossEvidence) -> Iterator[CauseSign]:
    cause, heat = Cause.UNSTABLE, egg.heat
    if heat is None:
        return
    if heat.swing_days >= SWING_DAYS[0]:
        words = Message(
            "{days} days with more than {swing} of swing",
            days=heat.swing_days, swing=Difference(SWING_C[1]),
        )  # fmt: skip
        then = _then(egg, heat.swings)
        yield CauseSign(cause, "swings", then, words)
        if heat.swing_days >= SWING_DAYS[1]:
            yield CauseSign(cause, "many swings", then)
        yield from _others(egg, cause)
    elif heat.measured >= MEASURED_ENOUGH:
        calm = 1.0 if heat.largest_swing_c <= CALM_SWING_C else 0.7
        yield CauseSign(cause, "calm", calm)


def equipment(egg: LossEvidence) -> Iterator[CauseSign]:
    cause, heat = Cause.EQUIPMENT, egg.heat
    if heat is None:
        return
    then = [f for f in heat.faults if _harmful(f) and f.start <= egg.window.end]
    chances = {
        fault: egg.window.chance_between(fault.start, fault.end + FAULT_REACH) for fault in then
    }
    harmful = [f for f in then if chances[f] > 0.05]
    if harmful:
        worst = max(harmful, key=lambda f: chances[f] * (1.0 + f.largest_c))
        words = f"{worst.kind}: up to {worst.hours:.0f} h, shortly before or while it died"
        yield CauseSign(cause, "fault", chances[worst], words)
        if worst.largest_c >= SEVERE_C or worst.hours >= SEVERE_HOURS:
            yield CauseSign(cause, "severe", chances[worst])
        lost, eggs = egg.neighbours.same_cabinet
        if eggs and lost >= 2:
            yield CauseSign(cause, "siblings too", min(1.0, 2.0 * lost / eggs))
    elif heat.measured >= MEASURED_ENOUGH:
        yield CauseSign(cause, "none")


def _harmful(fault: FaultThen) -> bool:
    lasting = fault.hours <= LONGEST_OUTAGE_HOURS
    return fault.kind in HARMFUL and lasting and fault.largest_c >= HARMLESS_C


def _others(egg: LossEvidence, cause: Cause) -> Iterator[CauseSign]:
    """What strikes a cabinet strikes more than one egg in it."""
    around, own = egg.neighbours.same_cabinet, [s for s in egg.siblings if s.died is not None]
    alike = sum(
        egg.window.chance_between(s.died.start - FAULT_REACH, s.died.end + FAULT_REACH) > 0.0
        for s in own
        if s.died is not None
    )
    lost = around[0] + alike
    if lost >= 2:
        yield CauseSign(cause, "others too", 1.0, f"{lost} others lost at about that time")
    elif lost == 0 and around[1] + len(egg.siblings) >= 4:
        yield CauseSign(cause, "others fine")


def poisoned_air(egg: LossEvidence) -> Iterator[CauseSign]:
    cause, around = Cause.POISONED_AIR, egg.neighbours
    if around.altered_days is not None and around.altered_days <= NEW_DAYS:
        yield CauseSign(cause, "altered", 1.0, f"altered {around.altered_days:.0f} days before")
    elif around.new_days is not None and around.new_days <= NEW_DAYS:
        yield CauseSign(cause, "new", 1.0, f"in use for {around.new_days:.0f} days only")
    # Vapours take a batch at one age of its eggs, whatever week that is for each box.
    lost, eggs = around.same_age
    in_time = BATCH_DAYS[0] <= egg.death_day <= BATCH_DAYS[1]
    own = [s for s in egg.siblings if s.fate not in (None, Fate.SLUG)]
    alike = [s for s in own if s.died is not None and s.died.overlaps(egg.window)]
    all_eggs, all_lost = eggs + len(own), lost + len(alike)
    if all_eggs and all_lost >= _BATCH_SHARE * all_eggs:
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
