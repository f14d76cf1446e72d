"""The numbers of an egg's standing, as the house uses them (rule C)."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import Final

from sandboa.core.candling import Vessels
from sandboa.core.development.rules import NONE_ALIVE
from sandboa.core.standing.death_time import DIES
from sandboa.core.standing.signs import STAGE_LIMITS, Sign, SignKind

#: Log-odds (alive : dead) an egg starts with, by its look on lay day (rule C; "unsure",
#: between weak and not candled, is an assumption: a look that showed nothing clear says a little).
PRIORS: Final = {
    "strong": 3.5,
    "weak": 1.1,
    "not candled": 2.4,
    "unsure": 1.8,
    "none": -0.6,
}
PRIOR_WORDS: Final = {
    "strong": "strong vessels on lay day",
    "weak": "weak vessels on lay day",
    "not candled": "not candled on lay day",
    "unsure": "candled on lay day, and not sure",
    "none": "no vessels seen on lay day",
}
#: Factor on every weight, for signs lean on one another (rule C).
DEPENDENCE: Final = 0.8
#: h after the first pip among siblings from which a closed egg is late, and per how many (C).
LATE_AFTER_HOURS: Final = 36.0
LATE_PER_HOURS: Final = 24.0


#: What harms an egg that lives, by how many times it raises the losses ahead of it, and for how
#: many days after it was seen (assumption).
RISKS: Final = {
    (SignKind.MOULD, "patch"): 2.0,
    (SignKind.MOULD, "furry"): 4.0,
    (SignKind.SMELL, "off"): 2.0,
    (SignKind.SMELL, "foul"): 4.0,
    (SignKind.WET, "weeping"): 2.0,
    (SignKind.WET, "leaking"): 4.0,
    (SignKind.VESSELS, "weak"): 2.0,
    (SignKind.DENTS, "excess"): 1.5,
}
RISK_DAYS: Final = 10.0
#: Chance of pipping below which an egg that lives is on watch all the same (assumption).
SOUND_WILL_PIP: Final = 0.72
#: Under which the losses of the stage stand in the list of evidence.
STAGE_KEY: Final = "standing.stage"
#: Under which time without a pip stands there.
NONE_ALIVE_KEY: Final = "forecast.none_alive"


class Standing(StrEnum):
    """How an egg stands; values in falling order of hope. Only the keeper declares a fate."""

    SOUND = "sound"
    WATCH = "watch"
    FAILING = "failing"
    PROBABLY_LOST = "probably lost"

    @property
    def rank(self) -> int:
        """0 (sound) to 3 (probably lost)."""
        return list(Standing).index(self)


#: Chance of being alive from which an egg has that standing (rule C).
STANDING_FROM: Final = {Standing.SOUND: 0.85, Standing.WATCH: 0.50, Standing.FAILING: 0.15}


#: Days before a torch shows anything new (assumption).
CANDLE_EVERY_DAYS: Final = 4.0


@dataclass(frozen=True)
class StandingRules:
    """Numbers in force: `weights` and `priors` by key replace the defaults where they are set.

    `none_alive` is the chance that nothing of a clutch lives, before anything is known of its eggs.
    `stage_limits` by name, as in STAGE_LIMITS: when a kind of sign counts.
    `candle_every_days` is how long a torch shows nothing new.
    `risks` say by how many times a sign (kind, value) raises the losses ahead, for `risk_days`.
    """

    weights: dict[str, float] = field(default_factory=dict)
    priors: dict[str, float] = field(default_factory=dict)
    dependence: float = DEPENDENCE
    standing_from: dict[Standing, float] = field(default_factory=lambda: dict(STANDING_FROM))
    dies: float = DIES
    sound_will_pip: float = SOUND_WILL_PIP
    none_alive: float = NONE_ALIVE
    late_after_hours: float = LATE_AFTER_HOURS
    late_per_hours: float = LATE_PER_HOURS
    risk_days: float = RISK_DAYS
    risks: Mapping[tuple[SignKind, str], float] = field(default_factory=lambda: RISKS)
    stage_limits: Mapping[str, float] = field(default_factory=dict)
    candle_every_days: float = CANDLE_EVERY_DAYS

    def weight(self, sign: Sign) -> float:
        """Its log likelihood ratio before the factor for dependence."""
        return self.weights.get(sign.key, sign.weight)

    def at_stage(self, sign: Sign) -> Sign:
        """The sign with the stages at which it counts in this house."""
        own = {
            line.field: self.stage_limits[line.name]
            for line in STAGE_LIMITS
            if line.name in self.stage_limits and line.limits(sign)
        }
        if not own:
            return sign
        return replace(
            sign,
            from_share=own.get("from_share", sign.from_share),
            until_share=own.get("until_share", sign.until_share),
            from_day=own.get("from_day", sign.from_day),
        )

    def prior(self, seen: str) -> float:
        """Log-odds to start with; `seen` is a key of PRIORS."""
        return self.priors.get(seen, PRIORS[seen])

    def standing(self, alive: float, will_pip: float = 1.0) -> Standing:
        """The standing of a chance 0-1 of being alive; one that lives and may well be lost on its
        way is on watch."""
        for standing, start in self.standing_from.items():
            if alive >= start and (
                standing is not Standing.SOUND or will_pip >= self.sound_will_pip
            ):
                return standing
        return Standing.PROBABLY_LOST


DEFAULT_RULES: Final = StandingRules()


def prior_seen(vessels: Vessels | None) -> str:
    """Key of PRIORS for the look on lay day.

    Broken vessels are evidence of their own at any time: they start as not candled.
    """
    if vessels in (Vessels.STRONG, Vessels.WEAK, Vessels.NONE, Vessels.UNSURE):
        return vessels.value
    return "not candled"
