"""Numbers a keeper can set for the house, each with its default, range and reason."""

from typing import Final

from sandboa.core.dam_care.aftercare import NOT_EATING_DAYS
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.raising import MEAL_EVERY_DAYS, MEAL_EVERY_RANGE_DAYS
from sandboa.core.lay_day import SECOND_CLUTCH_DAYS
from sandboa.core.pairing.plan import (
    LIGHTEST_DAM_G,
    MOST_DAMS_PER_SIRE,
    VISIT_INTERVAL_DAYS,
    VISIT_INTERVAL_RANGE_DAYS,
)
from sandboa.core.settings.climate import climate
from sandboa.core.settings.eggs import dent_causes, dents, rounds, standing
from sandboa.core.settings.forecast import clock, windows
from sandboa.core.settings.losses import losses
from sandboa.core.settings.seasons import seasons
from sandboa.core.settings.setting import Quantity, Setting
from sandboa.core.settings.water import water
from sandboa.core.units import require_range

__all__ = ["SETTINGS", "Quantity", "Setting", "checked_setting", "require_setting"]

SETTINGS: Final = {
    setting.name: setting
    for setting in (
        Setting(
            "lightest_dam_g", "Minimum breeding weight", "g", LIGHTEST_DAM_G, (500.0, 5000.0),
            "Laying costs a quarter to two fifths of her weight; many keepers set 1,500 g.",
            quantity=Quantity.MASS,
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
        *clock(),
        *windows(),
        *climate(),
        *water(),
        *rounds(),
        *dents(),
        *standing(),
        *dent_causes(),
        *losses(),
        *seasons(),
    )
}  # fmt: skip


def checked_setting(name: str, value: float) -> float:
    """A value the setting can have; NotPlausible for an unknown name or outside its limits."""
    setting = require_setting(name)
    if setting.quantity in (Quantity.TEMPERATURE, Quantity.DIFFERENCE):
        return require_range("value", value, setting.limits, "°C")
    return require_range("value", value, setting.limits, setting.unit)


def require_setting(name: str) -> Setting:
    """The setting of that name; NotPlausible for an unknown one."""
    setting = SETTINGS.get(name)
    if setting is None:
        raise NotPlausible("name", f'there is no setting "{name[:40]}"')
    return setting
