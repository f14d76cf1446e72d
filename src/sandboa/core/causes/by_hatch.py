"""Opened too early, could not get out, cord, malformed: what hatch and opening say (G)."""

from collections.abc import Iterator

from sandboa.core.causes.by_heat import full_term
from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.findings import DEFECTS, FINDINGS, FindingKind
from sandboa.core.causes.grounds import CauseSign, percent
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseRules
from sandboa.core.hatching.fates import Fate


def opened_early(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.OPENED_EARLY
    if egg.cut is None:
        yield CauseSign(cause, "never cut")
        return
    share, bled = egg.cut
    lived = egg.window.chance_after(share)
    if lived < 0.05:
        yield CauseSign(cause, "dead before")
        return
    if share < rules.limits.full_term:
        yield CauseSign(cause, "too early", lived, f"cut at {percent(share)} by heat")
    else:
        yield CauseSign(cause, "at term")
    if bled:
        yield CauseSign(cause, "bled", lived)
    if egg.found(FindingKind.YOLK, "large"):
        yield CauseSign(cause, "large yolk", found=True)
    if egg.found(FindingKind.VESSELS, "cut"):
        yield CauseSign(cause, "vessel cut", found=True)


def could_not_get_out(egg: LossEvidence, rules: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.COULD_NOT_GET_OUT
    if egg.pipped is not None and egg.fate is Fate.PIPPED_DIED:
        yield CauseSign(cause, "pipped")
        if (
            egg.pip_to_end_hours is not None
            and egg.pip_to_end_hours > rules.limits.long_pipped_hours
        ):
            yield CauseSign(cause, "long", 1.0, f"it lay pipped for {egg.pip_to_end_hours:.0f} h")
    elif full_term(egg):
        yield CauseSign(cause, "not pipped")
    else:
        yield CauseSign(cause, "not term")
    if egg.found(FindingKind.FLUID, "mouth"):
        yield CauseSign(cause, "fluid", found=True)
    if egg.found(FindingKind.SHELL, "hard"):
        yield CauseSign(cause, "hard shell", found=True)
    if egg.found(FindingKind.SHELL, "slit closed"):
        yield CauseSign(cause, "slit closed", found=True)


def cord(egg: LossEvidence, _: CauseRules) -> Iterator[CauseSign]:
    if egg.found(FindingKind.CORD, "around"):
        # As seen: what its note may be wrong by is in the score.
        yield CauseSign(Cause.CORD, "around")
    elif egg.known(FindingKind.CORD):
        yield CauseSign(Cause.CORD, "free")


def malformed(egg: LossEvidence, _: CauseRules) -> Iterator[CauseSign]:
    cause = Cause.MALFORMED
    seen = sorted(egg.findings.get(FindingKind.FORM, frozenset()) & DEFECTS)
    if seen:
        words = ", ".join(FINDINGS[FindingKind.FORM][value] for value in seen)
        yield CauseSign(cause, "defect", 1.0, words)
        if any(s.defects for s in egg.siblings):
            yield CauseSign(cause, "siblings")
    elif egg.known(FindingKind.FORM):
        yield CauseSign(cause, "normal")
