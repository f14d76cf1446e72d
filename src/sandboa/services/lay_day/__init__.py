"""Lay day: the clutch recorded whole, and the draft that gathers it step by step."""

from sandboa.services.lay_day.correct import correct_clutch
from sandboa.services.lay_day.day import MOST_FURTHER, EggHappening, EggLaid, LayDay
from sandboa.services.lay_day.record import lay_clutch
from sandboa.services.lay_day.rows import suggested_code

__all__ = [
    "MOST_FURTHER",
    "EggHappening",
    "EggLaid",
    "LayDay",
    "correct_clutch",
    "lay_clutch",
    "suggested_code",
]
