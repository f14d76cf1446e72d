"""A cabinet, its boxes, eggs and loggers, made up from physics: to feed and to test the real thing.

Nothing here knows how Sandboa forecasts or recognises: import-linter keeps it so.
"""

from sandboa.devices.simulation.cabinet import CabinetModel, Climate, run
from sandboa.devices.simulation.eggs import SimulatedClutch, pip_times
from sandboa.devices.simulation.mishaps import Mishap, MishapKind
from sandboa.devices.simulation.probes import LoggedProbe, Sensor, log_probe

__all__ = [
    "CabinetModel",
    "Climate",
    "LoggedProbe",
    "Mishap",
    "MishapKind",
    "Sensor",
    "SimulatedClutch",
    "log_probe",
    "pip_times",
    "run",
]
