"""Too dry, too wet, stale air, pests: what the box says (rule G)."""

from collections.abc import Iterator
from typing import Final

from sandboa.core.causes.evidence import LossEvidence, Water
from sandboa.core.causes.findings import DEFECTS, FindingKind
from sandboa.core.causes.grounds import CauseSign, percent
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseRules
from sandboa.core.causes.time_of_death import DeathWindow
from sandboa.core.hatching.fates import DeathStage, Fate, span_of
from sandboa.core.rounds.acts import EggActKind
from sandboa.core.standing.signs import SignKind

#: Visits with a wet lid that count as several.
_SEVERAL: Final = 2


def too_dry(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, water = Cause.TOO_DRY, egg.water
    if egg.found(FindingKind.YOLK, "hard"):
        yield CauseSign(cause, "hard yolk", found=True)
    elif egg.known(FindingKind.YOLK):
        yield CauseSign(cause, "yolk usual", found=True)
    if egg.found(FindingKind.FLUID, "little"):
        yield CauseSign(cause, "little fluid", found=True)
    if any(s.small for s in egg.siblings if s.fate is Fate.HATCHED):
        yield CauseSign(cause, "small siblings")
    if water is None:
        return
    dented = [(s, n, of) for s, n, of in water.dented_early if s <= egg.window.end]
    if dented:
        share, early, of = dented[0]
        holds = egg.window.chance_after(share)
        words = f"{early} of {of} eggs dented early at {percent(share)}"
        yield CauseSign(cause, "box dented", holds, words)
    elif water.plump_until is not None and water.plump_until >= 0.8 * egg.window.start:
        yield CauseSign(cause, "plump")
    yield from _water_left(egg, rules)
    dry = [s for s, value in water.medium if value == "dry" and s <= egg.window.end]
    if dry:
        yield CauseSign(cause, "medium dry", egg.window.chance_after(dry[0]))
    lids = _lids_that_speak(water, egg.window, rules)
    if len(lids) >= _SEVERAL and all(value in ("half", "raining") for _, value in lids):
        yield CauseSign(cause, "wet lid")


def _lids_that_speak(
    water: Water, window: DeathWindow, rules: CauseRules
) -> list[tuple[float, str]]:
    """Looks at the lid while the egg lived, but for those in the wave of water before pipping."""
    until = min(window.end, rules.water.lid_silent_from)
    return [(share, value) for share, value in water.lid if share <= until]


def _water_left(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    if egg.water is None or egg.water.lowest is None:
        return
    low, middle, high = egg.water.lowest
    words = f"water down to about {percent(middle)} ({percent(low)} to {percent(high)})"
    # An estimate that was never held against a scale says less.
    trust = 1.0 if egg.water.weighed else 0.5
    if middle < rules.water.dry:
        yield CauseSign(Cause.TOO_DRY, "water dry", trust, words)
    elif middle < rules.water.top_up:
        yield CauseSign(Cause.TOO_DRY, "water low", trust, words)
    elif low >= rules.water.top_up:
        yield CauseSign(Cause.TOO_DRY, "water enough", trust, words)


def too_wet(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, water = Cause.TOO_WET, egg.water
    if egg.found(FindingKind.SHELL, "bottom soft"):
        yield CauseSign(cause, "bottom soft", found=True)
    elif egg.known(FindingKind.SHELL):
        yield CauseSign(cause, "bottom sound", found=True)
    if egg.found(FindingKind.OUTSIDE, "below"):
        yield CauseSign(cause, "mould below", found=True)
    in_water = [h for h in egg.happened if h.kind == EggActKind.IN_WATER]
    if in_water:
        holds = max(egg.window.chance_after(h.after) for h in in_water)
        yield CauseSign(cause, "in water", holds, f"lay in water at {percent(in_water[0].share)}")
    if water is None:
        return
    before = [(s, value) for s, value in water.medium if s <= egg.window.end]
    dripped = [s for s, value in before if value == "drips"]
    dry = any(value in ("barely damp", "dry") for _, value in before)
    if dripped:
        yield CauseSign(cause, "medium dripped", egg.window.chance_after(dripped[0]))
    elif dry or water.on_grid:
        yield CauseSign(cause, "dry", 1.0 if dry else 0.4)
    rained = [s for s, value in _lids_that_speak(water, egg.window, rules) if value == "raining"]
    if len(rained) >= _SEVERAL:
        yield CauseSign(cause, "lid rained")
        mould = [s.share for s in egg.seen if s.kind is SignKind.MOULD and s.value != "none"]
        if any(share >= rained[0] for share in mould):
            yield CauseSign(cause, "mould after rain")


def stale_air(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause, air = Cause.STALE_AIR, egg.air
    if egg.window.end <= rules.limits.air_from:
        yield CauseSign(cause, "early")
        return
    late = egg.window.chance_after(rules.limits.air_from)
    if late < 1.0:
        yield CauseSign(cause, "early", 1.0 - late)
    if egg.found(FindingKind.STAGE, "full term") and not egg.found(FindingKind.FORM, *DEFECTS):
        yield CauseSign(cause, "formed", found=True)
    alike = sum(_full_term(s.died) for s in egg.siblings if s.died is not None)
    if alike:
        yield CauseSign(cause, "siblings full term", min(1.0, alike / 2.0 + 0.5))
    if egg.neighbours.full_term_boxes > 1:
        yield CauseSign(cause, "boxes full term")
    out = sum(s.fate is Fate.HATCHED for s in egg.siblings)
    if egg.siblings and 2 * out > len(egg.siblings):
        yield CauseSign(cause, "sibling out")
    if air is None:
        return
    if air.oxygen is not None:
        low, middle, _ = air.oxygen
        words = f"oxygen about {percent(middle)} then, may be {percent(low)}"
        if middle < rules.air_below:
            yield CauseSign(cause, "low oxygen", 1.0, words)
        elif low < rules.air_below:
            yield CauseSign(cause, "may be low", 1.0, words)
        else:
            yield CauseSign(cause, "vented", 1.0, words)
    elif not air.sealed:
        yield CauseSign(cause, "vented")
    if air.sealed and air.days_unopened >= rules.limits.rarely_days:
        words = f"sealed, and not opened for {air.days_unopened:.0f} days"
        yield CauseSign(cause, "sealed", 1.0, words)


def _full_term(died: DeathWindow) -> bool:
    return died.middle >= span_of(DeathStage.FULL_TERM)[0]


def pests(egg: LossEvidence, _: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.PESTS
    if egg.found(FindingKind.LARVAE, "seen"):
        yield CauseSign(cause, "larvae", found=True)
    elif egg.known(FindingKind.LARVAE):
        yield CauseSign(cause, "no larvae", found=True)
    if egg.pests_seen:
        yield CauseSign(cause, "seen")
    elif egg.pests_seen is False:
        yield CauseSign(cause, "none seen")
    if egg.water is not None and egg.water.sealed:
        yield CauseSign(cause, "sealed")
