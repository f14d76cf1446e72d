"""Cards and labels as PDF: their paper, their words, and what cannot be printed."""

import io
from itertools import pairwise

import pypdf
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.development import Window
from sandboa.core.errors import NotPlausible
from sandboa.formats.cards_pdf import Printed, write_cards, write_labels
from sandboa.formats.paper import (
    CARD_GRIDS,
    LABEL_GRIDS,
    CardPaper,
    LabelSheet,
)
from sandboa.services.clutches.cards import Card, CardLine
from sandboa.words import SI_READER, Reader

LABELS_PER_SHEET = 24
A6_PT, A4_PT = (297.64, 419.53), (595.28, 841.89)
WINDOW = Window(*(NOW_S + day * DAY_S for day in (14, 16, 18, 20, 22)))


def printed(code: str = "26-05", **changes: object) -> Printed:
    values: dict = {
        "code": code,
        "count": "7-2",
        "parents": "Chervil × Flint",
        "laid_s": NOW_S,
        "pips": WINDOW,
        "lines": (CardLine("Place", "Small, shelf, 31.1 °C"),),
        "egg_notes": "6 slug",
        "keeping": "perlite",
    }
    return Printed(Card(**{**values, **changes}), f"http://192.0.2.2:8350/clutches/{code}")


def read(pdf: bytes) -> list[tuple[tuple[float, float], str]]:
    """Size (pt) and words of each page."""
    return [
        ((float(page.mediabox.width), float(page.mediabox.height)), page.extract_text())
        for page in pypdf.PdfReader(io.BytesIO(pdf)).pages
    ]


def test_each_card_is_an_a6_page_with_its_words() -> None:
    first, second = read(
        write_cards([printed(), printed("26-06")], Reader.of(None, "Europe/Berlin"))
    )
    assert first[0] == pytest.approx(A6_PT, abs=0.5)
    for said in (
        "26-05", "7-2", "Chervil × Flint", "laid 14 Jun 2026", "28 Jun–6 Jul",
        "most likely 2 Jul", "31.1 °C", "Eggs: 6 slug",
    ):  # fmt: skip
        assert said in first[1]
    assert "26-06" in second[1]


def test_days_are_those_of_the_keepers_zone() -> None:
    # 18:30 UTC is the next morning in Auckland.
    ((_, words),) = read(write_cards([printed()], Reader.of(None, "Pacific/Auckland")))
    assert "laid 15 Jun 2026" in words
    assert "29 Jun–7 Jul" in words


def test_no_date_is_printed_where_none_can_be_told() -> None:
    for write in (write_cards, write_labels):
        ((_, words),) = read(write([printed(pips=None)], SI_READER))
        assert "pips" not in words


@settings(max_examples=6)
@example(1, LABELS_PER_SHEET - 1)
@example(LABELS_PER_SHEET, 0)
@example(LABELS_PER_SHEET + 1, 0)
@given(st.integers(1, 60), st.integers(0, LABELS_PER_SHEET - 1))
def test_labels_fill_sheets_from_the_first_free_place(count: int, used: int) -> None:
    codes = [f"26-{n:02d}" for n in range(1, count + 1)]
    sheets = read(write_labels([printed(code) for code in codes], SI_READER, used))
    assert len(sheets) == -(-(used + count) // LABELS_PER_SHEET)
    assert all(size == pytest.approx(A4_PT, abs=0.5) for size, _ in sheets)
    on_first = LABELS_PER_SHEET - used
    assert [code for code in codes if code in sheets[0][1]] == codes[:on_first]


def test_names_too_long_for_their_place_stay_on_the_paper() -> None:
    long = "Extraordinarily long name of a dam × another one just as long as hers"
    ((_, label),) = read(write_labels([printed(parents=long, keeping=long)], SI_READER))
    assert "…" in label
    ((_, card),) = read(write_cards([printed(parents=long)], SI_READER))
    assert "just as long as hers" in " ".join(card.split())


def test_a_script_the_letters_lack_is_refused_by_name() -> None:
    assert read(write_cards([printed(parents="Łucja × Žofie Ñandú")], SI_READER))
    with pytest.raises(NotPlausible, match=r'have no "火".*26-05'):
        write_cards([printed(parents="火 × Flint")], SI_READER)


@pytest.mark.parametrize("sheet", LabelSheet)
def test_each_place_of_a_sheet_lies_on_its_page_and_beside_the_others(sheet: LabelSheet) -> None:
    grid = LABEL_GRIDS[sheet]
    wide, high = grid.size
    corners = [grid.corner(place) for place in range(grid.places)]
    assert len(set(corners)) == grid.places
    for x, y in corners:
        assert 0 <= x <= grid.page[0] - wide + 0.1
        assert 0 <= y <= grid.page[1] - high + 1.1
    for (x, y), (u, v) in pairwise(corners):
        assert u - x >= wide - 1e-6 or v - y >= high - 1e-6


@pytest.mark.parametrize("sheet", LabelSheet)
def test_labels_are_printed_on_every_sheet_whole(sheet: LabelSheet) -> None:
    grid = LABEL_GRIDS[sheet]
    codes = [f"26-{n:02d}" for n in range(1, grid.places + 2)]
    pages = read(write_labels([printed(code) for code in codes], SI_READER, 1, sheet))
    points = tuple(mm * 72 / 25.4 for mm in grid.page)
    assert [size for size, _ in pages] == [pytest.approx(points, abs=0.5)] * 2
    assert [code for code in codes if code in pages[0][1]] == codes[: grid.places - 1]
    assert all(code in pages[1][1] for code in codes[grid.places - 1 :])


@pytest.mark.parametrize("used", [-1, 10])
def test_no_more_labels_are_used_up_than_a_sheet_has(used: int) -> None:
    with pytest.raises(NotPlausible, match="of 10 labels 0 to 9"):
        write_labels([printed()], SI_READER, used, LabelSheet.LETTER_102_BY_51)


@pytest.mark.parametrize(("paper", "pages"), [("A6", 5), ("A4", 2), ("Letter", 2)])
def test_four_cards_fill_a_large_page(paper: str, pages: int) -> None:
    cards = [printed(f"26-{n:02d}") for n in range(1, 6)]
    told = read(write_cards(cards, SI_READER, CardPaper(paper)))
    assert len(told) == pages
    points = tuple(mm * 72 / 25.4 for mm in CARD_GRIDS[CardPaper(paper)].page)
    assert told[0][0] == pytest.approx(points, abs=0.5)
    assert "26-05" in told[-1][1]
