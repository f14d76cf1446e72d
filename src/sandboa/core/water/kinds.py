"""What is looked at to tell how wet a box is (rule D5)."""

from enum import StrEnum


class WaterSignKind(StrEnum):
    MEDIUM = "medium"
    LID = "lid"
    FEEL = "weight"
