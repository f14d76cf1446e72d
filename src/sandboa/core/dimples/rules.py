"""The numbers of dents, as the house uses them (rule B).

To change when a dimple counts as early, change `ALLOWED_FROM`; the test that
guards it is tests/core/test_dimples.py.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.dimples.scores import DEFAULT_SCORES
from sandboa.core.water.rules import WaterRules

#: (share developed, turgor grade normal from there on), each; rising.
Stages = Sequence[tuple[float, int]]

#: (share developed p = D/exp(m), turgor grade normal from there on), rule B (keeper practice).
ALLOWED_FROM: Final = ((0.50, 1), (0.65, 2), (0.85, 3))
#: p from which a collapsed egg is "look today" rather than alarm (rule B).
FULL_TERM_FROM: Final = 0.95
#: Grades a rough or windowed shell may be ahead (rule B).
THIN_SHELL_ALLOWANCE: Final = 1
#: Share of the live eggs that must be early before the box is to blame (rule B).
BOX_SHARE: Final = 0.5
#: Live eggs a box has at least before its eggs can say that it is dry (rule B).
FEWEST_TO_VOTE: Final = 3
#: days after watering within which a falling grade proves it was thirst (rule B).
ANSWER_DAYS: Final = 5.0
#: A rise by this many grades within this many days before this share is urgent (rule B).
FAST_RISE_GRADES: Final = 2
FAST_RISE_DAYS: Final = 7.0
FAST_RISE_BEFORE: Final = 0.8
#: Share of water by the scale from which a dry box is doubted though eggs are early (assumption).
WET_BY_SCALE: Final = 0.75


@dataclass(frozen=True, slots=True)
class DentRules:
    """Numbers in force: shares 0-1, days, turgor grades; each is named as its default is.

    `stages` are (share developed, grade normal from there on); `scores` of the causes of early
    dents by name, and the shares of water at which a box counts as short of it or dry.
    """

    stages: Stages = ALLOWED_FROM
    thin_shell_allowance: float = THIN_SHELL_ALLOWANCE
    full_term_from: float = FULL_TERM_FROM
    box_share: float = BOX_SHARE
    fewest_to_vote: float = FEWEST_TO_VOTE
    answer_days: float = ANSWER_DAYS
    fast_rise_grades: float = FAST_RISE_GRADES
    fast_rise_days: float = FAST_RISE_DAYS
    fast_rise_before: float = FAST_RISE_BEFORE
    wet_by_scale: float = WET_BY_SCALE
    water: WaterRules = field(default_factory=WaterRules)
    scores: Mapping[str, float] = field(default_factory=lambda: DEFAULT_SCORES)

    def box_wide(self, early_eggs: int, live_eggs: int) -> bool:
        """Whether so many early eggs of so many speak of their box and not of themselves."""
        return early_eggs > 0 and early_eggs >= self.box_share * live_eggs


DEFAULT_DENTS: Final = DentRules()
