"""What one piece of evidence says of one cause."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from sandboa.core.causes.evidence import LossEvidence
from sandboa.core.causes.kinds import Cause
from sandboa.core.causes.rules import CauseRules
from sandboa.core.messages import Words


@dataclass(frozen=True, slots=True)
class CauseSign:
    """A sign that holds: its key in the table of scores, how far it holds (0-1), and in words
    what was seen; empty where the table's own words say it.

    `found`: noted once on opening, where some notes are wrong.
    """

    cause: Cause
    key: str
    holds: float = 1.0
    words: Words = ""
    found: bool = False


Reasoning = Callable[[LossEvidence, CauseRules], Iterator[CauseSign]]


def percent(share: float) -> str:
    return f"{100 * share:.0f} %"
