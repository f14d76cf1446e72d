"""What is done at a box and to an egg on a round (rule P7)."""

from enum import StrEnum


class BoxActKind(StrEnum):
    """Acts that are not pouring, weighing, fresh medium, changing the closing or moving the box."""

    WIPED_LID = "lid wiped"
    AIRED = "aired"
    REPLACED_FILM = "film replaced"
    DAMP_CLOTH = "damp cloth over the eggs"
    CLOTH_OFF = "damp cloth taken off"
    MOVED_TO_PAPER = "moved to damp paper"
    REMOVED_GRID = "grid removed"


class EggActKind(StrEnum):
    """Acts on one egg besides candling and grading it; turning belongs to lay day alone."""

    POWDERED = "powdered"
    SUPPORTED = "supported"
    ISOLATED = "isolated"
    MARKED = "marked"
    REMOVED = "removed"
    # What happened to it rather than what was done: counted when causes of loss are sought.
    ROLLED = "rolled"
    DROPPED = "dropped"
    TORN = "torn"
    IN_WATER = "lay in water"
