"""The core's rules with the keeper's own numbers in place of the defaults."""

from collections.abc import Mapping
from dataclasses import dataclass

from sandboa.core.box import Closing
from sandboa.core.causes.scores import SCORES
from sandboa.core.dimples.cause import CAUSE_SCORES
from sandboa.core.dimples.stages import ALLOWED_FROM
from sandboa.core.settings import SETTINGS
from sandboa.core.standing.rules import PRIORS, STAGE_KEY, STANDING_FROM, StandingRules
from sandboa.core.standing.signs import SIGNS
from sandboa.core.water.drying import EXCHANGE_L_DAY, MEDIUM_FACTOR, ExchangeRules


@dataclass(frozen=True)
class RulesInForce:
    """What judges eggs and boxes; `free_air_l` is the air in a box, l; days are days.

    `unknown_humidity` (0-1) is that of a cabinet nobody measures.
    """

    dimple_stages: tuple[tuple[float, int], ...]
    standing: StandingRules
    exchange: ExchangeRules
    free_air_l: float
    unknown_humidity: float
    cause_scores: Mapping[str, float]
    loss_scores: Mapping[str, float]
    watch_every_days: float
    candle_every_days: float


def rules_in_force(values: Mapping[str, float]) -> RulesInForce:
    """Rules from setting values by name (units: core.settings); every name must be there."""
    return RulesInForce(
        dimple_stages=tuple((values[f"dents.{grade}"], grade) for _, grade in ALLOWED_FROM),
        standing=StandingRules(
            weights={s.key: values[s.key] for s in SIGNS.values() if s.key in SETTINGS},
            priors={key: values[f"prior.{key}"] for key in PRIORS},
            dependence=values["standing.dependence"],
            standing_from={s: values[f"standing.{s}"] for s in STANDING_FROM},
            dies=values[STAGE_KEY],
            sound_will_pip=values["standing.will_pip"],
        ),
        exchange=ExchangeRules(
            exchange_l_day={Closing(c): values[f"exchange.{c}"] for c in EXCHANGE_L_DAY},
            medium_factor={m: values[f"medium.{m}"] for m in MEDIUM_FACTOR},
        ),
        free_air_l=values["free_air_l"],
        unknown_humidity=values["unknown_humidity"],
        loss_scores={name: values[name] for name in SCORES},
        cause_scores={name: values[f"cause.{name}"] for name in CAUSE_SCORES},
        watch_every_days=values["watch_every_days"],
        candle_every_days=values["candle_every_days"],
    )
