"""By what hatch rates are grouped, and under what a stay in a box is counted."""

from collections.abc import Sequence
from enum import StrEnum
from typing import Final

from sandboa.services.boxes.box_stays import BoxStay


class Dimension(StrEnum):
    """By what hatch rates are grouped (rule H)."""

    DAM = "dam"
    SIRE = "sire"
    MEDIUM = "medium"
    CLOSING = "closing"
    CABINET = "cabinet"
    SHELF = "shelf"
    METHOD = "method"
    MONTH = "month"


#: Dimensions whose groups are weighed against each other with all else as usual: a shelf lies in
#: its cabinet and a method is made of the others, so that they would be counted twice.
SIDE_BY_SIDE: Final = (
    Dimension.DAM,
    Dimension.SIRE,
    Dimension.MEDIUM,
    Dimension.CLOSING,
    Dimension.CABINET,
    Dimension.MONTH,
)
#: What is told of each egg by where it lay.
PLACES: Final = (Dimension.MEDIUM, Dimension.CLOSING, Dimension.CABINET, Dimension.SHELF)


def names_of(stay: BoxStay) -> dict[Dimension, str]:
    """What a stay is counted under, on each dimension that is known of it."""
    named = {
        Dimension.MEDIUM: stay.medium,
        Dimension.CLOSING: stay.closing,
        Dimension.CABINET: stay.cabinet,
        Dimension.SHELF: f"{stay.cabinet}, {stay.shelf}",
    }
    return {dimension: name for dimension, name in named.items() if name}


def while_developing(stays: Sequence[BoxStay]) -> Sequence[BoxStay]:
    """Stays outside hatching boxes; all of them where there is no other."""
    return [stay for stay in stays if not stay.hatching] or stays
