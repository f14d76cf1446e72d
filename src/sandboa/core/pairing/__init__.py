"""Which sire visits whom next."""

from sandboa.core.pairing.plan import (
    MOST_DAMS_PER_SIRE,
    VISIT_INTERVAL_DAYS,
    Pair,
    PlannedVisit,
    many_dams,
    plan_visits,
    too_light,
)

__all__ = [
    "MOST_DAMS_PER_SIRE",
    "VISIT_INTERVAL_DAYS",
    "Pair",
    "PlannedVisit",
    "many_dams",
    "plan_visits",
    "too_light",
]
