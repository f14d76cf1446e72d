"""Cards and labels as PDF: their paper, their words, and what cannot be printed."""

import io

import pypdf
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from samples import DAY_S, NOW_S
from sandboa.core.development import Window
from sandboa.core.errors import NotPlausible
from sandboa.formats.cards_pdf import LABELS_PER_SHEET, Printed, write_cards, write_labels
from sandboa.services.clutches.cards import Card, CardLine
from sandboa.words import SI_READER, Reader

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
