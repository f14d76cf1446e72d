"""Numbers of the water and the air of a box (rules D, F)."""

from collections.abc import Iterator

from sandboa.core.air import AIR_BELOW, FREE_AIR_L, USE_FACTOR, USE_ML_HOUR
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.water.drying import (
    EXCHANGE_L_DAY,
    EXCHANGE_SD_FACTOR,
    MEDIUM_FACTOR,
    UNKNOWN_HUMIDITY,
)
from sandboa.core.water.shares import DRY_SHARE, TOP_UP_SHARE

_GROUP = "Water and air"


def water() -> Iterator[Setting]:
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
        "Water and air", Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "free_air_l", "Free air in a box", "l", FREE_AIR_L, (0.2, 50.0),
        "What is left of the box beside medium and eggs; used for the oxygen estimate.",
        "Water and air",
    )  # fmt: skip
    yield Setting(
        "exchange_sd_factor", "How far a closing may be off", "times", EXCHANGE_SD_FACTOR,
        (1.1, 4.0), "One box in three is further off than this factor, before it was weighed.",
        _GROUP,
    )  # fmt: skip
    yield Setting(
        "top_up_share", "Top up soon below", "of its water", TOP_UP_SHARE, (0.3, 0.9),
        "Half of the water gone is time enough to plan a visit.", _GROUP, Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "dry_share", "Dry below", "of its water", DRY_SHARE, (0.05, 0.5),
        "A quarter left no longer keeps the air of the box damp.", _GROUP, Quantity.SHARE,
    )  # fmt: skip
    for share, ml_hour in USE_ML_HOUR:
        yield Setting(
            f"oxygen.{round(100 * share)}", f"Oxygen an egg uses at {100 * share:.0f} %",
            "ml an hour", ml_hour, (0.02, 20.0), "It rises through the term.", _GROUP,
        )  # fmt: skip
    yield Setting(
        "oxygen.factor", "How far eggs differ in it", "times", USE_FACTOR, (1.1, 5.0),
        "Eight eggs in ten use no more and no less than this factor.", _GROUP,
    )  # fmt: skip
    yield Setting(
        "air_below", "Air a box below", "of oxygen", AIR_BELOW, (0.12, 0.205),
        "Fresh air holds 20.9 %.", _GROUP, Quantity.SHARE,
    )  # fmt: skip
