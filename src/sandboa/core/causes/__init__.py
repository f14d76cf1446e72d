"""Why eggs were lost: evidence, time of death, and ranked causes (rule G)."""

from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.findings import FINDINGS, FindingKind, Findings, checked_findings
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rank import Ground, RankedCause, missing, rank_causes, together
from sandboa.core.causes.time_of_death import DeathWindow, Seen, death_window

__all__ = [
    "FINDINGS",
    "Cause",
    "DeathWindow",
    "FindingKind",
    "Findings",
    "Ground",
    "LossEvidence",
    "RankedCause",
    "Seen",
    "checked_findings",
    "death_window",
    "missing",
    "rank_causes",
    "together",
]
