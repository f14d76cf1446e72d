"""Rounds: which boxes to open today, and why."""

from sandboa.core.rounds.acts import BoxActKind, EggActKind
from sandboa.core.rounds.due import BoxState, Due, DueKind, due_at_box

__all__ = ["BoxActKind", "BoxState", "Due", "DueKind", "EggActKind", "due_at_box"]
