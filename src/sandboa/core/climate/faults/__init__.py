"""Faults of cabinets and probes, recognised from their readings alone (rule E)."""

from sandboa.core.climate.faults.kinds import Fault, FaultKind, ProbeRecord
from sandboa.core.climate.faults.recognise import recognise

__all__ = ["Fault", "FaultKind", "ProbeRecord", "recognise"]
