"""When will they pip: windows for the first, the typical and the last egg, and what follows."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from sandboa.core.development.curve import DevelopmentCurve
from sandboa.core.development.events import pips_and_outs, shed_and_meal
from sandboa.core.development.none_alive import none_alive
from sandboa.core.development.pipping import EggGroup, clutch_posterior
from sandboa.core.development.record_errors import log_uncertainty
from sandboa.core.development.rules import DEFAULT_RULES, NONE_ALIVE, ForecastRules
from sandboa.core.development.windows import HatchPrior, Window
from sandboa.core.units import SECONDS_PER_DAY


@dataclass(frozen=True, slots=True)
class Forecast:
    """The forecast of one clutch as it stands at `as_of_s`.

    `day` counts from lay; `development` is D; `fraction` is p = D/exp(m), the
    share by which dimples and signs are judged; `rate_per_day` is the development
    to be expected a day from now on. The windows are None when the
    eggs never get there at the expected temperature, and when the clutch is
    `overdue`. `none_alive` is the chance that no egg of it will pip (A6).

    `first_pip` is None once `pipped` eggs have pipped, the first at `first_pipped_s`: it is known;
    `next_pip` is of the eggs still closed from then on, None when there are none. `next_out` and
    `all_out` are of the hatchlings that are not out of their eggs yet.
    """

    as_of_s: float
    day: float
    development: float
    fraction: float
    measured_share: float
    log_sd: float
    rate_per_day: float
    none_alive: float = 0.0
    first_pip: Window | None = None
    typical_pip: Window | None = None
    last_pip: Window | None = None
    next_out: Window | None = None
    all_out: Window | None = None
    first_shed: Window | None = None
    first_meal: Window | None = None
    pipped: int = 0
    first_pipped_s: float | None = None
    next_pip: Window | None = None
    rules: ForecastRules = DEFAULT_RULES

    @property
    def overdue(self) -> bool:
        """Whether so little speaks for a pip still to come that no date is told."""
        return self.none_alive >= self.rules.no_date_from


def forecast(
    curve: DevelopmentCurve,
    eggs: int,
    *,
    prior: HatchPrior | None = None,
    maternal: bool = False,
    pipped_s: Sequence[float] = (),
) -> Forecast:
    """`forecast_clutch` of eggs in one box, none of them out, of whose standing nothing is known.

    `pipped_s` is when each pipped egg was seen pipped (s), none after as-of.
    """
    group = EggGroup(curve, eggs, tuple(pipped_s), tuple(pipped_s))
    return forecast_clutch([group], prior=prior, maternal=maternal)


def forecast_clutch(
    groups: Sequence[EggGroup],
    *,
    prior: HatchPrior | None = None,
    maternal: bool = False,
    none_alive_before: float = NONE_ALIVE,
) -> Forecast:
    """Forecast a clutch whose eggs may have had different heat: in several boxes, or moved.

    Parameters
    ----------
    groups: its eggs by the heat they had, at least one. D(t) of each is along its box's record,
        and what is expected of it; where the clutch stands is told of the largest.
    prior: of the typical pip, and by how much eggs of a clutch differ.
    maternal: the dam incubates; uncertainty is multiplied (A9).
    none_alive_before: chance (0-1) that no egg will pip, before time without a pip said anything.

    Raises ValueError for no eggs, more pips than eggs, or a pip after as-of.

    Its events are those of its eggs along their own stays, sharing one e (A5). That eggs have
    pipped, and that others have not, conditions e softly (A6), so no window of a closed egg
    reaches into the past. Until an egg has pipped, `none_alive` grows with the time without one;
    from `no_date_from` on no window is told. Source: rules A4 to A6, A9.
    """
    prior = prior or HatchPrior()
    main = max(groups, key=lambda group: group.eggs, default=None)
    if main is None:
        raise ValueError("a clutch without eggs")
    # One probe often speaks for all boxes, so that errors are not averaged out (assumption).
    eggs = sum(group.eggs for group in groups)
    variance = sum(g.eggs * log_uncertainty(g.curve, prior) ** 2 for g in groups) / max(eggs, 1)
    log_sd = math.sqrt(variance) * (prior.rules.maternal_factor if maternal else 1.0)
    known = clutch_posterior(groups, prior, log_sd)
    pipped_s = [at_s for group in groups for at_s in group.pipped_s]
    rival = 0.0
    if known is not None and not pipped_s:
        rival = none_alive(min(known.likelihood, 1.0), none_alive_before)
    standing = _standing(main.curve, prior, log_sd, rival, pipped_s)
    if known is None or standing.overdue:
        return standing
    upcoming, last_pip, next_out, all_out = pips_and_outs(known, prior.rules.emergence)
    first_shed, first_meal = shed_and_meal(known, prior.rules)
    return replace(
        standing,
        first_pip=None if pipped_s else upcoming,
        next_pip=upcoming if pipped_s else None,
        typical_pip=known.typical(),
        last_pip=last_pip,
        next_out=next_out,
        all_out=all_out,
        first_shed=first_shed,
        first_meal=first_meal,
    )


def _standing(
    curve: DevelopmentCurve,
    prior: HatchPrior,
    log_sd: float,
    rival: float,
    pipped_s: Sequence[float],
) -> Forecast:
    """Where the clutch stands, without a window yet."""
    temperature = curve.temperature
    return Forecast(
        as_of_s=temperature.as_of_s,
        day=(temperature.as_of_s - temperature.start_s) / SECONDS_PER_DAY,
        development=curve.now,
        fraction=curve.now / math.exp(prior.mean),
        measured_share=temperature.measured_share,
        log_sd=log_sd,
        rate_per_day=curve.future_rate_per_day,
        none_alive=rival,
        pipped=len(pipped_s),
        first_pipped_s=min(pipped_s, default=None),
        rules=prior.rules,
    )
