"""From where on something counts as a sign of a cause, and what each sign is worth (rule G)."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.air import AIR_BELOW
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.scores import DEFAULT_SCORES, STARTS
from sandboa.core.climate.rules import DEFAULT_CLIMATE, SWING_C, ClimateRules
from sandboa.core.hatching.advice import FULL_TERM
from sandboa.core.water.rules import WaterRules

#: Share developed before which the air of a box cannot be short: G's "crack from p = 0.7".
AIR_FROM: Final = 0.7
#: Days unopened that count as rarely opened (assumption: the rhythm of two weeks).
RARELY_DAYS: Final = 10.0
#: Share developed after a knock in which a loss is "soon after" (assumption: some two weeks).
SOON_AFTER: Final = 0.25
#: Share of a term by which eggs that touch are lost in sequence (assumption).
IN_SEQUENCE: Final = 0.25
#: h pipped that are long (rule P8: most are out within 24-48 h).
LONG_PIPPED_HOURS: Final = 48.0
#: Days by which pips come before, or after, what the set point gives to speak of heat, or of cold
#: (assumption: beyond what clutches of one house differ by).
EARLY_DAYS: Final = 5.0
LATE_DAYS: Final = 6.0
#: °C up to which it was never hot (rule G: "never above 33").
NEVER_HOT_C: Final = 33.0
#: °C·h above 33.5 from which it counts, and counts as much (assumption).
HOT_DEGREE_HOURS: Final = (3.0, 20.0)
#: h below 27 °C that are a long stretch, and a very long one (assumption).
COLD_HOURS: Final = (24.0, 72.0)
#: °C below which a cold is deep whatever its length (rule E: 20 for 24 h; assumption).
DEEP_COLD_C: Final = 21.0
#: Days with swings over 2 °C that are several, and many (rule G "several days"; assumption).
SWING_DAYS: Final = (3, 8)
#: °C up to which a day's swing is calm (rule E).
CALM_SWING_C: Final = SWING_C[0]
#: Share of the time that must be measured for "never" to be said (assumption).
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
#: Days for which a cabinet counts as new, and an alteration as recent (assumption).
NEW_DAYS: Final = 150.0
#: Days after lay in which vapours kill a batch (rule G: "around weeks 4-6").
BATCH_DAYS: Final = (21.0, 49.0)
#: Share of the eggs of an age in a cabinet that are lost together from which it is a batch
#: (assumption).
BATCH_SHARE: Final = 0.6
#: Slug share that is high, and eggs from which it is believed (assumption).
HIGH_SLUG_SHARE: Final = 0.25
ENOUGH_EGGS: Final = 8
#: Share of her eggs that hatched from which a dam's record is strong (assumption).
STRONG_RECORD: Final = 0.8
#: Share developed by which two deaths are of the same stage (assumption).
SAME_STAGE: Final = 0.15
#: Share of a clutch lost from which it is a whole poor clutch (assumption).
WHOLE_CLUTCH: Final = 0.6
#: Share of what is noted on opening that is wrong (assumption).
WRONG_NOTES: Final = 0.07
#: Share from which a cause is told as one of two at once (assumption).
TOGETHER_FROM: Final = 0.20


@dataclass(frozen=True, slots=True)
class CauseLimits:
    """From where on each thing counts, as the house has it: °C, h, days, shares 0-1.

    Each is named as its default is; where a default has two, the second is `very_` or `many_`.
    """

    air_from: float = AIR_FROM
    rarely_days: float = RARELY_DAYS
    soon_after: float = SOON_AFTER
    in_sequence: float = IN_SEQUENCE
    long_pipped_hours: float = LONG_PIPPED_HOURS
    early_days: float = EARLY_DAYS
    late_days: float = LATE_DAYS
    never_hot_c: float = NEVER_HOT_C
    hot_degree_hours: float = HOT_DEGREE_HOURS[0]
    very_hot_degree_hours: float = HOT_DEGREE_HOURS[1]
    cold_hours: float = COLD_HOURS[0]
    very_cold_hours: float = COLD_HOURS[1]
    deep_cold_c: float = DEEP_COLD_C
    swing_days: float = float(SWING_DAYS[0])
    many_swing_days: float = float(SWING_DAYS[1])
    calm_swing_c: float = CALM_SWING_C
    measured_enough: float = MEASURED_ENOUGH
    fault_reach: float = FAULT_REACH
    longest_outage_hours: float = LONGEST_OUTAGE_HOURS
    harmless_c: float = HARMLESS_C
    severe_c: float = SEVERE_C
    severe_hours: float = SEVERE_HOURS
    new_days: float = NEW_DAYS
    batch_from_days: float = BATCH_DAYS[0]
    batch_to_days: float = BATCH_DAYS[1]
    batch_share: float = BATCH_SHARE
    high_slug_share: float = HIGH_SLUG_SHARE
    enough_eggs: float = float(ENOUGH_EGGS)
    strong_record: float = STRONG_RECORD
    same_stage: float = SAME_STAGE
    whole_clutch: float = WHOLE_CLUTCH
    full_term: float = FULL_TERM
    wrong_notes: float = WRONG_NOTES
    together_from: float = TOGETHER_FROM


@dataclass(frozen=True, slots=True)
class CauseRules:
    """All that ranks causes: limits, what a sign is worth by name, what each cause starts with.

    `water`, `air_below` (oxygen, 0-1) and `climate` are those by which the house is told of a dry
    box, of stale air and of heat while there is time.
    """

    limits: CauseLimits = field(default_factory=CauseLimits)
    scores: Mapping[str, float] = field(default_factory=lambda: DEFAULT_SCORES)
    starts: Mapping[Cause, float] = field(default_factory=lambda: STARTS)
    water: WaterRules = field(default_factory=WaterRules)
    air_below: float = AIR_BELOW
    climate: ClimateRules = DEFAULT_CLIMATE


DEFAULT_RULES: Final = CauseRules()
