"""Why an egg was lost: the causes ranked, each with what spoke for and against it (rule G).

Scores are log-likelihoods, shares are their softmax. Unknown is one of the
causes and starts with 0, all others below it: without evidence it leads.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.candling import TURN_WITHIN_HOURS
from sandboa.core.causes.by_box import pests, stale_air, too_dry, too_wet
from sandboa.core.causes.by_egg import infection, knocked, shell, underneath
from sandboa.core.causes.by_hatch import cord, could_not_get_out, malformed, opened_early
from sandboa.core.causes.by_heat import equipment, poisoned_air, too_cold, too_hot, unstable
from sandboa.core.causes.by_parents import dams_condition, infertile, lethal_genes
from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.findings import FindingKind
from sandboa.core.causes.grounds import CauseSign, Reasoning
from sandboa.core.causes.kinds import REMEDIES, Cause, Remedy
from sandboa.core.causes.rules import DEFAULT_RULES, TOGETHER_FROM, CauseRules
from sandboa.core.causes.scores import score_of
from sandboa.core.messages import Words

REASONINGS: Final[dict[Cause, Reasoning]] = {
    Cause.INFERTILE: infertile,
    Cause.TOO_DRY: too_dry,
    Cause.TOO_WET: too_wet,
    Cause.TOO_HOT: too_hot,
    Cause.TOO_COLD: too_cold,
    Cause.UNSTABLE: unstable,
    Cause.UNDERNEATH: underneath,
    Cause.KNOCKED: knocked,
    Cause.INFECTION: infection,
    Cause.STALE_AIR: stale_air,
    Cause.OPENED_EARLY: opened_early,
    Cause.COULD_NOT_GET_OUT: could_not_get_out,
    Cause.CORD: cord,
    Cause.MALFORMED: malformed,
    Cause.LETHAL_GENES: lethal_genes,
    Cause.SHELL: shell,
    Cause.DAM: dams_condition,
    Cause.POISONED_AIR: poisoned_air,
    Cause.PESTS: pests,
    Cause.EQUIPMENT: equipment,
}


@dataclass(frozen=True, slots=True)
class Ground:
    """One thing that spoke for (score > 0) or against a cause; `name` is its setting."""

    name: str
    words: Words
    score: float


@dataclass(frozen=True, slots=True)
class RankedCause:
    """A cause with its share 0-1, its grounds (strongest first), what would settle it, what to
    change. `settle_by` is None once that was looked at: what it told is among the grounds."""

    cause: Cause
    share: float
    score: float
    grounds: tuple[Ground, ...]
    settle_by: str | None
    change: str


def rank_causes(egg: LossEvidence, rules: CauseRules = DEFAULT_RULES) -> tuple[RankedCause, ...]:
    """All causes, likeliest first; shares sum to 1."""
    grounds = {
        cause: tuple(sorted(_grounds(reasoning(egg, rules), rules), key=lambda g: -abs(g.score)))
        for cause, reasoning in REASONINGS.items()
    }
    grounds[Cause.UNKNOWN] = ()
    sums = {
        cause: rules.starts[cause] + math.fsum(g.score for g in found)
        for cause, found in grounds.items()
    }
    most = max(sums.values())
    whole = math.fsum(math.exp(score - most) for score in sums.values())
    ranked = [
        RankedCause(
            cause,
            math.exp(sums[cause] - most) / whole,
            sums[cause],
            grounds[cause],
            _still_to_settle(egg, REMEDIES[cause]),
            REMEDIES[cause].change,
        )
        for cause in Cause
    ]
    return tuple(sorted(ranked, key=lambda r: -r.share))


def together(
    ranked: Sequence[RankedCause], together_from: float = TOGETHER_FROM
) -> tuple[Cause, ...]:
    """The causes that speak at once, likeliest first; () where fewer than two do.

    Each is by itself likelier than unknown, and has a share of `together_from` or
    more: either may have done it, or both.
    """
    speak = [
        r.cause
        for r in ranked
        if r.cause is not Cause.UNKNOWN and r.score > 0.0 and r.share >= together_from
    ]
    return tuple(speak) if len(speak) > 1 else ()


def _still_to_settle(egg: LossEvidence, remedy: Remedy) -> str | None:
    looked = remedy.looked_at and all(egg.known(kind) for kind in remedy.looked_at)
    return None if looked else remedy.settle_by


def _grounds(said: Iterable[CauseSign], rules: CauseRules) -> list[Ground]:
    found = []
    for sign in said:
        line = score_of(sign.cause, sign.key)
        score = _as_far_as_it_holds(rules.scores[line.name], sign.holds)
        if sign.found:
            score = _as_noted(score, rules.limits.wrong_notes)
        if abs(score) >= 0.05:
            found.append(Ground(line.name, sign.words or line.words, score))
    return found


def _as_far_as_it_holds(score: float, holds: float) -> float:
    """A log score that counts with chance `holds` (0-1) and says nothing otherwise."""
    return math.log1p(holds * math.expm1(score))


def _as_noted(score: float, wrong: float) -> float:
    """A log score of something noted once on opening, where a share (0-1) of what is noted is
    `wrong`.

    What was noted is then likely with the cause by (1 - e)·r + e, without it by (1 - e) + e·r, r
    being the ratio the score stands for: never beyond (1 - e)/e either way.
    """
    ratio = math.exp(score)
    return math.log(((1.0 - wrong) * ratio + wrong) / ((1.0 - wrong) + wrong * ratio))


def missing(egg: LossEvidence) -> tuple[str, ...]:
    """What nobody knows of the egg and would help: a sentence each, most telling first."""
    gaps = []
    if egg.opened is None:
        gaps.append("It was not opened: look inside, or say that you will not.")
    elif egg.opened and FindingKind.STAGE not in egg.findings:
        gaps.append("How far it was grown was not said.")
    if not any(s.kind == "vessels" for s in egg.seen):
        gaps.append("It was never candled.")
    if egg.heat is None or egg.heat.measured < 0.5:
        gaps.append("No probe measured at its box.")
    if egg.water is not None and not egg.water.weighed:
        gaps.append("Its box was not weighed.")
    if egg.disc_at_lay is None and not egg.slug_at_lay:
        looked = any(s.kind == "vessels" and s.day * 24.0 <= TURN_WITHIN_HOURS for s in egg.seen)
        gaps.append(
            "Its disc was not made out on lay day."
            if looked
            else "Nobody looked where its disc lay."
        )
    if egg.parents.can_double is None:
        gaps.append("The parents' traits are not all on your list.")
    return tuple(gaps)
