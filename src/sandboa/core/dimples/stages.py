"""Which dents are normal at which stage; the stages themselves are in rules.py."""

from typing import Final

from sandboa.core.dimples.rules import DEFAULT_DENTS, DentRules
from sandboa.core.errors import NotPlausible

#: Turgor grades: 0 firm; 1 one slight dimple; 2 clear dents; 3 creased or sunken; 4 collapsed.
GRADES: Final = (0, 1, 2, 3, 4)
#: Highest grade that is ever normal before pip (rule B).
HIGHEST_ALLOWED: Final = 3


def allowed_grade(
    development: float, *, loses_water_fast: bool = False, rules: DentRules = DEFAULT_DENTS
) -> int:
    """Highest turgor grade that is normal at share `development` (0 to about 1.2).

    `loses_water_fast`: the shell is rough or has windows; it is allowed one
    grade more. Grade 4 is never normal before pip. Calendar days play no part.
    Raises NotPlausible for a share below 0, above 2 or not finite.
    """
    if not 0.0 <= development <= 2.0:
        raise NotPlausible(
            "development", f"share developed {development:g} is outside 0 to 2 (0.45 means 45 %)"
        )
    grade = max((g for start, g in rules.stages if development >= start), default=0)
    ahead = round(rules.thin_shell_allowance)
    return min(grade + ahead, HIGHEST_ALLOWED) if loses_water_fast else grade


def excess_grade(
    development: float,
    grade: int,
    *,
    loses_water_fast: bool = False,
    rules: DentRules = DEFAULT_DENTS,
) -> int:
    """By how many grades an egg is ahead of its stage: 0 when it is normal, else 1-4.

    Raises NotPlausible for a grade that is not 0-4.
    """
    if grade not in GRADES:
        raise NotPlausible("grade", f"turgor grade {grade} is not one of 0, 1, 2, 3, 4")
    allowed = allowed_grade(development, loses_water_fast=loses_water_fast, rules=rules)
    return max(0, grade - allowed)
