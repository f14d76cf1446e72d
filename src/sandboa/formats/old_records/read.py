"""A list of old records from a file: which table, which columns, which cells of each line."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Final, TypeVar

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Words
from sandboa.core.past_clutches.card import ClutchCard
from sandboa.formats.logger_files.errors import NotReadable
from sandboa.formats.logger_files.headings import plain
from sandboa.formats.logger_files.table import Table, tables_of
from sandboa.formats.logger_files.times import DateOrder, date_order
from sandboa.formats.old_records.cells import (
    read_count,
    read_counted,
    read_day,
    read_kept,
    read_mass,
    read_role,
    read_year,
    tidy,
    whole,
)
from sandboa.formats.old_records.headings import Field, fields_of, has_all, likely_kind
from sandboa.services.old_records.lines import (
    AnimalLine,
    ClutchLine,
    OldLine,
    PairingLine,
    RecordKind,
    WeightLine,
)

#: Lines of one list (assumption: ten seasons of a house with a hundred clutches, twice).
MOST_LINES: Final = 2_000
#: Bytes of a list, as a file or as its lines (assumption: 2,000 lines with notes are some 500 kB).
LARGEST_LIST_BYTES: Final = 4 * 1024 * 1024
#: Rows from the top among which a heading is looked for.
_HEADING_WITHIN: Final = 30
_EXAMPLES: Final = 3
_DAYS: Final = (Field.LAID, Field.FIRST_PIP, Field.DAY, Field.START, Field.END, Field.HATCH_YEAR)

T = TypeVar("T")

#: The cells of a line, by field; what is not said is not there.
Texts = Mapping[Field, str]


@dataclass(frozen=True, slots=True)
class RecordList:
    """A list as it is understood: `headings` with `fields` and some `examples` of each column, and
    the lines of it with the sheet and the number each has there. `complete` is False while a column
    that is needed is missing.

    Sheets with the same headings are read as one: `sheets` are the groups of them that could be
    read, `sheet` the first of the group that is.
    """

    kind: RecordKind
    headings: tuple[str, ...]
    fields: tuple[Field, ...]
    examples: tuple[tuple[str, ...], ...]
    lines: tuple[tuple[str, int, Texts], ...] = field(repr=False)
    complete: bool
    sheets: tuple[tuple[str, ...], ...]
    sheet: str


@dataclass(frozen=True, slots=True)
class ReadLine:
    """A line as read, or what of it could not be: sentences by field."""

    line: OldLine | None
    problems: tuple[tuple[str, Words], ...] = ()


def read_record_list(
    data: bytes,
    kind: RecordKind | None = None,
    fields: Sequence[Field] | None = None,
    sheet: str = "",
) -> RecordList:
    """Understand a file of text or a spreadsheet; `kind`, `fields` and `sheet` are the keeper's
    choice, else they are told by the headings.

    Raises NotReadable for no table, one without headings, or of more lines than 2,000.
    """
    alike: dict[tuple[str, ...], list[tuple[Table, int]]] = {}
    for table in tables_of(data):
        if (at := _heading(table)) is not None:
            alike.setdefault(_cells(table, at), []).append((table, at))
    if not alike:
        raise NotReadable(
            "no headings were found: the first line names what each column holds, like "
            '"dam, sire, laid, count"'
        )
    chosen = (own for own, tables in alike.items() if sheet in (one.sheet for one, _ in tables))
    headings = next(chosen, next(iter(alike)))
    body = [
        (table.sheet, number, row)
        for table, at in alike[headings]
        for number, row in table.rows[at + 1 :]
    ]
    if len(body) > MOST_LINES:
        raise NotReadable(f"the list has {len(body):,} lines: {MOST_LINES:,} are taken at once")
    kind = kind or likely_kind(headings) or RecordKind.CLUTCHES
    known = fields_of(headings, kind)
    if fields is not None and len(fields) == len(headings):
        known = tuple(fields)
    rows = [row for _, _, row in body]
    return RecordList(
        kind,
        headings,
        known,
        tuple(_examples(rows, place) for place in range(len(headings))),
        tuple((own, number, _texts(headings, known, row)) for own, number, row in body),
        has_all(known, kind),
        tuple(tuple(one.sheet for one, _ in tables) for tables in alike.values()),
        alike[headings][0][0].sheet,
    )


def order_of(lines: Iterable[Texts]) -> tuple[DateOrder | None, bool]:
    """Which of day and month comes first in the days of all lines, and whether it matters; the
    order is None where nothing proves it."""
    return date_order(text for texts in lines for of, text in texts.items() if of in _DAYS and text)


def read_line(kind: RecordKind, texts: Texts, order: DateOrder | None) -> ReadLine:
    """The line those cells tell; every cell that cannot be read is told of."""
    return _Cells(texts, order).read(kind)


class _Cells:
    """Reads the cells of one line and gathers what cannot be read."""

    def __init__(self, texts: Texts, order: DateOrder | None) -> None:
        self._texts = {of: tidy(text) for of, text in texts.items()}
        self._order = order
        self._problems: list[tuple[str, Words]] = []

    def read(self, kind: RecordKind) -> ReadLine:
        read = {
            RecordKind.CLUTCHES: self._clutch,
            RecordKind.ANIMALS: self._animal,
            RecordKind.WEIGHTS: self._weight,
            RecordKind.PAIRINGS: self._pairing,
        }[kind]
        line = read()
        return ReadLine(None if self._problems else line, tuple(self._problems))

    def _clutch(self) -> OldLine | None:
        dam = self._needed(Field.DAM, "which dam laid it?", str)
        laid = self._needed(Field.LAID, "when was it laid?", self._day(Field.LAID))
        count = self._count()
        hatched = self._cell(Field.HATCHED, lambda text: whole("hatched", text))
        pip = self._cell(Field.FIRST_PIP, self._day(Field.FIRST_PIP))
        kept = self._cell(Field.KEPT, read_kept)
        if dam is None or laid is None or count is None:
            return None
        told = ClutchCard(laid, count, hatched, pip, kept)
        return ClutchLine(dam, self._text(Field.SIRE), told, self._text(Field.CODE))

    def _animal(self) -> OldLine | None:
        name = self._needed(Field.NAME, "what is it called?", str)
        role = self._needed(Field.ROLE, "is it a dam or a sire?", read_role)
        year = self._cell(Field.HATCH_YEAR, lambda text: read_year(text, self._order))
        if name is None or role is None:
            return None
        return AnimalLine(
            name,
            role,
            self._text(Field.CODE),
            year,
            self._text(Field.TRAITS) or "",
            self._text(Field.DAM),
            self._text(Field.SIRE),
        )

    def _weight(self) -> OldLine | None:
        animal = self._needed(Field.ANIMAL, "of which animal?", str)
        day = self._needed(Field.DAY, "on which day?", self._day(Field.DAY))
        mass = self._needed(Field.MASS, "how heavy was it?", lambda text: read_mass(text, "g"))
        if animal is None or day is None or mass is None:
            return None
        return WeightLine(animal, day, mass)

    def _pairing(self) -> OldLine | None:
        dam = self._needed(Field.DAM, "which dam?", str)
        sire = self._needed(Field.SIRE, "which sire?", str)
        start = self._needed(Field.START, "from when?", self._day(Field.START))
        end = self._cell(Field.END, self._day(Field.END))
        if dam is None or sire is None or start is None:
            return None
        return PairingLine(dam, sire, start, end)

    def _count(self) -> ClutchCount | None:
        if self._texts.get(Field.COUNT):
            return self._cell(Field.COUNT, read_count)
        slugs = self._texts.get(Field.SLUGS, "")
        if not self._texts.get(Field.EGGS):
            self._problems.append(("count", "how many eggs? Write it like 7-2"))
            return None
        return self._cell(Field.EGGS, lambda text: read_counted(text, slugs))

    def _text(self, of: Field) -> str | None:
        return self._texts.get(of) or None

    def _day(self, of: Field) -> Callable[[str], date]:
        return lambda text: read_day(of.value, text, self._order)

    def _needed(self, of: Field, asked: str, read: Callable[[str], T]) -> T | None:
        if not self._texts.get(of):
            self._problems.append((of.value, asked))
            return None
        return self._cell(of, read)

    def _cell(self, of: Field, read: Callable[[str], T]) -> T | None:
        text = self._texts.get(of)
        if not text:
            return None
        try:
            return read(text)
        except NotPlausible as error:
            self._problems.append((error.field, error.reason))
            return None


def _heading(table: Table) -> int | None:
    """The row that names most columns of some kind of list, and all that kind needs."""
    for at, (_, row) in enumerate(table.rows[:_HEADING_WITHIN]):
        if likely_kind(row) is not None:
            return at
    # A heading nobody here can read is a heading all the same, where it holds no number.
    for at, (_, row) in enumerate(table.rows[:_HEADING_WITHIN]):
        words = [cell for cell in row if cell.strip()]
        if len(words) > 1 and not any(any(c.isdigit() for c in cell) for cell in words):
            return at
    return None


def _cells(table: Table, at: int) -> tuple[str, ...]:
    return tuple(" ".join(cell.split()) for cell in table.rows[at][1])


def _examples(rows: Sequence[list[str]], place: int) -> tuple[str, ...]:
    held = (row[place].strip() for row in rows if place < len(row))
    return tuple(dict.fromkeys(text for text in held if text))[:_EXAMPLES]


def _texts(headings: Sequence[str], fields: Sequence[Field], row: Sequence[str]) -> Texts:
    told: dict[Field, str] = {}
    for heading, of, cell in zip(headings, fields, row, strict=False):
        text = tidy(cell)
        if of is not Field.UNUSED and text:
            told[of] = _with_unit(heading, of, text)
    return told


def _with_unit(heading: str, of: Field, text: str) -> str:
    """A bare number in the unit its heading names, where that is not the usual one."""
    if of is not Field.MASS or not text.replace(".", "").replace(",", "").isdigit():
        return text
    words = plain(heading).replace("(", " ").replace(")", " ").split()
    return next((f"{text} {unit}" for unit in ("kg", "oz") if unit in words), text)
