"""Messages whose values the keeper has named, stored as readings of the probes they are of."""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.units import require_humidity, require_reading
from sandboa.records.house import Probe
from sandboa.records.readings import ReadingRow
from sandboa.services.probes.heard_values import HeardValue, Quantity, ValueUnit
from sandboa.services.readings.intake import TakenIn, take_in_of_probes

#: s for which a humidity that came by itself goes with temperatures of its probe (assumption:
#: sensors that send each by itself send both within minutes).
HUMIDITY_HELD_S: Final = 900.0


@dataclass
class LoneHumidities:
    """Humidities that came without a temperature, the last of each probe: held in memory only."""

    _held: dict[int, tuple[float, float]] = field(default_factory=dict)

    def keep(self, probe: int, at_s: float, humidity: float) -> None:
        """Keep the last humidity (0-1) of a probe."""
        self._held[probe] = (at_s, humidity)

    def near(self, probe: int, at_s: float) -> float | None:
        """The one that goes with a temperature at `at_s`; None where none is near enough."""
        told_s, humidity = self._held.get(probe, (float("-inf"), 0.0))
        return humidity if abs(at_s - told_s) <= HUMIDITY_HELD_S else None


def take_in_named(
    named: Sequence[HeardValue],
    values: Mapping[str, float | None],
    at_s: float,
    now_s: float,
    humidities: LoneHumidities,
) -> TakenIn:
    """Store what a message says: `values` are its numbers by path, of `at_s`.

    A value that is not in it, or no number, is left out: sensors send what has
    changed. A humidity by itself waits for the next temperature of its probe.
    Raises NotPlausible for what no sensor near eggs reads; nothing is stored then.
    """
    temperatures: dict[int, float] = {}
    own_humidities: dict[int, float] = {}
    for row in named:
        value = values.get(row.path)
        if value is None:
            continue
        unit = ValueUnit(row.unit)
        measured = unit.read(value)
        if unit.quantity is Quantity.TEMPERATURE:
            require_reading(measured, None)
            temperatures[row.probe_id] = round(measured, 4)
        else:
            require_humidity(measured)
            own_humidities[row.probe_id] = measured
    rows: dict[Probe, list[ReadingRow]] = defaultdict(list)
    for entity, at_c in temperatures.items():
        probe = Probe.now(entity)
        if probe is None:
            continue
        humidity = own_humidities.get(entity, humidities.near(entity, at_s))
        rows[probe].append((int(at_s), at_c, humidity))
    taken = take_in_of_probes(rows, now_s)
    for entity, humidity in own_humidities.items():
        humidities.keep(entity, at_s, humidity)
    return taken
