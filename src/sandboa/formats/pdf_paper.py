"""Paper, letters and ink that everything printed as PDF shares; sizes in millimetres.

The letters are those of the application, shipped beside this module under their own open licence.
"""

from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING, Final

if TYPE_CHECKING:
    from fpdf import FPDF

MEDIA_TYPE: Final = "application/pdf"
#: Greys of what is written, of what stands back, and of lines.
INK, SOFT, RULE = 17, 68, 153
_FONTS: Final = Path(__file__).parent / "fonts"
_FACE: Final = "Atkinson"
_FILES: Final = {
    "": "AtkinsonHyperlegibleNext-Regular.ttf",
    "B": "AtkinsonHyperlegibleNext-Bold.ttf",
}
_PT_PER_MM: Final = 72 / 25.4


@dataclass(frozen=True, slots=True)
class Style:
    """How words look: their height in mm, weight, side and shade."""

    size: float
    bold: bool = False
    align: str = "L"
    shade: int = INK


@cache
def known_letters() -> frozenset[int]:
    """Every letter the font has."""
    from fontTools.ttLib import TTFont

    with TTFont(_FONTS / _FILES[""], lazy=True) as font:
        return frozenset(font.getBestCmap())


def paper(size: tuple[float, float], title: str) -> "FPDF":
    """A document of pages of that size, without margins and without breaks of its own."""
    # Here, for only whoever prints waits for it.
    from fpdf import FPDF

    pdf = FPDF(orientation="portrait", unit="mm", format=size)
    pdf.set_auto_page_break(False)
    pdf.set_margin(0)
    pdf.c_margin = 0
    pdf.set_title(f"Sandboa: {title}")
    for style, file in _FILES.items():
        pdf.add_font(_FACE, style, _FONTS / file)
    return pdf


def written(pdf: "FPDF") -> bytes:
    """The finished file; the library would leave the fonts it was written with open."""
    whole = bytes(pdf.output())
    for font in pdf.fonts.values():
        font.ttfont.close()  # type: ignore[union-attr]
    return whole


def write(pdf: "FPDF", words: str, style: Style, width: float) -> None:
    """Words broken into lines of `width` mm, from where the pen is."""
    font(pdf, style.size, bold=style.bold, shade=style.shade)
    x = pdf.get_x()
    pdf.multi_cell(
        w=width, h=style.size * 1.25, text=words, align=style.align, new_x="LEFT", new_y="NEXT"
    )
    pdf.set_x(x)


def font(pdf: "FPDF", size: float, *, bold: bool = False, shade: int = INK) -> None:
    """Letters of that height (mm) from now on."""
    pdf.set_font(_FACE, "B" if bold else "", size * _PT_PER_MM)
    pdf.set_text_color(shade)
