"""Opened too early, could not get out, cord, malformed: what hatch and opening say (G)."""

from collections.abc import Iterator
from typing import Final

from sandboa.core.causes.by_heat import full_term
from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.findings import DEFECTS, FINDINGS, FindingKind
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.said import Said, percent
from sandboa.core.hatching.advice import FULL_TERM
from sandboa.core.hatching.fates import Fate

#: h pipped that are long (handbook 1: most are out within 24-48 h).
LONG_PIPPED_HOURS: Final = 48.0


def opened_early(egg: LossEvidence) -> Iterator[Said]:
    cause = Cause.OPENED_EARLY
    if egg.cut is None:
        yield Said(cause, "never cut")
        return
    share, bled = egg.cut
    lived = egg.window.chance_after(share)
    if lived < 0.05:
        yield Said(cause, "dead before")
        return
    if share < FULL_TERM:
        yield Said(cause, "too early", lived, f"cut at {percent(share)} by heat")
    else:
        yield Said(cause, "at term")
    if bled:
        yield Said(cause, "bled", lived)
    if egg.found(FindingKind.YOLK, "large"):
        yield Said(cause, "large yolk")
    if egg.found(FindingKind.VESSELS, "cut"):
        yield Said(cause, "vessel cut")


def could_not_get_out(egg: LossEvidence) -> Iterator[Said]:
    cause = Cause.COULD_NOT_GET_OUT
    if egg.pipped is not None and egg.fate is Fate.PIPPED_DIED:
        yield Said(cause, "pipped")
        if egg.pip_to_end_hours is not None and egg.pip_to_end_hours > LONG_PIPPED_HOURS:
            yield Said(cause, "long", 1.0, f"it lay pipped for {egg.pip_to_end_hours:.0f} h")
    elif full_term(egg):
        yield Said(cause, "not pipped")
    else:
        yield Said(cause, "not term")
    if egg.found(FindingKind.FLUID, "mouth"):
        yield Said(cause, "fluid")
    if egg.found(FindingKind.SHELL, "hard"):
        yield Said(cause, "hard shell")


def cord(egg: LossEvidence) -> Iterator[Said]:
    if egg.found(FindingKind.CORD, "around"):
        yield Said(Cause.CORD, "around")
    elif egg.known(FindingKind.CORD):
        yield Said(Cause.CORD, "free")


def malformed(egg: LossEvidence) -> Iterator[Said]:
    cause = Cause.MALFORMED
    seen = sorted(egg.findings.get(FindingKind.FORM, frozenset()) & DEFECTS)
    if seen:
        words = ", ".join(FINDINGS[FindingKind.FORM][value] for value in seen)
        yield Said(cause, "defect", 1.0, words)
        if any(s.defects for s in egg.siblings):
            yield Said(cause, "siblings")
    elif egg.known(FindingKind.FORM):
        yield Said(cause, "normal")
