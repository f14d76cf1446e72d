"""A clutch's story as PDF: all that was recorded is on it, whatever the record is like."""

import io

import pypdf
import pytest
from PIL import Image

from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.candling import Vessels
from sandboa.formats.paper import PagePaper
from sandboa.formats.story_pdf import write_story
from sandboa.records.clutches import Clutch
from sandboa.records.photos import picture_path
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.clutches.photos import PhotoCommand, Picture, attach
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.lay_day import lay_clutch
from sandboa.services.notes.commands import write_note
from sandboa.services.overview.clutch_story import clutch_story
from sandboa.services.probes.commands import ProbePlace
from sandboa.services.readings.commands import read_by_hand
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.words import SI_READER, Reader


def pages_of(
    house: SnapshotCache, reader: Reader = SI_READER, paper: PagePaper = PagePaper.A4
) -> list[pypdf.PageObject]:
    story = clutch_story(house.current(), "26-01", NOW_S)
    return list(pypdf.PdfReader(io.BytesIO(write_story(story, reader, paper))).pages)


def words_of(house: SnapshotCache, reader: Reader = SI_READER) -> str:
    text = " ".join(page.extract_text() for page in pages_of(house, reader))
    return " ".join(text.replace("\N{NO-BREAK SPACE}", " ").split())


def photo(house: SnapshotCache, egg: int | None = None) -> str:
    jpeg = io.BytesIO()
    Image.new("RGB", (60, 40), 90).save(jpeg, "JPEG")
    clutch = house.current().clutch_called("26-01").entity_id
    picture = Picture(jpeg.getvalue(), jpeg.getvalue(), 60, 40)
    kept, _ = attach(PhotoCommand(clutch, picture, NOW_S - DAY_S, egg), NOW_S)
    return kept.file


@pytest.fixture
def told(house: SnapshotCache) -> SnapshotCache:
    """A clutch of which something of each kind was recorded."""
    lay_clutch(lay_day(12.0), NOW_S)
    for days in range(12):
        at_c = {3: 30.2, 7: 31.8}.get(days, 31.0)
        read_by_hand(ProbePlace(box="26-01"), NOW_S - days * DAY_S, at_c, None, NOW_S)
    candle_egg("26-01", 1, Vessels.STRONG, None, NOW_S - 3 * DAY_S, NOW_S)
    grade_egg("26-01", 2, 1, NOW_S - 2 * DAY_S, NOW_S)
    water_box("26-01", 20.0, NOW_S - 2 * DAY_S, NOW_S)
    wrong = water_box("26-01", 200.0, NOW_S - DAY_S, NOW_S)
    undo(wrong.id, NOW_S)
    return house


def test_everything_that_was_recorded_is_told(told: SnapshotCache) -> None:
    photo(told, egg=2)
    words = words_of(told)
    for said in (
        "26-01", "6-1", "Sorrel × Flint", "laid 2 Jun 2026, told 14 Jun 2026",
        "vermiculite, lid with 1-2 pin holes", "31.5 °C", "30.2 to 31.8 °C at the box",
        "How warm it was", "Egg 1:", "candled: strong vessels",
        "12 Jun, day 10 - one slight dimple",
        "Egg 6: slug", "Box 26-01: 20 g of water added", "egg 2, 13 Jun 2026", "page 1",
    ):  # fmt: skip
        assert said in words, said
    assert "200 g" not in words
    assert sum(len(page.images) for page in pages_of(told)) == 1


def test_it_speaks_its_readers_unit_and_zone(told: SnapshotCache) -> None:
    words = words_of(told, Reader.of("F", "Pacific/Auckland"))
    assert "told 15 Jun 2026" in words
    assert "86.4 to 89.2 °F" in words
    assert "°C" not in words


def test_a_closed_clutch_ends_when_it_was_closed(told: SnapshotCache) -> None:
    see_pip("26-01", 1, NOW_S - DAY_S, NOW_S)
    see_emergence("26-01", 1, NOW_S - DAY_S / 2, NOW_S)
    close_clutch("26-01", NOW_S)
    later = clutch_story(told.current(), "26-01", NOW_S + 300 * DAY_S)
    assert later.page.now.curve.temperature.as_of_s == NOW_S
    words = " ".join(
        page.extract_text()
        for page in pypdf.PdfReader(io.BytesIO(write_story(later, SI_READER))).pages
    )
    assert "hatched" in words
    assert "told 10 Apr 2027" in words


def test_a_long_story_takes_several_pages_of_its_paper(told: SnapshotCache) -> None:
    for hour in range(120):
        water_box("26-01", 1.0, NOW_S - DAY_S + hour * 60, NOW_S)
    pages = pages_of(told, paper=PagePaper.LETTER)
    assert len(pages) > 2
    assert all(page.mediabox.width == pytest.approx(612, abs=0.5) for page in pages)
    assert f"page {len(pages)}" in pages[-1].extract_text()


def test_a_letter_the_font_lacks_keeps_no_story_back(told: SnapshotCache) -> None:
    clutch = Clutch.current()[0]
    write_note(clutch.entity_id, "looked \u4e2d fine", NOW_S - DAY_S, NOW_S)
    words_of(told)


def test_a_photo_whose_file_is_gone_or_damaged_is_left_out(told: SnapshotCache) -> None:
    picture_path(photo(told), small=True).write_bytes(b"torn")
    assert sum(len(page.images) for page in pages_of(told)) == 0


def test_on_its_first_day_there_is_little_to_tell(house: SnapshotCache) -> None:
    lay_clutch(lay_day(0.01), NOW_S)
    words = words_of(house)
    assert "Egg 1: not looked at yet" in words or "Egg 1: sound" in words
    with pytest.raises(NotFound):
        clutch_story(house.current(), "26-99", NOW_S)
