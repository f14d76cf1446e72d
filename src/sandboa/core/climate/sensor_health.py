"""Whether a sensor is about to fall silent, by what it says of itself."""

from typing import Final

from sandboa.core.units import require_range

#: % of a battery from which it is warned of. Assumption: with a coin cell's flat curve the last
#: tenth goes within weeks, and a clutch needs two months.
BATTERY_LOW_PERCENT: Final = 15.0
#: dBm of a radio signal below which messages are lost (assumption).
SIGNAL_WEAK_DBM: Final = -88.0
#: Of 255, the quality of a radio link below which messages are lost (assumption).
LINK_WEAK: Final = 25.0

_PERCENT: Final = (0.0, 100.0)
_DBM: Final = (-150.0, 20.0)
_LINK: Final = (0.0, 255.0)


def battery_is_low(percent: float) -> bool:
    """Whether a battery at `percent` (0-100) may not last a clutch. NotPlausible outside that."""
    return require_range("battery", percent, _PERCENT, "%") <= BATTERY_LOW_PERCENT


def signal_is_weak(dbm: float) -> bool:
    """Whether a signal of `dbm` (-150 to 20) loses messages. NotPlausible outside that."""
    return require_range("signal", dbm, _DBM, "dBm") < SIGNAL_WEAK_DBM


def link_is_weak(quality: float) -> bool:
    """Whether a link of that quality (0-255) loses messages. NotPlausible outside that."""
    return require_range("link quality", quality, _LINK, "") < LINK_WEAK
