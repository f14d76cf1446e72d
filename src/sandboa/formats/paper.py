"""Papers that cards and labels are printed on: their sizes and places, in mm."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

_A4: Final = (210.0, 297.0)
_LETTER: Final = (215.9, 279.4)
#: The size cards and labels are drawn for.
CARD_MM: Final = (105.0, 148.0)
LABEL_MM: Final = (70.0, 37.0)


class LabelSheet(StrEnum):
    """Sheets of labels by paper and size of a label, mm: what is written on their wrapping."""

    A4_70_BY_37 = "A4, 70 x 37"
    A4_64_BY_38 = "A4, 63.5 x 38.1"
    A4_99_BY_57 = "A4, 99.1 x 57"
    LETTER_67_BY_25 = "Letter, 66.7 x 25.4"
    LETTER_102_BY_51 = "Letter, 101.6 x 50.8"


class CardPaper(StrEnum):
    """One card to a small page, or four to a large one, to be cut."""

    A6 = "A6"
    A4 = "A4"
    LETTER = "Letter"


class PagePaper(StrEnum):
    """What is read rather than cut is printed on."""

    A4 = "A4"
    LETTER = "Letter"


#: Pages by their paper, mm.
PAGES: Final[dict[PagePaper, tuple[float, float]]] = {
    PagePaper.A4: _A4,
    PagePaper.LETTER: _LETTER,
}


@dataclass(frozen=True, slots=True)
class Grid:
    """Places of one size on a page, mm: the first at `left`, `top`, each `step` from the next."""

    page: tuple[float, float]
    size: tuple[float, float]
    across: int
    down: int
    left: float = 0.0
    top: float = 0.0
    step: tuple[float, float] = (0.0, 0.0)

    @property
    def places(self) -> int:
        return self.across * self.down

    def corner(self, place: int) -> tuple[float, float]:
        """The upper left corner of the place with that number, line by line from 0."""
        down, across = divmod(place, self.across)
        wide, high = (step or size for step, size in zip(self.step, self.size, strict=True))
        return self.left + across * wide, self.top + down * high

    def scale(self, drawn: tuple[float, float]) -> float:
        """By how much what is drawn for one size is to be drawn for a place."""
        return min(own / one for own, one in zip(self.size, drawn, strict=True))


LABEL_GRIDS: Final[dict[LabelSheet, Grid]] = {
    LabelSheet.A4_70_BY_37: Grid(_A4, LABEL_MM, 3, 8),
    LabelSheet.A4_64_BY_38: Grid(_A4, (63.5, 38.1), 3, 7, 7.25, 15.15, (66.0, 38.1)),
    LabelSheet.A4_99_BY_57: Grid(_A4, (99.1, 57.0), 2, 5, 4.65, 6.0, (101.6, 57.0)),
    LabelSheet.LETTER_67_BY_25: Grid(_LETTER, (66.675, 25.4), 3, 10, 4.76, 12.7, (69.85, 25.4)),
    LabelSheet.LETTER_102_BY_51: Grid(_LETTER, (101.6, 50.8), 2, 5, 3.97, 12.7, (106.36, 50.8)),
}
CARD_GRIDS: Final[dict[CardPaper, Grid]] = {
    CardPaper.A6: Grid(CARD_MM, CARD_MM, 1, 1),
    CardPaper.A4: Grid(_A4, CARD_MM, 2, 2),
    CardPaper.LETTER: Grid(_LETTER, (107.95, 139.7), 2, 2),
}
