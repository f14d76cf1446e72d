"""What would settle an egg's standing, and when (rule C; rule P3)."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

from sandboa.core.standing.judgement import EggStanding, Observation, Situation
from sandboa.core.standing.rules import DEFAULT_RULES, STAGE_KEY, Standing, StandingRules
from sandboa.core.standing.signs import SIGNS, SignKind
from sandboa.core.units import SECONDS_PER_DAY

#: Days after which a closed, doubtful egg late in term is looked at again (assumption).
LOOK_EVERY_DAYS: Final = 2.0


#: Sum of pushes (log-odds) of an egg's signs from which a sound egg too is worth another look:
#: one grade of early dents of its own, or a smell, or a patch of mould (assumption).
WORTH_A_LOOK: Final = -0.4


_TORCH: Final = frozenset((SignKind.VESSELS, SignKind.MOVEMENT, SignKind.BODY))


@dataclass(frozen=True, slots=True)
class Settles:
    """What to do and from when (s)."""

    text: str
    from_s: float


def what_settles(
    judged: EggStanding,
    observations: Iterable[Observation],
    situation: Situation,
    development: float,
    *,
    sinking: bool = False,
    rules: StandingRules = DEFAULT_RULES,
) -> Settles | None:
    """What to look for next at an egg in doubt; None for one that is sound and unmarked.

    A strong look with the torch weeks ago keeps an egg sound while it fails:
    so signs against it ask for the torch before they have outweighed it.
    `development` is the share developed now; `sinking`: its dents deepened by
    two grades within a week, which asks for the torch at once. `rules` say how
    long a torch shows nothing new and when each sign counts, as the house has it.

    Before 80 % the torch settles it: never before day 7, and not sooner than
    4 days after the last look with it. After that vessels are hidden: a dark
    body with vessels on top or movement speaks for it, and from 90 % how it
    feels (all by default).
    """
    if judged.standing is Standing.SOUND and not sinking and not worth_a_look(judged):
        return None
    laid_s, now_s = situation.laid_s, situation.now_s
    no_vessels = rules.at_stage(SIGNS[SignKind.VESSELS, "none"])
    torch = [o.at_s for o in observations if o.kind in _TORCH and o.at_s <= now_s]
    if development < no_vessels.until_share:
        start_s = laid_s + no_vessels.from_day * SECONDS_PER_DAY
        if torch and not sinking:
            start_s = max(start_s, max(torch) + rules.candle_every_days * SECONDS_PER_DAY)
        return Settles(
            "Candle it: strong vessels or movement say it lives, "
            "no vessels or a blood ring that it does not.",
            max(start_s, now_s),
        )
    start_s = max(torch) + LOOK_EVERY_DAYS * SECONDS_PER_DAY if torch else now_s
    feel = rules.at_stage(SIGNS[SignKind.FEEL, "firm"]).from_share
    feels = " Feel it: firm or full is good, mushy is not." if development >= feel else ""
    return Settles(
        "Candle it for movement, or a dark body below with vessels on top; "
        f"vessels alone are hidden by now.{feels}",
        max(start_s, now_s),
    )


def asks_for_torch(kind: SignKind, value: str, rules: StandingRules = DEFAULT_RULES) -> bool:
    """Whether a sign alone, just seen, is reason enough to candle the egg at the same visit."""
    sign = SIGNS.get((kind, value))
    if sign is None or kind in _TORCH:
        return False
    return rules.weight(sign) * rules.dependence <= WORTH_A_LOOK + 1e-9


def worth_a_look(judged: EggStanding) -> bool:
    """Whether what is seen of the shell, smelled and felt speaks against the egg."""
    torch = {f"sign.{kind}" for kind in _TORCH}
    signs = [
        e.push
        for e in judged.evidence
        if e.key != STAGE_KEY and e.key.rpartition(".")[0] not in torch
    ]
    return math.fsum(min(push, 0.0) for push in signs) <= WORTH_A_LOOK + 1e-9
