"""Numbers of the development clock and of the forecast (rules A1, A3, A5 to A7)."""

from collections.abc import Iterator

from sandboa.core.development.clock import DEFAULT_CLOCK
from sandboa.core.development.rules import (
    CABINET_SD,
    CHANCE_SD,
    CURVATURE_SD,
    DAM_SD,
    EGG_SD_DAYS,
    EGG_SD_RANGE_DAYS,
    HOUSE_SD,
    NONE_ALIVE,
    SLOPE_SD,
)
from sandboa.core.development.sources import CHECKED_PROBE_SD_C, UNCHECKED_PROBE_SD_C
from sandboa.core.settings.setting import Quantity, Setting

_GROUP = "Forecast"
_LN = "of the term"


def clock() -> Iterator[Setting]:
    """How fast eggs develop."""
    yield Setting(
        "clock.zero_c", "Nothing develops below", "", DEFAULT_CLOCK.zero_c, (15.0, 23.0),
        "With the sum it was fitted to incubation times keepers tell.", _GROUP,
        Quantity.TEMPERATURE,
    )  # fmt: skip
    yield Setting(
        "clock.sum_c_days", "Heat from lay to pip", "Celsius degree-days above that",
        DEFAULT_CLOCK.sum_c_days,
        (600.0, 900.0), "Your house's own difference is learned besides.", _GROUP,
    )  # fmt: skip
    yield Setting(
        "clock.cap_c", "Warmth speeds no more above", "", DEFAULT_CLOCK.cap_c, (32.0, 35.0),
        "Above it eggs are harmed rather than hurried.", _GROUP, Quantity.TEMPERATURE,
    )  # fmt: skip


def windows() -> Iterator[Setting]:
    """What windows carry before anything is learned."""
    for name, label, sd, most, reason in (
        ("house_sd", "Houses differ by", HOUSE_SD, 0.10, "Probes, eggs and habits of a house."),
        ("cabinet_sd", "Cabinets differ by", CABINET_SD, 0.08, "Where the probe hangs in each."),
        ("dam_sd", "Dams differ by", DAM_SD, 0.08, "It shrinks where nothing speaks for it."),
        ("chance_sd", "Clutches differ by chance", CHANCE_SD, 0.10, "It is learned from yours."),
        ("slope_sd", "The norm is off by, a degree", SLOPE_SD, 0.08, "Learned over set points."),
        ("curvature_sd", "and by, a degree squared", CURVATURE_SD, 0.03, "Learned likewise."),
    ):
        yield Setting(
            f"forecast.{name}", label, _LN, sd, (0.001, most), f"One sd. {reason}", _GROUP,
            Quantity.SHARE,
        )  # fmt: skip
    yield Setting(
        "forecast.egg_sd_days", "Eggs of a clutch differ by", "days", EGG_SD_DAYS,
        EGG_SD_RANGE_DAYS, "One sd; learned from pips of your clutches.", _GROUP,
    )  # fmt: skip
    yield Setting(
        "forecast.none_alive", "No egg of a clutch will pip", "of clutches", NONE_ALIVE,
        (0.001, 0.30), "Where nothing is known of its eggs; their own standing moves it.", _GROUP,
        Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "probe.unchecked_sd_c", "A probe nobody checked is off by", "", UNCHECKED_PROBE_SD_C,
        (0.05, 1.5), "One sd. Checking it beside a reference narrows every window.", _GROUP,
        Quantity.DIFFERENCE,
    )  # fmt: skip
    yield Setting(
        "probe.checked_sd_c", "A checked probe is off by", "", CHECKED_PROBE_SD_C, (0.02, 0.5),
        "One sd, of the reference and of the reading.", _GROUP, Quantity.DIFFERENCE,
    )  # fmt: skip
