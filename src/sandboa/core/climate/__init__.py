"""What a cabinet's readings say about the cabinet."""

from sandboa.core.climate.readiness import Condition, Readiness, Requirement, readiness

__all__ = ["Condition", "Readiness", "Requirement", "readiness"]
