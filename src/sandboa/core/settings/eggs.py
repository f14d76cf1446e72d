"""Numbers of dents, rounds, and of how an egg stands (rules B, C)."""

from collections.abc import Iterator

from sandboa.core.dimples.rules import ALLOWED_FROM, DEFAULT_DENTS
from sandboa.core.dimples.scores import CAUSE_SCORES
from sandboa.core.rounds.due import WATCH_EVERY_DAYS
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.standing.death_time import DIES
from sandboa.core.standing.rules import (
    CANDLE_EVERY_DAYS,
    DEPENDENCE,
    LATE_AFTER_HOURS,
    LATE_PER_HOURS,
    PRIOR_WORDS,
    PRIORS,
    RISK_DAYS,
    RISKS,
    SOUND_WILL_PIP,
    STAGE_KEY,
    STANDING_FROM,
    Standing,
)
from sandboa.core.standing.signs import SIGNS, STAGE_LIMITS


def dents() -> Iterator[Setting]:
    words = ("one slight dimple", "clear dents", "a creased or sunken side")
    limits = ((0.30, 0.60), (0.60, 0.80), (0.80, 1.00))
    for (start, grade), said, span in zip(ALLOWED_FROM, words, limits, strict=True):
        yield Setting(
            f"dents.{grade}", f"{said[0].upper()}{said[1:]} is normal from", "developed",
            start, span, "Share of development by heat; calendar days play no part.", "Dents",
            Quantity.SHARE,
        )  # fmt: skip
    for name, label, unit, span, reason, quantity in (
        ("box_share", "The box is to blame from", "of its live eggs", (0.2, 1.0),
         "Early in so many, counted without any allowance for shells.", Quantity.SHARE),
        ("fewest_to_vote", "Eggs a box has to speak for itself", "eggs", (1.0, 8.0),
         "With fewer, the water has to say that it is dry.", Quantity.PLAIN),
        ("thin_shell_allowance", "A rough or windowed shell may be ahead by", "grades", (0.0, 2.0),
         "Only where the box is not to blame.", Quantity.PLAIN),
        ("full_term_from", "Collapsed is “look today” from", "developed", (0.80, 1.10),
         "It may be about to pip.", Quantity.SHARE),
        ("answer_days", "Eggs answer water within", "days", (1.0, 14.0),
         "Rounding out proves that it was thirst.", Quantity.PLAIN),
        ("fast_rise_grades", "Dents deepen fast: by", "grades", (1.0, 4.0),
         "Within a few days: look now.",
         Quantity.PLAIN),
        ("fast_rise_days", "Dents deepen fast: within", "days", (1.0, 21.0),
         "Look now, not at the next round.",
         Quantity.PLAIN),
        ("fast_rise_before", "Dents deepen fast: before", "developed", (0.5, 1.0),
         "After it eggs sink by themselves.",
         Quantity.SHARE),
        ("wet_by_scale", "Early dents, yet water enough from", "of its water", (0.4, 1.0),
         "By the scale: then candle the eggs before you pour.", Quantity.SHARE),
    ):  # fmt: skip
        yield Setting(
            f"dents.{name}", label, unit, float(getattr(DEFAULT_DENTS, name)), span, reason,
            "Dents", quantity,
        )  # fmt: skip


def dent_causes() -> Iterator[Setting]:
    for name, (score, words) in CAUSE_SCORES.items():
        yield Setting(
            f"cause.{name}", f"{words[0].upper()}{words[1:]}", "log score", score, (-8.0, 8.0),
            "Above 0 speaks for that cause of early dents, below against it.", "Causes of dents",
            deep=True,
        )  # fmt: skip


def rounds() -> Iterator[Setting]:
    yield Setting(
        "watch_every_days", "Look at an egg in doubt again after", "days", WATCH_EVERY_DAYS,
        (1.0, 14.0), "Long enough that something can have changed.", "Rounds",
    )  # fmt: skip
    yield Setting(
        "candle_every_days", "Candle it again after", "days", CANDLE_EVERY_DAYS, (1.0, 21.0),
        "Before that a torch shows nothing new.", "Rounds",
    )  # fmt: skip


def standing() -> Iterator[Setting]:
    spans = {
        Standing.SOUND: (0.70, 0.99),
        Standing.WATCH: (0.35, 0.69),
        Standing.FAILING: (0.02, 0.34),
    }
    for standing, start in STANDING_FROM.items():
        yield Setting(
            f"standing.{standing}", f"{standing.capitalize()} from", "chance of being alive",
            start, spans[standing], "Below the lowest an egg is probably lost.", "Standing",
            Quantity.SHARE,
        )  # fmt: skip
    yield Setting(
        "standing.dependence", "Factor on every sign", "times", DEPENDENCE, (0.1, 1.0),
        "Signs lean on one another: a spot often comes with a smell.", "Standing",
    )  # fmt: skip
    yield Setting(
        STAGE_KEY, "Living eggs that die before they pip", "of 1", DIES, (0.01, 0.60),
        "Early, around half and at full term more than between; your own house's share.",
        "Standing", Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "standing.will_pip", "On watch all the same below", "chance of pipping", SOUND_WILL_PIP,
        (0.10, 0.95), "An egg that lives may still be likely to be lost, as with fur on it.",
        "Standing",
    )  # fmt: skip
    for name, label, unit, default, span, reason in (
        ("late_after_hours", "A closed egg is late after", "hours", LATE_AFTER_HOURS, (12.0, 120.0),
         "After the first pip of its clutch."),
        ("late_per_hours", "A late egg counts as later every", "hours", LATE_PER_HOURS,
         (6.0, 120.0),
         "Each time it speaks against the egg."),
        ("risk_days", "What harms an egg is minded for", "days", RISK_DAYS, (1.0, 40.0),
         "After it was last seen."),
    ):  # fmt: skip
        yield Setting(f"standing.{name}", label, unit, default, span, reason, "Standing")
    for limit in STAGE_LIMITS:
        day = limit.field == "from_day"
        yield Setting(
            limit.name, limit.words, "" if day else "developed", limit.usual,
            (1.0, 30.0) if day else (0.1, 1.0), "At other stages it says nothing.", "Standing",
            Quantity.PLAIN if day else Quantity.SHARE,
        )  # fmt: skip
    for (kind, value), times in RISKS.items():
        yield Setting(
            f"risk.{kind}.{value}", f"{SIGNS[kind, value].words.capitalize()}: losses ahead",
            "times", times, (1.0, 20.0), "By how much it raises what is still to be lost.",
            "Weights of signs", deep=True,
        )  # fmt: skip
    for key, log_odds in PRIORS.items():
        yield Setting(
            f"prior.{key}", PRIOR_WORDS[key][0].upper() + PRIOR_WORDS[key][1:], "log-odds",
            log_odds, (-6.0, 6.0), "Where an egg starts: above 0 it more likely lives.",
            "Weights of signs", deep=True,
        )  # fmt: skip
    for sign in SIGNS.values():
        if sign.weight:
            yield Setting(
                sign.key, sign.words[0].upper() + sign.words[1:], "log-odds", sign.weight,
                (-8.0, 8.0), "Above 0 speaks for the egg, below against it.", "Weights of signs",
                deep=True,
            )  # fmt: skip
