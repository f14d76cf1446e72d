"""Who reads: the unit of temperatures and the time zone."""

from dataclasses import dataclass
from datetime import UTC, tzinfo
from typing import Final
from zoneinfo import ZoneInfo

from sandboa.core.units import TemperatureUnit


@dataclass(frozen=True, slots=True)
class Reader:
    """A reader's unit and zone; °C and UTC unless told otherwise."""

    unit: TemperatureUnit = TemperatureUnit.CELSIUS
    zone: tzinfo = UTC

    @classmethod
    def of(cls, unit: str | None, zone: str | None = None) -> "Reader":
        """A reader by what is stored of one: "C" or "F", and the IANA name of a zone.

        None for what is not known; ValueError for what is neither.
        """
        return cls(
            TemperatureUnit(unit or TemperatureUnit.CELSIUS), ZoneInfo(zone) if zone else UTC
        )


#: Whoever says nothing of themselves.
SI_READER: Final = Reader()
