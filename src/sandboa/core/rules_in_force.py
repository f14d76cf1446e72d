"""The core's rules with the keeper's own numbers in place of the defaults."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from sandboa.core.air import USE_ML_HOUR, AirRules
from sandboa.core.box import Closing
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseLimits, CauseRules
from sandboa.core.causes.scores import SCORES, STARTS
from sandboa.core.climate.faults.rules import FaultRules
from sandboa.core.climate.rules import ClimateRules
from sandboa.core.development.clock import DevelopmentClock
from sandboa.core.development.delays import Delay
from sandboa.core.development.rules import ForecastRules
from sandboa.core.development.sources import RecordRules
from sandboa.core.dimples.rules import ALLOWED_FROM, DentRules
from sandboa.core.dimples.scores import CAUSE_SCORES
from sandboa.core.rates.rules import RateRules
from sandboa.core.settings import SETTINGS
from sandboa.core.standing.rules import PRIORS, RISKS, STAGE_KEY, STANDING_FROM, StandingRules
from sandboa.core.standing.signs import SIGNS, STAGE_LIMITS
from sandboa.core.units import SECONDS_PER_HOUR, SECONDS_PER_MINUTE
from sandboa.core.water.drying import EXCHANGE_L_DAY, MEDIUM_FACTOR, ExchangeRules
from sandboa.core.water.mixing import MEDIA, Medium
from sandboa.core.water.rules import WATER_SIGNS, WaterRules


@dataclass(frozen=True)
class RulesInForce:
    """What judges eggs, boxes and cabinets; days are days.

    `probe_sd_c` are the errors (1 sd, °C) of a probe nobody checked, and of a checked one.
    `media` have the house's own ratios and densities.
    """

    dents: DentRules
    standing: StandingRules
    exchange: ExchangeRules
    water: WaterRules
    media: tuple[Medium, ...]
    rates: RateRules
    air: AirRules
    climate: ClimateRules
    faults: FaultRules
    clock: DevelopmentClock
    forecast: ForecastRules
    record: RecordRules
    probe_sd_c: tuple[float, float]
    losses: CauseRules
    watch_every_days: float


def rules_in_force(values: Mapping[str, float]) -> RulesInForce:
    """Rules from setting values by name (units: core.settings); every name must be there."""
    return RulesInForce(
        dents=_dents(values),
        standing=StandingRules(
            weights={s.key: values[s.key] for s in SIGNS.values() if s.key in SETTINGS},
            priors={key: values[f"prior.{key}"] for key in PRIORS},
            dependence=values["standing.dependence"],
            standing_from={s: values[f"standing.{s}"] for s in STANDING_FROM},
            dies=values[STAGE_KEY],
            sound_will_pip=values["standing.will_pip"],
            none_alive=values["forecast.none_alive"],
            late_after_hours=values["standing.late_after_hours"],
            late_per_hours=values["standing.late_per_hours"],
            risk_days=values["standing.risk_days"],
            stage_limits={limit.name: values[limit.name] for limit in STAGE_LIMITS},
            candle_every_days=values["candle_every_days"],
            risks={(kind, value): values[f"risk.{kind}.{value}"] for kind, value in RISKS},
        ),
        exchange=ExchangeRules(
            exchange_l_day={Closing(c): values[f"exchange.{c}"] for c in EXCHANGE_L_DAY},
            medium_factor={m: values[f"medium.{m}"] for m in MEDIUM_FACTOR},
            sd_factor=values["exchange_sd_factor"],
            box_humidity=values["box_humidity"],
            saturated_humidity=values["climate.saturated_humidity"],
        ),
        water=_water(values),
        media=tuple(_medium(values, medium) for medium in MEDIA),
        rates=RateRules(**_of(values, "rates.")),
        air=AirRules(
            tuple((at, values[f"oxygen.{round(100 * at)}"]) for at, _ in USE_ML_HOUR),
            values["oxygen.factor"],
            values["air_below"],
            values["free_air_l"],
        ),
        climate=_climate(values),
        faults=_faults(values),
        clock=DevelopmentClock(
            values["clock.zero_c"], values["clock.sum_c_days"], values["clock.cap_c"]
        ),
        forecast=_forecast(values),
        record=RecordRules(
            values["record.estimated_sd_c"],
            values["record.ahead_sd_c"],
            values["record.recent_days"],
            values["record.longest_gap_hours"] * SECONDS_PER_HOUR,
            values["record.offset_days"],
        ),
        probe_sd_c=(values["probe.unchecked_sd_c"], values["probe.checked_sd_c"]),
        losses=_losses(values),
        watch_every_days=values["watch_every_days"],
    )


def _of(values: Mapping[str, float], prefix: str) -> dict[str, float]:
    """The values under a prefix, by what stands after it."""
    return {name.removeprefix(prefix): v for name, v in values.items() if name.startswith(prefix)}


def _water(values: Mapping[str, float]) -> WaterRules:
    return WaterRules(
        values["top_up_share"],
        values["dry_share"],
        unknown_humidity=values["unknown_humidity"],
        signs={
            (kind, value): (values[f"water sign.{kind}.{value}"], sd)
            for (kind, value), (_, sd) in WATER_SIGNS.items()
        },
        **_of(values, "water."),
    )


def _medium(values: Mapping[str, float], medium: Medium) -> Medium:
    """A medium with what the house sets of it."""
    if medium.ratio is not None:
        medium = replace(medium, ratio=values[f"ratio.{medium.name}"])
    if medium.density_g_l is not None:
        usual = medium.density_g_l[0]
        by = values[f"density.{medium.name}"] / usual
        typical, low, high = (by * g_l for g_l in medium.density_g_l)
        medium = replace(medium, density_g_l=(typical, low, high))
    return medium


def _forecast(values: Mapping[str, float]) -> ForecastRules:
    own = _of(values, "forecast.")
    del own["none_alive"]
    return ForecastRules(
        emergence=Delay(own.pop("emergence_days"), own.pop("emergence_sigma")),
        first_shed=Delay.within(own.pop("shed_from_days"), own.pop("shed_to_days")),
        first_meal=Delay(own.pop("meal_days"), own.pop("meal_sigma")),
        **own,
    )


def _dents(values: Mapping[str, float]) -> DentRules:
    own = _of(values, "dents.")
    return DentRules(
        stages=tuple((own.pop(str(grade)), grade) for _, grade in ALLOWED_FROM),
        water=_water(values),
        scores={name: values[f"cause.{name}"] for name in CAUSE_SCORES},
        **own,
    )


def _faults(values: Mapping[str, float]) -> FaultRules:
    own = _of(values, "fault.")
    return FaultRules(
        power_s=own.pop("power_minutes") * SECONDS_PER_MINUTE,
        door_s=own.pop("door_minutes") * SECONDS_PER_MINUTE,
        **own,
    )


def _losses(values: Mapping[str, float]) -> CauseRules:
    return CauseRules(
        limits=CauseLimits(**_of(values, "losses.")),
        scores={name: values[name] for name in SCORES},
        starts={
            cause: start if cause is Cause.UNKNOWN else values[f"start.{cause}"]
            for cause, start in STARTS.items()
        },
        water=_water(values),
        air_below=values["air_below"],
        climate=_climate(values),
    )


def _climate(values: Mapping[str, float]) -> ClimateRules:
    own = _of(values, "climate.")
    return ClimateRules(
        hot_emergencies=(
            (own.pop("hot_c"), own.pop("hot_hours") * SECONDS_PER_HOUR),
            (own.pop("hotter_c"), own.pop("hotter_hours") * SECONDS_PER_HOUR),
        ),
        cold_emergency=(own.pop("cold_c"), own.pop("cold_hours") * SECONDS_PER_HOUR),
        **own,
    )
