"""Which dents are normal at which stage.

To change when a dimple counts as early, change `ALLOWED_FROM`; the test that
guards it is tests/core/test_dimples.py.
"""

from collections.abc import Sequence
from typing import Final

from sandboa.core.errors import NotPlausible

#: (share developed p = D/exp(m), turgor grade normal from there on), rule B (keeper practice).
ALLOWED_FROM: Final = ((0.50, 1), (0.65, 2), (0.85, 3))
#: Turgor grades: 0 firm; 1 one slight dimple; 2 clear dents; 3 creased or sunken; 4 collapsed.
GRADES: Final = (0, 1, 2, 3, 4)
#: Highest grade that is ever normal before pip (rule B).
HIGHEST_ALLOWED: Final = 3
#: p from which a collapsed egg is "look today" rather than alarm (rule B).
FULL_TERM_FROM: Final = 0.95
#: Grades a rough or windowed shell may be ahead (rule B).
THIN_SHELL_ALLOWANCE: Final = 1


#: (share developed, grade) pairs as in ALLOWED_FROM.
Stages = Sequence[tuple[float, int]]


def allowed_grade(
    development: float, *, loses_water_fast: bool = False, stages: Stages = ALLOWED_FROM
) -> int:
    """Highest turgor grade that is normal at share `development` (0 to about 1.2).

    `loses_water_fast`: the shell is rough or has windows; it is allowed one
    grade more. Grade 4 is never normal before pip. Calendar days play no part.
    `stages` are the house's own, where the keeper set them.
    Raises NotPlausible for a share below 0, above 2 or not finite.
    """
    if not 0.0 <= development <= 2.0:
        raise NotPlausible(
            "development", f"share developed {development:g} is outside 0 to 2 (0.45 means 45 %)"
        )
    grade = max((g for start, g in stages if development >= start), default=0)
    return min(grade + THIN_SHELL_ALLOWANCE, HIGHEST_ALLOWED) if loses_water_fast else grade


def excess_grade(
    development: float,
    grade: int,
    *,
    loses_water_fast: bool = False,
    stages: Stages = ALLOWED_FROM,
) -> int:
    """By how many grades an egg is ahead of its stage: 0 when it is normal, else 1-4.

    Raises NotPlausible for a grade that is not 0-4.
    """
    if grade not in GRADES:
        raise NotPlausible("grade", f"turgor grade {grade} is not one of 0, 1, 2, 3, 4")
    allowed = allowed_grade(development, loses_water_fast=loses_water_fast, stages=stages)
    return max(0, grade - allowed)
