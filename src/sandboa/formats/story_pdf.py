"""A clutch's whole story as PDF: its warmth as a curve, its eggs, what was done, its photos.

A letter the font lacks, in a note perhaps, is printed as "?" rather than keeping the story back.
"""

from collections.abc import Iterator
from pathlib import Path
from typing import TYPE_CHECKING, Final, cast

from sandboa.core.messages import Message, Share, Temperature, TemperatureRange, Words
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.formats.paper import PAGES, PagePaper
from sandboa.formats.pdf_paper import (
    INK,
    SOFT,
    Style,
    font,
    known_letters,
    paper,
    write,
    written,
)
from sandboa.formats.warmth_chart import draw_warmth, lowest_and_highest
from sandboa.services.acts.log import LogEntry
from sandboa.services.clutches.clutch_view import ClutchNow
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.clutches.photos import picture_path
from sandboa.services.overview.clutch_story import ClutchStory, EggStory
from sandboa.words import Reader, sentence
from sandboa.words.dates import day, days, full_day

if TYPE_CHECKING:
    from fpdf import FPDF

    from sandboa.records.photos import Photo

_MARGIN: Final = 16.0
_CHART_MM: Final = 52.0
_ACROSS: Final = 3
_GAP: Final = 4.0
_TITLE: Final = Style(9.0, bold=True)
_HEADING: Final = Style(5.0, bold=True)
_TEXT: Final = Style(3.6)
_BOLD: Final = Style(3.6, bold=True)
_SMALL: Final = Style(3.0, shade=SOFT)
#: Kinds of what was seen that its words tell by themselves.
_SAID_BY_THEMSELVES: Final = frozenset(
    {"dents", "done", "fate", "pip", "out", "cut", "opened", "wet"}
)
#: mm between lines of text.
_LINE: Final = 4.7


def write_story(story: ClutchStory, reader: Reader, size: PagePaper = PagePaper.A4) -> bytes:
    """The story on as many pages as it takes; days and degrees as `reader` has them."""
    return _Story(story, reader, size).written()


class _Story:
    """A document as it grows, from page to page."""

    def __init__(self, story: ClutchStory, reader: Reader, size: PagePaper) -> None:
        self._story = story
        self._now: ClutchNow = story.page.now
        self._reader = reader
        self._page = PAGES[size]
        self._width = self._page[0] - 2 * _MARGIN
        self._letters = known_letters()
        self._pdf: FPDF = paper(self._page, f"the story of {self._now.clutch.code}")

    def written(self) -> bytes:
        self._new_page()
        self._head()
        self._warmth()
        self._eggs()
        self._acts()
        self._photos()
        return written(self._pdf)

    def _new_page(self) -> None:
        self._pdf.add_page()
        foot = f"{self._now.clutch.code}, page {self._pdf.page_no()}; as it was recorded in Sandboa"
        self._pdf.set_xy(_MARGIN, self._page[1] - 11)
        write(self._pdf, foot, _SMALL, self._width)
        self._pdf.set_xy(_MARGIN, _MARGIN)

    def _room(self, mm: float) -> None:
        """A new page where so much does not fit any more."""
        if self._pdf.get_y() + mm > self._page[1] - _MARGIN:
            self._new_page()

    def _said(self, words: Words) -> str:
        text = sentence(words, self._reader)
        return "".join(one if ord(one) in self._letters else "?" for one in text)

    def _line(self, words: Words, style: Style = _TEXT, indent: float = 0.0) -> None:
        text, width = self._said(words), self._width - indent
        font(self._pdf, style.size, bold=style.bold, shade=style.shade)
        lines = self._pdf.multi_cell(w=width, text=text, dry_run=True, output="LINES")
        self._room(len(cast(list[str], lines)) * style.size * 1.25)
        self._pdf.set_x(_MARGIN + indent)
        write(self._pdf, text, style, width)
        self._pdf.set_x(_MARGIN)

    def _heading(self, words: str, room: float = 14.0) -> None:
        self._pdf.set_y(self._pdf.get_y() + 6)
        self._room(room + 8)
        self._pdf.set_draw_color(INK)
        self._pdf.set_line_width(0.35)
        top = self._pdf.get_y()
        self._pdf.line(_MARGIN, top, _MARGIN + self._width, top)
        self._pdf.set_xy(_MARGIN, top + 2)
        self._line(words, _HEADING)
        self._pdf.set_y(self._pdf.get_y() + 1)

    def _head(self) -> None:
        now, zone = self._now, self._reader.zone
        self._pdf.set_xy(_MARGIN, _MARGIN)
        write(self._pdf, str(now.count), Style(9.0, align="R"), self._width)
        self._pdf.set_xy(_MARGIN, _MARGIN)
        self._line(now.clutch.code, _TITLE)
        self._line(f"{now.dam} × {now.sire}" if now.sire else now.dam, _HEADING)
        self._line(
            f"laid {full_day(now.clutch.laid_s, zone)}, told {full_day(self._story.told_s, zone)}"
        )
        self._pdf.set_y(self._pdf.get_y() + 3)
        for name, told in self._facts():
            self._room(_LINE)
            top = self._pdf.get_y()
            self._pdf.set_xy(_MARGIN, top)
            write(self._pdf, name, Style(3.6, shade=SOFT), 36)
            self._pdf.set_xy(_MARGIN, top)
            self._line(told, _BOLD, indent=36)

    def _facts(self) -> Iterator[tuple[str, Words]]:
        now = self._now
        box = now.box.box
        kept = ["kept by the dam"] if now.maternal else [box.medium, box.closing]
        yield "Kept", ", ".join(str(part) for part in kept if part)
        yield "Set to", Message("{set}", set=Temperature(now.set_point_c))
        span = lowest_and_highest(now.curve.temperature)
        if span is not None:
            read, share = TemperatureRange(*span), now.curve.temperature.measured_share
            told = (
                Message(
                    "{range} at the box; a probe measured {share} of the time",
                    range=read,
                    share=Share(share),
                )
                if share
                else Message("{range} at the box, read by hand", range=read)
            )
            yield "Measured", told
        hatched = sum(_hatched(own.egg) for own in self._story.eggs)
        if now.finished_s is not None or hatched:
            yield "Came of it", f"{hatched} of {now.count.fertile} fertile eggs hatched"
        window = now.forecast.typical_pip if now.forecast is not None else None
        if window is not None:
            likely = day(window.p50, self._reader.zone)
            span_of_days = days(window.p10, window.p90, self._reader.zone)
            yield "Pips", f"{span_of_days}, most likely {likely}"

    def _warmth(self) -> None:
        if lowest_and_highest(self._now.curve.temperature) is None:
            return
        self._heading("How warm it was", _CHART_MM)
        top = self._pdf.get_y()
        pips = [own.egg.pipped_s for own in self._story.eggs if own.egg.pipped_s is not None]
        frame = (_MARGIN, top, self._width, _CHART_MM)
        draw_warmth(self._pdf, self._now.curve.temperature, pips, frame, self._reader)
        self._pdf.set_xy(_MARGIN, top + _CHART_MM + 1)
        self._line(
            "Days since it was laid. Black was read, grey is estimated; triangles are pips.",
            _SMALL,
        )

    def _eggs(self) -> None:
        self._heading("Its eggs")
        for own in self._story.eggs:
            self._room(3 * _LINE)
            self._line(f"Egg {own.egg.number}: {_end_of(own.egg)}", _BOLD)
            for moment in self._moments(own):
                self._line(moment, indent=4)
            self._pdf.set_y(self._pdf.get_y() + 1.5)

    def _moments(self, own: EggStory) -> Iterator[str]:
        """A line for each day on which something was seen of an egg."""
        on_days: dict[str, list[str]] = {}
        for moment in own.moments:
            at = f"{day(moment.at_s, self._reader.zone)}, day {self._day(moment.at_s)}"
            alike = moment.kind in moment.text or moment.kind in _SAID_BY_THEMSELVES
            words = moment.text if alike else f"{moment.kind}: {moment.text}"
            on_days.setdefault(at, []).append(words)
        for at, words_of_day in on_days.items():
            yield f"{at} - {'; '.join(dict.fromkeys(words_of_day))}"

    def _day(self, at_s: float) -> int:
        return int((at_s - self._now.clutch.laid_s) // SECONDS_PER_DAY)

    def _acts(self) -> None:
        self._heading("What was done")
        for entry in self._story.acts:
            self._line(self._act(entry))

    def _act(self, entry: LogEntry) -> str:
        at_s = entry.happened_s
        by = f" ({entry.by})" if entry.by else ""
        words = sentence(entry.act.said, self._reader)
        return f"{day(at_s, self._reader.zone)}, day {self._day(at_s)} - {words}{by}"

    def _photos(self) -> None:
        photos = self._story.photos
        if not photos:
            return
        wide = (self._width - (_ACROSS - 1) * _GAP) / _ACROSS
        self._heading("Photos", wide)
        left_out = self._story.photos_in_all - len(photos)
        if left_out:
            self._line(f"The latest {len(photos)}; {left_out} earlier ones are left out.", _SMALL)
        for start in range(0, len(photos), _ACROSS):
            self._row_of_photos(photos[start : start + _ACROSS], wide)

    def _row_of_photos(self, photos: "tuple[Photo, ...]", wide: float) -> None:
        there = [(photo, path) for photo in photos if (path := _picture(photo)) is not None]
        if not there:
            return
        high = max(wide * one.height / one.width for one, _ in there)
        self._room(min(high, wide * 1.4) + 6)
        top = self._pdf.get_y() + 1
        for place, (photo, path) in enumerate(there):
            left = _MARGIN + place * (wide + _GAP)
            box = (wide, min(high, wide * 1.4))
            self._pdf.image(str(path), left, top, *box, keep_aspect_ratio=True)
            of = f"egg {photo.egg_number}, " if photo.egg_number is not None else ""
            self._pdf.set_xy(left, top + box[1] + 0.5)
            write(self._pdf, f"{of}{full_day(photo.taken_s, self._reader.zone)}", _SMALL, wide)
        self._pdf.set_xy(_MARGIN, top + min(high, wide * 1.4) + 5)


def _picture(photo: "Photo") -> Path | None:
    """The small one is sharp enough for a third of a page; None where it is gone or damaged."""
    from PIL import Image, UnidentifiedImageError

    path = picture_path(photo.file, small=True)
    try:
        with Image.open(path) as picture:
            picture.load()
    except (OSError, UnidentifiedImageError):
        return None
    return path


def _hatched(egg: EggView) -> bool:
    if egg.fate is not None:
        return egg.fate.has_hatched
    return egg.emerged_s is not None


def _end_of(egg: EggView) -> str:
    """What became of an egg, or where it stands."""
    if egg.slug:
        return "slug"
    if egg.fate is not None:
        return str(egg.fate)
    if egg.emerged_s is not None:
        return "out of its egg"
    if egg.pipped_s is not None:
        return "pipped"
    if egg.removed_s is not None:
        return "taken out"
    return str(egg.standing.standing) if egg.standing is not None else "not looked at yet"
