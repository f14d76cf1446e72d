"""A judgement of dents in the keeper's words: what it means and what to do."""

from typing import Final

from sandboa.core.dimples.judgement import DimpleJudgement, Scope
from sandboa.core.dimples.rules import DEFAULT_DENTS, DentRules

GRADE_WORDS: Final = (
    "firm and round",
    "one slight dimple",
    "clear dents",
    "a creased or sunken side",
    "collapsed",
)

_BOX: Final = (
    "So many eggs are dented early that the box is dry. "
    "Weigh it or feel the medium, add water at the box's temperature along the side, "
    "and look again within days."
)
_EGG: Final = (
    "Only this egg is early: look for a rough or windowed shell or a missing support, "
    "candle it, and look again in 3 days. It stays in."
)
_FEW_EGGS: Final = (
    "Too few eggs lie here to say whether it is the box: weigh it or feel the medium, "
    "which settles it. Then candle the egg. It stays in."
)
_SUPPORTED: Final = (
    "Only this egg is early, and it has its support: look at its shell, "
    "candle it, and look again in 3 days. It stays in."
)
_SOME: Final = (
    "Some eggs are early, too few to blame the box: feel the medium as well as the shells, "
    "candle the dented ones, and look again in 3 days. They stay in."
)
_COLLAPSED: Final = (
    "This egg has collapsed before its time. Candle it today and check the water first; "
    "it stays in until you are certain."
)
_FULL_TERM: Final = (
    "Collapsed at full term: look today. It may be about to pip; a dry box is still possible."
)
_ROSE: Final = "The dents deepened fast: check water and lid now, then candle."
_NORMAL: Final = "Normal for its stage."
_SHELL: Final = "Normal for a rough or windowed shell at this stage; look again next visit."
_PLUMP: Final = "Firm. Some eggs stay plump to the end: nothing to do."


def advice(
    judgement: DimpleJudgement,
    grade: int,
    *,
    early_eggs: int = 1,
    live_eggs: int | None = None,
    supported: bool = False,
    rules: DentRules = DEFAULT_DENTS,
) -> str:
    """One or two sentences: what the grade means here and what to do.

    Never orders an egg thrown away. `early_eggs` is how many eggs of the box
    are early, this one included, `live_eggs` how many lie in it (None: unknown);
    `supported`: this one was given a support.
    """
    if judgement.excess >= 1 and grade == 4 and judgement.full_term:
        return _FULL_TERM
    parts = [_ROSE] if judgement.rose_fast else []
    if judgement.scope is Scope.BOX:
        parts.append(_BOX)
    elif judgement.excess >= 1:
        parts.append(_of_egg(grade, early_eggs, live_eggs, supported, rules))
    elif not parts:
        parts.append(
            _SHELL if judgement.shell_allowance_used else _PLUMP if grade == 0 else _NORMAL
        )
    return " ".join(parts)


def _of_egg(
    grade: int, early_eggs: int, live_eggs: int | None, supported: bool, rules: DentRules
) -> str:
    if live_eggs is not None and live_eggs < rules.fewest_to_vote:
        return _FEW_EGGS
    if grade == 4:
        return _COLLAPSED
    if early_eggs > 1:
        return _SOME
    return _SUPPORTED if supported else _EGG
