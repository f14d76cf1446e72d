"""Numbers a keeper can set for the house, each with its default, range and reason."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from sandboa.core.air import FREE_AIR_L
from sandboa.core.causes.scores import SCORES
from sandboa.core.dam_care.aftercare import NOT_EATING_DAYS
from sandboa.core.dimples.cause import CAUSE_SCORES
from sandboa.core.dimples.stages import ALLOWED_FROM
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.raising import MEAL_EVERY_DAYS, MEAL_EVERY_RANGE_DAYS
from sandboa.core.lay_day import SECOND_CLUTCH_DAYS
from sandboa.core.messages import Message, Words
from sandboa.core.pairing.plan import (
    LIGHTEST_DAM_G,
    MOST_DAMS_PER_SIRE,
    VISIT_INTERVAL_DAYS,
    VISIT_INTERVAL_RANGE_DAYS,
)
from sandboa.core.rounds.due import WATCH_EVERY_DAYS
from sandboa.core.standing.death_time import DIES
from sandboa.core.standing.rules import (
    DEPENDENCE,
    PRIOR_WORDS,
    PRIORS,
    SOUND_WILL_PIP,
    STAGE_KEY,
    STANDING_FROM,
    Standing,
)
from sandboa.core.standing.settle import CANDLE_EVERY_DAYS
from sandboa.core.standing.signs import SIGNS
from sandboa.core.units import require_range
from sandboa.core.water.drying import EXCHANGE_L_DAY, MEDIUM_FACTOR, UNKNOWN_HUMIDITY


@dataclass(frozen=True, slots=True)
class Setting:
    """`default` holds until the keeper sets another value within `limits` (same `unit`)."""

    name: str
    label: Words
    unit: str
    default: float
    limits: tuple[float, float]
    reason: str
    group: str = "House"


def _dents() -> Iterator[Setting]:
    words = ("one slight dimple", "clear dents", "a creased or sunken side")
    limits = ((0.30, 0.60), (0.60, 0.80), (0.80, 1.00))
    for (start, grade), said, span in zip(ALLOWED_FROM, words, limits, strict=True):
        yield Setting(
            f"dents.{grade}", f"{said[0].upper()}{said[1:]} is normal from", "developed",
            start, span, "Share of development by heat; calendar days play no part.", "Dents",
        )  # fmt: skip


def _causes() -> Iterator[Setting]:
    for name, (score, words) in CAUSE_SCORES.items():
        yield Setting(
            f"cause.{name}", f"{words[0].upper()}{words[1:]}", "log score", score, (-8.0, 8.0),
            "Above 0 speaks for that cause of early dents, below against it.", "Causes of dents",
        )  # fmt: skip


def _losses() -> Iterator[Setting]:
    for line in SCORES.values():
        yield Setting(
            line.name, Message("{cause}: {sign}", cause=line.cause.capitalize(), sign=line.words),
            "log score",
            line.score, (-15.0, 15.0),
            "Above 0 speaks for that cause of a loss, below against it.", "Causes of loss",
        )  # fmt: skip


def _rounds() -> Iterator[Setting]:
    yield Setting(
        "watch_every_days", "Look at an egg in doubt again after", "days", WATCH_EVERY_DAYS,
        (1.0, 14.0), "Long enough that something can have changed.", "Rounds",
    )  # fmt: skip
    yield Setting(
        "candle_every_days", "Candle it again after", "days", CANDLE_EVERY_DAYS, (1.0, 21.0),
        "Before that a torch shows nothing new.", "Rounds",
    )  # fmt: skip


def _standing() -> Iterator[Setting]:
    spans = {
        Standing.SOUND: (0.70, 0.99),
        Standing.WATCH: (0.35, 0.69),
        Standing.FAILING: (0.02, 0.34),
    }
    for standing, start in STANDING_FROM.items():
        yield Setting(
            f"standing.{standing}", f"{standing.capitalize()} from", "chance of being alive",
            start, spans[standing], "Below the lowest an egg is probably lost.", "Standing",
        )  # fmt: skip
    yield Setting(
        "standing.dependence", "Factor on every sign", "times", DEPENDENCE, (0.1, 1.0),
        "Signs lean on one another: a spot often comes with a smell.", "Standing",
    )  # fmt: skip
    yield Setting(
        STAGE_KEY, "Living eggs that die before they pip", "of 1", DIES, (0.01, 0.60),
        "Early, around half and at full term more than between; your own house's share.",
        "Standing",
    )  # fmt: skip
    yield Setting(
        "standing.will_pip", "On watch all the same below", "chance of pipping", SOUND_WILL_PIP,
        (0.10, 0.95), "An egg that lives may still be likely to be lost, as with fur on it.",
        "Standing",
    )  # fmt: skip
    for key, log_odds in PRIORS.items():
        yield Setting(
            f"prior.{key}", PRIOR_WORDS[key][0].upper() + PRIOR_WORDS[key][1:], "log-odds",
            log_odds, (-6.0, 6.0), "Where an egg starts: above 0 it more likely lives.", "Standing",
        )  # fmt: skip
    for sign in SIGNS.values():
        if sign.weight:
            yield Setting(
                sign.key, sign.words[0].upper() + sign.words[1:], "log-odds", sign.weight,
                (-8.0, 8.0), "Above 0 speaks for the egg, below against it.", "Standing",
            )  # fmt: skip


def _water() -> Iterator[Setting]:
    for closing, l_day in EXCHANGE_L_DAY.items():
        yield Setting(
            f"exchange.{closing}", f"Air exchange: {closing}", "l a day", l_day, (1.0, 1000.0),
            "Before any weighing; a box's own weighings move it from there.", "Water and air",
        )  # fmt: skip
    for medium, factor in MEDIUM_FACTOR.items():
        yield Setting(
            f"medium.{medium}", f"Drying factor: {medium}", "times", factor, (0.1, 3.0),
            "How freely the medium gives its water off.", "Water and air",
        )  # fmt: skip
    yield Setting(
        "unknown_humidity", "Humidity of a cabinet nobody measures", "of 1", UNKNOWN_HUMIDITY,
        (0.05, 0.97), "Heated rooms are dry; a box in dry air loses its water fast.",
        "Water and air",
    )  # fmt: skip
    yield Setting(
        "free_air_l", "Free air in a box", "l", FREE_AIR_L, (0.2, 50.0),
        "What is left of the box beside medium and eggs; used for the oxygen estimate.",
        "Water and air",
    )  # fmt: skip


SETTINGS: Final = {
    setting.name: setting
    for setting in (
        Setting(
            "lightest_dam_g", "Lightest dam to breed", "g", LIGHTEST_DAM_G, (500.0, 5000.0),
            "Laying costs a quarter to two fifths of her weight; many keepers set 1,500 g.",
        ),
        Setting(
            "visit_interval_days", "Days between visits of a sire", "days",
            VISIT_INTERVAL_DAYS, VISIT_INTERVAL_RANGE_DAYS,
            "Locks three to four weeks apart give the fewest slugs.",
        ),
        Setting(
            "most_dams_per_sire", "Dams per sire before a warning", "dams",
            float(MOST_DAMS_PER_SIRE), (1.0, 20.0),
            "A sire shared among more dams locks less often with each.",
        ),
        Setting(
            "not_eating_days", "Days without a meal after laying before a flag", "days",
            NOT_EATING_DAYS, (5.0, 120.0),
            "Most dams eat within three weeks of losing their eggs.",
        ),
        Setting(
            "second_clutch_days", "Days between two clutches within which to ask", "days",
            SECOND_CLUTCH_DAYS, (1.0, 365.0),
            "A second clutch so soon is rare; a dam chosen by mistake is not.",
        ),
        Setting(
            "meal_every_days", "Days from one meal of a hatchling to the next", "days",
            MEAL_EVERY_DAYS, MEAL_EVERY_RANGE_DAYS,
            "Five to ten days are common; Today reminds of the next one.",
        ),
        *_rounds(),
        *_dents(),
        *_causes(),
        *_losses(),
        *_standing(),
        *_water(),
    )
}  # fmt: skip


def checked_setting(name: str, value: float) -> float:
    """A value the setting can have; NotPlausible for an unknown name or outside its limits."""
    setting = require_setting(name)
    return require_range("value", value, setting.limits, setting.unit)


def require_setting(name: str) -> Setting:
    """The setting of that name; NotPlausible for an unknown one."""
    setting = SETTINGS.get(name)
    if setting is None:
        raise NotPlausible("name", f'there is no setting "{name[:40]}"')
    return setting
