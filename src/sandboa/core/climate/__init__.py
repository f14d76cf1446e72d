"""What a cabinet's readings say about the cabinet."""

from sandboa.core.climate.limits import Breach, ExposureTotals, Limit, breaches, exposure_totals
from sandboa.core.climate.readiness import Condition, Readiness, Requirement, readiness

__all__ = [
    "Breach",
    "Condition",
    "ExposureTotals",
    "Limit",
    "Readiness",
    "Requirement",
    "breaches",
    "exposure_totals",
    "readiness",
]
