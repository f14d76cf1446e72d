"""What a reader chose: the unit of temperatures. No fact, so it has no history and no undo."""

from sandboa.core.units import TemperatureUnit
from sandboa.records.database import transaction
from sandboa.records.people import preference_of, put_preference


def temperature_unit_of(person: int | None) -> TemperatureUnit:
    """What that person (None: where nobody signs in) reads in; °C before they chose."""
    chosen = preference_of(person)
    return TemperatureUnit(chosen.temperature_unit) if chosen else TemperatureUnit.CELSIUS


def choose_temperature_unit(person: int | None, unit: TemperatureUnit) -> None:
    """Keep what that person reads temperatures in."""
    with transaction():
        put_preference(person, unit.value)
