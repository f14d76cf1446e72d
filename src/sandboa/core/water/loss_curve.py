"""What a box would have lost by physics alone, added up over its days (rule D3)."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from sandboa.core.box import Closing
from sandboa.core.development.clock import FloatArray
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.drying import DEFAULT_EXCHANGE, ExchangeRules, loss_g_day


@dataclass(frozen=True, slots=True)
class AirOfDay:
    """A stretch (s) of the box's and the cabinet's air: °C at the box, relative humidity 0-1."""

    from_s: float
    until_s: float
    box_c: float
    cabinet_humidity: float


@dataclass(frozen=True)
class LossCurve:
    """Water lost since `edges_s[0]` (g) at each of `edges_s` (s), both of shape (n + 1,).

    Beyond the last edge it goes on at `future_g_day`.
    """

    edges_s: FloatArray
    lost_g: FloatArray
    future_g_day: float

    def at(self, at_s: float) -> float:
        """g lost by `at_s` by the prior; 0 before the first edge."""
        beyond = max(at_s - float(self.edges_s[-1]), 0.0) / SECONDS_PER_DAY
        return float(np.interp(at_s, self.edges_s, self.lost_g)) + beyond * self.future_g_day


def loss_curve(
    air: Sequence[AirOfDay],
    closings: Sequence[tuple[float, Closing]],
    medium: str,
    rules: ExchangeRules = DEFAULT_EXCHANGE,
) -> LossCurve:
    """Add up the losses of consecutive stretches of air.

    `air` in order of time, without gaps, at least one; `closings`: (from s,
    closing), the first at or before the first stretch. A stretch that a
    change of closing divides is split there. The future has the last
    stretch's air and the last closing.
    """
    edges, lost = [air[0].from_s], [0.0]
    changes = sorted(closings, key=lambda c: c[0])
    rate = 0.0
    for stretch in air:
        within = [s for s, _ in changes if stretch.from_s < s < stretch.until_s]
        for start_s, end_s in zip(
            (stretch.from_s, *within), (*within, stretch.until_s), strict=True
        ):
            closing = [c for s, c in changes if s <= start_s][-1]
            rate = _rate(closing, medium, stretch, rules)
            edges.append(end_s)
            lost.append(lost[-1] + rate * (end_s - start_s) / SECONDS_PER_DAY)
    future = _rate(changes[-1][1], medium, air[-1], rules)
    return LossCurve(np.asarray(edges), np.asarray(lost), future)


def _rate(closing: Closing, medium: str, air: AirOfDay, rules: ExchangeRules) -> float:
    return loss_g_day(closing, medium, air.box_c, air.box_c, air.cabinet_humidity, rules)
