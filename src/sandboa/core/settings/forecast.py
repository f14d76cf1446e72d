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
    FIRST_SHED_WITHIN_DAYS,
    HOUSE_SD,
    NONE_ALIVE,
    SLOPE_SD,
)
from sandboa.core.development.rules import DEFAULT_RULES as FINE
from sandboa.core.development.sources import CHECKED_PROBE_SD_C, UNCHECKED_PROBE_SD_C
from sandboa.core.development.sources import DEFAULT_RECORD as RECORD
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.units import SECONDS_PER_HOUR

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
        (
            "curvature_sd",
            "The norm is off by, a degree squared",
            CURVATURE_SD,
            0.03,
            "Learned likewise.",
        ),
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
    for name, label, unit, default, span, reason, quantity in (
        ("egg_sd_worth_clutches", "How far eggs differ is worth", "clutches",
         FINE.egg_sd_worth_clutches,
         (0.5, 30.0), "Of your own, before it is moved half way.", Quantity.PLAIN),
        ("told_from", "“None may pip” is told from", "chance", FINE.told_from, (0.05, 0.49),
         "Beside the window, with what to do.", Quantity.SHARE),
        ("no_date_from", "No date is told from", "chance", FINE.no_date_from, (0.5, 0.99),
         "Hardly anything speaks for one then.", Quantity.SHARE),
        ("asked_from_sds", "A pip is asked about beyond", "sds", FINE.asked_from_sds, (2.0, 6.0),
         "It points to the lay date or the probe.", Quantity.PLAIN),
        ("maternal_factor", "A dam's own clutch is less sure by", "times", FINE.maternal_factor,
         (1.0, 5.0), "She leaves the eggs, and warms them.", Quantity.PLAIN),
        ("emergence_days", "From pip to out", "days", FINE.emergence.median_days, (0.3, 5.0),
         "Half of them take longer.", Quantity.PLAIN),
        ("emergence_sigma", "From pip to out spreads by", "of its logarithm", FINE.emergence.sigma,
         (0.05, 1.5), "One sd.", Quantity.PLAIN),
        ("shed_from_days", "First shed from", "days after it is out", FIRST_SHED_WITHIN_DAYS[0],
         (1.0, 7.0), "Eight in ten shed between the two.", Quantity.PLAIN),
        ("shed_to_days", "First shed until", "days after it is out", FIRST_SHED_WITHIN_DAYS[1],
         (7.5, 40.0), "Eight in ten shed between the two.", Quantity.PLAIN),
        ("meal_days", "From the shed to the first meal", "days", FINE.first_meal.median_days,
         (0.5, 30.0), "Half of them take longer.", Quantity.PLAIN),
        ("meal_sigma", "From the shed to the first meal spreads by", "of its logarithm",
         FINE.first_meal.sigma, (0.05, 1.5),
         "One sd.", Quantity.PLAIN),
        ("egg_sd_low_days", "Eggs of a clutch differ at least by", "days", FINE.egg_sd_low_days,
         (0.1, 0.9), "One sd, whatever your clutches say.", Quantity.PLAIN),
        ("egg_sd_high_days", "Eggs of a clutch differ at most by", "days", FINE.egg_sd_high_days,
         (1.0, 8.0), "One sd, whatever your clutches say.", Quantity.PLAIN),
        ("effect_sd_worth", "How far cabinets, dams or norms differ is worth", "of them",
         FINE.effect_sd_worth, (0.5, 30.0), "Of your own, before it is moved half way.",
         Quantity.PLAIN),
        ("chance_low_sd", "Clutches differ by chance at least by", _LN, FINE.chance_low_sd,
         (0.005, 0.04), "One sd, whatever yours say.", Quantity.SHARE),
        ("chance_high_sd", "Clutches differ by chance at most by", _LN, FINE.chance_high_sd,
         (0.05, 0.30), "One sd, whatever yours say.", Quantity.SHARE),
        ("chance_log_sd", "How sure chance is before yours say anything", "of its logarithm",
         FINE.chance_log_sd, (0.1, 1.5), "One sd.", Quantity.PLAIN),
        ("chance_freedom", "A clutch far from all others counts less by", "degrees of freedom",
         FINE.chance_freedom, (2.0, 60.0),
         "Student's t: the fewer, the less one wrong lay date moves the house.", Quantity.PLAIN),
    ):  # fmt: skip
        yield Setting(f"forecast.{name}", label, unit, default, span, reason, _GROUP, quantity)
    for name, label, unit, default, span, reason, quantity in (
        ("estimated_sd_c", "What nobody measured is off by", "", RECORD.estimated_sd_c, (0.1, 3.0),
         "One sd, for every stretch without a reading.", Quantity.DIFFERENCE),
        ("ahead_sd_c", "The weeks to come are off by", "", RECORD.ahead_sd_c, (0.02, 2.0),
         "One sd, where a probe measured lately.", Quantity.DIFFERENCE),
        ("recent_days", "The weeks to come are as the last", "days", RECORD.recent_days,
         (1.0, 28.0), "Their mean, where a probe measured them.", Quantity.PLAIN),
        ("longest_gap_hours", "Readings are joined over", "hours",
         RECORD.longest_gap_s / SECONDS_PER_HOUR, (0.25, 12.0),
         "A longer gap goes to the next source, and is estimated.", Quantity.PLAIN),
        ("offset_days", "A shelf's difference is learned over", "days", RECORD.offset_days,
         (2.0, 60.0), "To its cabinet's probe, and to what is set.", Quantity.PLAIN),
    ):  # fmt: skip
        yield Setting(f"record.{name}", label, unit, default, span, reason, _GROUP, quantity)
    yield Setting(
        "probe.unchecked_sd_c", "A probe nobody checked is off by", "", UNCHECKED_PROBE_SD_C,
        (0.05, 1.5), "One sd. Checking it beside a reference narrows every window.", _GROUP,
        Quantity.DIFFERENCE,
    )  # fmt: skip
    yield Setting(
        "probe.checked_sd_c", "A checked probe is off by", "", CHECKED_PROBE_SD_C, (0.02, 0.5),
        "One sd, of the reference and of the reading.", _GROUP, Quantity.DIFFERENCE,
    )  # fmt: skip
