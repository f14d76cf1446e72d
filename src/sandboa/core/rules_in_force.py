"""The core's rules with the keeper's own numbers in place of the defaults."""

from collections.abc import Mapping
from dataclasses import dataclass, fields

from sandboa.core.air import USE_ML_HOUR, AirRules
from sandboa.core.box import Closing
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.scores import SCORES, STARTS
from sandboa.core.climate.rules import ClimateRules
from sandboa.core.development.clock import DevelopmentClock
from sandboa.core.development.rules import ForecastRules
from sandboa.core.dimples.cause import CAUSE_SCORES
from sandboa.core.dimples.stages import ALLOWED_FROM
from sandboa.core.settings import SETTINGS
from sandboa.core.standing.rules import PRIORS, STAGE_KEY, STANDING_FROM, StandingRules
from sandboa.core.standing.signs import SIGNS
from sandboa.core.units import SECONDS_PER_HOUR
from sandboa.core.water.drying import EXCHANGE_L_DAY, MEDIUM_FACTOR, ExchangeRules
from sandboa.core.water.shares import WaterShares


@dataclass(frozen=True)
class RulesInForce:
    """What judges eggs, boxes and cabinets; days are days.

    `probe_sd_c` are the errors (1 sd, °C) of a probe nobody checked, and of a checked one.
    `unknown_humidity` (0-1) is that of a cabinet nobody measures.
    """

    dimple_stages: tuple[tuple[float, int], ...]
    standing: StandingRules
    exchange: ExchangeRules
    water_shares: WaterShares
    air: AirRules
    climate: ClimateRules
    clock: DevelopmentClock
    forecast: ForecastRules
    probe_sd_c: tuple[float, float]
    unknown_humidity: float
    cause_scores: Mapping[str, float]
    loss_scores: Mapping[str, float]
    loss_starts: Mapping[Cause, float]
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
            none_alive=values["forecast.none_alive"],
        ),
        exchange=ExchangeRules(
            exchange_l_day={Closing(c): values[f"exchange.{c}"] for c in EXCHANGE_L_DAY},
            medium_factor={m: values[f"medium.{m}"] for m in MEDIUM_FACTOR},
            sd_factor=values["exchange_sd_factor"],
        ),
        water_shares=WaterShares(values["top_up_share"], values["dry_share"]),
        air=AirRules(
            tuple((at, values[f"oxygen.{round(100 * at)}"]) for at, _ in USE_ML_HOUR),
            values["oxygen.factor"],
            values["air_below"],
            values["free_air_l"],
        ),
        climate=_climate(values),
        clock=DevelopmentClock(
            values["clock.zero_c"], values["clock.sum_c_days"], values["clock.cap_c"]
        ),
        forecast=ForecastRules(
            **{f.name: values[f"forecast.{f.name}"] for f in fields(ForecastRules)}
        ),
        probe_sd_c=(values["probe.unchecked_sd_c"], values["probe.checked_sd_c"]),
        unknown_humidity=values["unknown_humidity"],
        loss_scores={name: values[name] for name in SCORES},
        loss_starts={
            cause: start if cause is Cause.UNKNOWN else values[f"start.{cause}"]
            for cause, start in STARTS.items()
        },
        cause_scores={name: values[f"cause.{name}"] for name in CAUSE_SCORES},
        watch_every_days=values["watch_every_days"],
        candle_every_days=values["candle_every_days"],
    )


def _climate(values: Mapping[str, float]) -> ClimateRules:
    own = {
        name.removeprefix("climate."): v
        for name, v in values.items()
        if name.startswith("climate.")
    }
    return ClimateRules(
        hot_emergencies=(
            (own.pop("hot_c"), own.pop("hot_hours") * SECONDS_PER_HOUR),
            (own.pop("hotter_c"), own.pop("hotter_hours") * SECONDS_PER_HOUR),
        ),
        cold_emergency=(own.pop("cold_c"), own.pop("cold_hours") * SECONDS_PER_HOUR),
        **own,
    )
