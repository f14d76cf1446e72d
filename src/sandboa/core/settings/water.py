"""Numbers of the water and the air of a box (rules D, F)."""

from collections.abc import Iterator

from sandboa.core.air import AIR_BELOW, FREE_AIR_L, USE_FACTOR, USE_ML_HOUR
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.water.drying import (
    BOX_HUMIDITY,
    EXCHANGE_L_DAY,
    EXCHANGE_SD_FACTOR,
    MEDIUM_FACTOR,
)
from sandboa.core.water.mixing import MEDIA, RATIO_RANGE
from sandboa.core.water.rules import DEFAULT_WATER, WATER_SIGNS

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
        "unknown_humidity", "Humidity of a cabinet nobody measures", "of 1",
        DEFAULT_WATER.unknown_humidity, (0.05, 0.97),
        "Heated rooms are dry; a box in dry air loses its water fast.",
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
        "box_humidity", "Humidity in a box with damp medium", "of 1", BOX_HUMIDITY, (0.9, 1.0),
        "A box loses by how much drier its cabinet is.", _GROUP, Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "top_up_share", "Top up soon below", "of its water", DEFAULT_WATER.top_up, (0.3, 0.9),
        "Half of the water gone is time enough to plan a visit.", _GROUP, Quantity.SHARE,
    )  # fmt: skip
    yield Setting(
        "dry_share", "Dry below", "of its water", DEFAULT_WATER.dry, (0.05, 0.29),
        "A quarter left no longer keeps the air of the box damp.", _GROUP, Quantity.SHARE,
    )  # fmt: skip
    for name, label, unit, span, reason, quantity in (
        ("unknown_humidity_low", "A cabinet nobody measures may be as dry as", "of 1", (0.02, 0.39),
         "One in ten such rooms is drier.", Quantity.SHARE),
        ("unknown_humidity_high", "A cabinet nobody measures may be as damp as", "of 1",
         (0.41, 0.97), "One in ten such rooms is damper.", Quantity.SHARE),
        ("round_to_g", "A top-up is rounded to", "g", (1.0, 50.0), "What you can pour.",
         Quantity.MASS),
        ("split_above", "A top-up is split above", "of its water", (0.2, 1.0),
         "So much at once soaks the eggs' underside.", Quantity.SHARE),
        ("unweighed_egg_g", "An egg taken out unweighed counts", "g", (30.0, 200.0),
         "Where none beside it was weighed.", Quantity.MASS),
        ("unweighed_egg_sd_g", "An egg taken out unweighed may be off by", "g", (1.0, 60.0),
         "One sd.", Quantity.MASS),
        ("lid_silent_from", "A wet lid says nothing from", "developed", (0.5, 1.0),
         "Eggs give off water before they pip.", Quantity.SHARE),
    ):  # fmt: skip
        yield Setting(
            f"water.{name}", label, unit, getattr(DEFAULT_WATER, name), span, reason, _GROUP,
            quantity,
        )  # fmt: skip
    for of in MEDIA:
        if of.ratio is not None:
            yield Setting(
                f"ratio.{of.name}", f"Water on {of.name}", "g on each dry g", of.ratio,
                RATIO_RANGE, "By weight. A clutch keeps what its own method says.", _GROUP,
            )  # fmt: skip
        if of.density_g_l is not None:
            yield Setting(
                f"density.{of.name}", f"A litre of dry {of.name} weighs", "g",
                of.density_g_l[0], (20.0, 400.0), "Rough: weighing wins.", _GROUP,
                Quantity.MASS,
            )  # fmt: skip
    for (kind, value), (share, _) in WATER_SIGNS.items():
        yield Setting(
            f"water sign.{kind}.{value}", f"{kind.capitalize()} {value}: water left",
            "of its water", share, (0.0, 1.0), "What such a look speaks for; the hand errs widely.",
            "Weights of water signs", Quantity.SHARE, deep=True,
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
