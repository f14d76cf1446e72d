"""Cards and labels as PDF on common papers: drawn in millimetres, ink on white.

The letters are those of the application, shipped beside this module under
their own open licence; a script they lack is refused, not printed as boxes.
"""

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

import segno

from sandboa.core.errors import NotPlausible
from sandboa.formats.paper import (
    CARD_GRIDS,
    CARD_MM,
    LABEL_GRIDS,
    LABEL_MM,
    CardPaper,
    Grid,
    LabelSheet,
)
from sandboa.formats.pdf_paper import (
    INK,
    RULE,
    SOFT,
    Style,
    font,
    known_letters,
    paper,
    write,
    written,
)
from sandboa.services.clutches.cards import Card
from sandboa.words import Reader, sentence
from sandboa.words.dates import day, days, full_day

if TYPE_CHECKING:
    from fpdf import FPDF

_MARGIN: Final = 6.3


@dataclass(frozen=True, slots=True)
class Printed:
    """A card with the address its code opens."""

    card: Card
    address: str


def write_cards(cards: Sequence[Printed], reader: Reader, size: CardPaper = CardPaper.A6) -> bytes:
    """One A6 page a card, or four to a page with lines to cut along; days and degrees as `reader`
    has them.

    Raises NotPlausible for a letter the font lacks.
    """
    grid = CARD_GRIDS[size]
    pdf = _paper_for(grid.page, cards)
    for number, printed in enumerate(cards):
        if number % grid.places == 0:
            pdf.add_page()
            _draw_cuts(pdf, grid)
        with _place(pdf, grid, number % grid.places, CARD_MM):
            _draw_card(pdf, printed, reader)
    return written(pdf)


def write_labels(
    cards: Sequence[Printed],
    reader: Reader,
    used: int = 0,
    sheet: LabelSheet = LabelSheet.A4_70_BY_37,
) -> bytes:
    """Labels from the first free place of a sheet of which `used` are gone.

    Raises NotPlausible where that are all of them, and for a letter the font lacks.
    """
    grid = LABEL_GRIDS[sheet]
    if not 0 <= used < grid.places:
        raise NotPlausible("used", f"of {grid.places} labels 0 to {grid.places - 1} can be used up")
    pdf = _paper_for(grid.page, cards)
    for place, printed in enumerate(cards, start=used):
        if place == used or place % grid.places == 0:
            pdf.add_page()
        with _place(pdf, grid, place % grid.places, LABEL_MM):
            _draw_label(pdf, printed, reader)
    return written(pdf)


@contextmanager
def _place(pdf: "FPDF", grid: Grid, place: int, drawn: tuple[float, float]) -> Iterator[None]:
    """What is drawn inside, for the size `drawn`, stands at a place of the page and fills it."""
    from fpdf.drawing_primitives import Transform

    scale, (x, y) = grid.scale(drawn), grid.corner(place)
    with pdf.transform(Transform.scaling(scale, scale).translate(x, y)):
        yield


def _draw_cuts(pdf: "FPDF", grid: Grid) -> None:
    """Hair lines between the places of a page that is to be cut."""
    pdf.set_draw_color(RULE)
    pdf.set_line_width(0.1)
    for across in range(1, grid.across):
        x = grid.corner(across)[0]
        pdf.line(x, 0, x, grid.page[1])
    for down in range(1, grid.down):
        y = grid.corner(down * grid.across)[1]
        pdf.line(0, y, grid.page[0], y)


def _paper_for(size: tuple[float, float], cards: Sequence[Printed]) -> "FPDF":
    # Before the fonts are opened to write with: a refusal would leave them open.
    known = known_letters()
    for printed in cards:
        _require_letters(printed.card, known)
    return paper(size, ", ".join(printed.card.code for printed in cards))


def _require_letters(card: Card, known: frozenset[int]) -> None:
    said = [card.parents, card.egg_notes, card.keeping, *(str(line.text) for line in card.lines)]
    for letter in "".join(said):
        if ord(letter) not in known:
            raise NotPlausible(
                "card",
                f'the letters of the PDF have no "{letter}": print the card of {card.code} '
                "from its page, where your browser has them",
            )


def _draw_card(pdf: "FPDF", printed: Printed, reader: Reader) -> None:
    card = printed.card
    width = CARD_MM[0] - 2 * _MARGIN
    pdf.set_xy(_MARGIN, 5.2)
    write(pdf, card.code, Style(15.7, bold=True), width=width * 0.6)
    pdf.set_xy(_MARGIN, 5.2)
    write(pdf, card.count, Style(15.7, align="R"), width=width)
    pdf.set_fill_color(INK)
    pdf.rect(_MARGIN, 22.6, width, 0.85, style="F")
    pdf.set_xy(_MARGIN, 26.0)
    write(pdf, card.parents, Style(7.6, bold=True), width=width)
    write(pdf, f"laid {full_day(card.laid_s, reader.zone)}", Style(5.2), width=width)
    if card.pips is not None:
        _draw_window(pdf, card, reader, width)
    pdf.set_y(pdf.get_y() + 2)
    for line in card.lines:
        top = pdf.get_y()
        pdf.set_xy(_MARGIN, top)
        write(pdf, line.name, Style(4.3, shade=SOFT), width=18)
        pdf.set_xy(_MARGIN + 18, top)
        write(pdf, sentence(line.text, reader), Style(4.3, bold=True), width=width - 18)
    if card.egg_notes:
        pdf.set_xy(_MARGIN, pdf.get_y() + 2)
        write(pdf, f"Eggs: {card.egg_notes}", Style(4.3, bold=True), width=width - 31)
    pdf.set_draw_color(RULE)
    pdf.set_line_width(0.2)
    for row in range(3):
        y = CARD_MM[1] - 6.3 - 8.4 * row
        if y > pdf.get_y() + 6:
            pdf.line(_MARGIN, y, CARD_MM[0] - 42, y)
    _draw_code(pdf, printed.address, CARD_MM[0] - 36.7, CARD_MM[1] - 36.7, 33.6)


def _draw_window(pdf: "FPDF", card: Card, reader: Reader, width: float) -> None:
    window = card.pips
    assert window is not None, "asked for only where there is one"
    top = pdf.get_y() + 3
    pdf.set_draw_color(INK)
    pdf.set_line_width(0.3)
    pdf.line(_MARGIN, top, _MARGIN + width, top)
    pdf.set_xy(_MARGIN, top + 1.6)
    likely = f"most likely {day(window.p50, reader.zone)}"
    for words, size, bold in (
        ("pips  ", 4.8, False),
        (f"{days(window.p10, window.p90, reader.zone)}  ", 8.0, True),
        (likely, 4.8, False),
    ):
        font(pdf, size, bold=bold)
        if pdf.get_x() + pdf.get_string_width(words.rstrip()) > _MARGIN + width:
            pdf.set_xy(_MARGIN, pdf.get_y() + 8.6)
        pdf.cell(text=words, h=8.6)
    pdf.set_y(pdf.get_y() + 10)
    pdf.line(_MARGIN, pdf.get_y(), _MARGIN + width, pdf.get_y())


def _draw_label(pdf: "FPDF", printed: Printed, reader: Reader) -> None:
    card = printed.card
    _draw_code(pdf, printed.address, 2.5, 6, 25)
    left, width = 29.5, LABEL_MM[0] - 31
    pdf.set_xy(left, 4)
    font(pdf, 6.0, bold=True)
    pdf.cell(text=f"{card.code} ", h=7)
    font(pdf, 6.0)
    pdf.cell(text=card.count, h=7)
    pdf.set_xy(left, 12)
    lines = [(card.parents, True), (f"laid {day(card.laid_s, reader.zone)}", False)]
    if card.pips is not None:
        lines.append((f"pips {days(card.pips.p10, card.pips.p90, reader.zone)}", True))
    for words, bold in (*lines, (card.keeping, False)):
        font(pdf, 3.2, bold=bold)
        pdf.set_x(left)
        pdf.cell(w=width, h=4.4, text=_fitting(pdf, words, width))
        pdf.set_y(pdf.get_y() + 4.4)


def _draw_code(pdf: "FPDF", address: str, x: float, y: float, size: float) -> None:
    """A QR code with its quiet margin, `size` mm wide."""
    matrix = segno.make_qr(address, error="m").matrix
    cell = size / (len(matrix) + 4)
    pdf.set_fill_color(0)
    for row, cells in enumerate(matrix, start=2):
        for column, dark in enumerate(cells, start=2):
            if dark:
                # A hair of overlap, or some printers leave white seams.
                pdf.rect(x + column * cell, y + row * cell, cell + 0.01, cell + 0.01, style="F")


def _fitting(pdf: "FPDF", words: str, width: float) -> str:
    """The words as far as they fit on one line, with a sign where some are left out."""
    if pdf.get_string_width(words) <= width:
        return words
    while words and pdf.get_string_width(f"{words}\u2026") > width:
        words = words[:-1]
    return f"{words.rstrip()}\u2026"
