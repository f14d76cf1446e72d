"""The faults a cabinet's readings can show, and what a probe's record is made of."""

from dataclasses import dataclass
from enum import StrEnum

from sandboa.core.development.clock import FloatArray


class FaultKind(StrEnum):
    """Rule E. The first four are the cabinet's; those up to drift are a probe's."""

    FAN = "fan"
    POWER_CUT = "power cut"
    DOOR = "door"
    OVERSHOOT = "overshoot"
    UNPLUGGED = "unplugged"
    STUCK = "stuck"
    FALLEN = "fallen"
    DRIFT = "drift"
    EGG_HEAT = "egg heat"


@dataclass(frozen=True)
class ProbeRecord:
    """One probe of a cabinet: `times_s` rising, °C, humidity 0-1 (NaN where unknown), all (n,).

    `shelf` is its shelf's position from the top, 0 for the cabinet's own
    probe; `in_box` when it hangs in a box: slower than the air, and never dry.
    """

    name: str
    times_s: FloatArray
    temperature_c: FloatArray
    humidity: FloatArray
    shelf: int = 0
    in_box: bool = False


@dataclass(frozen=True, slots=True)
class Fault:
    """A fault from `start_s` until `end_s` (None: still under way when the record ends).

    `probes` are those it shows in. `degree_hours` is how far the temperature
    was off, summed over time (mean of those probes, °C·h; 0 where the readings
    are wrong and not the temperature). `largest_c` is how far it was off at most.
    """

    kind: FaultKind
    start_s: float
    end_s: float | None
    probes: tuple[str, ...]
    degree_hours: float = 0.0
    largest_c: float = 0.0
