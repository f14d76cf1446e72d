"""Single eggs on single days, made up to be judged: what can be seen of each, and its hidden truth.

A case is drawn from a seed alone, so it can be drawn again. What becomes of the egg under each
thing that can be done is decided with it, before anybody chooses.
"""

from sandboa.devices.simulation.cases.case import ACTS, Case, CaseBox, Ending
from sandboa.devices.simulation.cases.decks import DECKS, KINDS, draw_case

__all__ = ["ACTS", "DECKS", "KINDS", "Case", "CaseBox", "Ending", "draw_case"]
