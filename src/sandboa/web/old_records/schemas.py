"""Requests and responses of this place."""

from typing import Annotated, Any, Final, Literal, Self

from pydantic import BaseModel, Field

from sandboa.core.animals import DAM, SIRE
from sandboa.formats.logger_files.times import DateOrder
from sandboa.formats.old_records import Field as Cells
from sandboa.formats.old_records import ReadLine, RecordList, Texts, texts_of
from sandboa.formats.old_records.read import MOST_LINES
from sandboa.services.old_records.checks import Checked, State
from sandboa.services.old_records.lines import RecordKind
from sandboa.services.old_records.names import Key, NameChoice, NameMatch, key_of
from sandboa.services.old_records.past_clutches import PastClutchEntry
from sandboa.web.requests.reader import Sentence
from sandboa.web.schemas.common import Id, RequestSchema

#: Columns of a list that are told and can be chosen, and characters of a cell.
MOST_COLUMNS: Final = 60
_LONGEST_CELL: Final = 400

RoleName = Literal["dam", "sire"]
_Cell = Annotated[str, Field(max_length=_LONGEST_CELL)]


class RecordColumnResponse(BaseModel):
    """A column of a list: its heading, some of its cells, and what it is taken for."""

    heading: str
    examples: list[str]
    holds: Cells


class RecordLineResponse(BaseModel):
    """A line of a list by its sheet and its number, its cells by what they tell."""

    sheet: str
    line: int
    cells: dict[Cells, str]


class RecordListResponse(BaseModel):
    """A list as it is understood; `complete` is false while a column that is needed is missing.

    `sheets` are groups with the same columns, `sheet` the first of the group that was read.
    """

    kind: RecordKind
    complete: bool
    columns: list[RecordColumnResponse]
    lines: list[RecordLineResponse]
    sheets: list[list[str]]
    sheet: str

    @classmethod
    def of(cls, told: RecordList) -> Self:
        """As it is told."""
        columns = zip(told.headings, told.examples, told.fields, strict=True)
        return cls(
            kind=told.kind,
            complete=told.complete,
            columns=[
                RecordColumnResponse(heading=heading[:200], examples=_short(cells), holds=holds)
                for heading, cells, holds in columns
            ],
            lines=[
                RecordLineResponse(sheet=sheet, line=at, cells=dict(cells))
                for sheet, at, cells in told.lines
            ],
            sheets=[list(names) for names in told.sheets],
            sheet=told.sheet,
        )


def _short(cells: tuple[str, ...]) -> list[str]:
    return [cell[:60] for cell in cells]


class NameAnswer(RequestSchema):
    """Who a name on the list is: an animal by its id, or a new one of `new_role`."""

    name: Annotated[str, Field(max_length=_LONGEST_CELL)]
    role: RoleName | None = None
    animal: Id | None = None
    new_role: RoleName | None = None


class RecordsRequest(RequestSchema):
    """Lines of a list by their cells, and the answers to what was asked about them.

    `doubles` are places (from 0) of lines that are recorded although they seem to be already.
    """

    kind: RecordKind
    lines: Annotated[list[dict[Cells, _Cell]], Field(min_length=1, max_length=MOST_LINES)]
    order: DateOrder | None = None
    names: Annotated[list[NameAnswer], Field(max_length=MOST_LINES, default_factory=list)]
    doubles: Annotated[list[int], Field(max_length=MOST_LINES, default_factory=list)]

    def chosen(self) -> dict[Key, NameChoice]:
        """The answers by name and role."""
        return {
            key_of(own.name, own.role): NameChoice(own.animal, own.new_role) for own in self.names
        }


class LineProblemResponse(BaseModel):
    """A cell that cannot be read or cannot be true, and why."""

    holds: str
    reason: Sentence


class CheckedLineResponse(BaseModel):
    """What becomes of a line: `cells` is how it was understood, empty where it could not be."""

    state: State
    words: Sentence
    problems: list[LineProblemResponse]
    cells: dict[Cells, str]

    @classmethod
    def of(cls, read: ReadLine, checked: Checked | None) -> Self:
        """Of a line as it was read, and what was found when it was checked."""
        problems = checked.problems if checked else read.problems
        cells: Texts = texts_of(read.line) if read.line else {}
        return cls(
            state=checked.state if checked else State.REFUSED,
            words=checked.words if checked else "",
            problems=[LineProblemResponse(holds=of, reason=why) for of, why in problems],
            cells=dict(cells),
        )


class NearAnimalResponse(BaseModel):
    id: int
    name: str


class NameResponse(BaseModel):
    """Who a name is: `animal` by id, or a new one of `new_role`; neither while it is asked, `why`
    saying what about. `near` are animals it may be, `may_be_new` is whether it can be a new one."""

    name: str
    role: RoleName | None
    animal: int | None
    new_role: RoleName | None
    near: list[NearAnimalResponse]
    why: str
    may_be_new: bool

    @classmethod
    def of(cls, told: NameMatch) -> Self:
        """As it is told."""
        near = [NearAnimalResponse(id=animal, name=name) for animal, name in told.near]
        return cls(
            name=told.name,
            role=_role(told.role),
            animal=told.animal,
            new_role=_role(told.new_role),
            near=near,
            why=told.why,
            may_be_new=told.may_be_new,
        )


def _role(role: str | None) -> Any:
    return role if role in (DAM, SIRE) else None


class RecordsCheckResponse(BaseModel):
    """`order_asked` is true while nothing proves whether day or month comes first: then no line is
    read. `asked` while a name has to be told."""

    order: DateOrder | None
    order_asked: bool
    asked: bool
    lines: list[CheckedLineResponse]
    names: list[NameResponse]


class PastClutchRequest(RequestSchema):
    """A past clutch; days and the count as texts: 2019-06-12, 7-2."""

    dam: Annotated[str, Field(min_length=1, max_length=200)]
    sire: Annotated[str, Field(max_length=200)] | None = None
    laid: Annotated[str, Field(max_length=40)]
    count: Annotated[str, Field(max_length=20)]
    hatched: Annotated[int, Field(ge=0, le=1000)] | None = None
    first_pip: Annotated[str, Field(max_length=40)] | None = None
    kept_c: Annotated[float, Field(ge=0, le=60)] | None = None
    code: Annotated[str, Field(max_length=60)] | None = None

    def texts(self) -> Texts:
        """The cells of such a line."""
        told = {
            Cells.DAM: self.dam,
            Cells.SIRE: self.sire,
            Cells.LAID: self.laid,
            Cells.COUNT: self.count,
            Cells.HATCHED: None if self.hatched is None else str(self.hatched),
            Cells.FIRST_PIP: self.first_pip,
            Cells.KEPT: None if self.kept_c is None else f"{self.kept_c:.10g} C",
            Cells.CODE: self.code,
        }
        return {of: text for of, text in told.items() if text}


class PastClutchResponse(BaseModel):
    """A past clutch as its form has it; `revision` is what a correction of it was made of."""

    id: int
    dam: str
    sire: str | None
    laid: str
    count: str
    hatched: int | None
    first_pip: str | None
    days_to_pip: int | None
    kept_c: float | None
    code: str | None
    revision: str

    @classmethod
    def of(cls, told: PastClutchEntry, form: dict[str, Any], revision: str) -> Self:
        """Of a past clutch and its form."""
        days = told.line.told.days_to_pip
        return cls(id=told.id, days_to_pip=days, revision=revision, **form)
