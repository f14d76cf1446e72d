"""Readings: probes, by hand, from a logger's file, and live from a logger."""

from datetime import datetime
from typing import Annotated, Literal, NotRequired

from fastapi import APIRouter, Query, Request
from pydantic import BaseModel, ConfigDict, Field
from starlette.concurrency import run_in_threadpool
from typing_extensions import TypedDict

from sandboa.core.errors import NotPlausible
from sandboa.formats.readings_csv import Choices, Columns, ReadingsFile, read_readings
from sandboa.journal import probes, readings
from sandboa.journal.house_now import Facts
from sandboa.records.clutches import Box
from sandboa.records.house import Probe
from sandboa.records.readings import ReadingRow
from sandboa.web.house import NowS, TheHouse
from sandboa.web.json_body import RawBody, described, validated
from sandboa.web.shapes import ActTold, Asked, AskedMoment, Humidity, Id, Moment, Temperature
from sandboa.web.zones import known_zone

router = APIRouter(prefix="/api", tags=["readings"])

#: Bad rows told in full; the rest is counted.
_TOLD_BAD_ROWS = 200


class PlaceAsked(Asked):
    """A clutch's box, else a shelf of a cabinet, else a cabinet."""

    clutch: Annotated[str, Field(max_length=20)] | None = None
    cabinet: Annotated[str, Field(max_length=200)] | None = None
    shelf: Annotated[str, Field(max_length=200)] | None = None

    def place(self) -> probes.ProbePlace:
        return probes.ProbePlace(self.clutch, self.cabinet, self.shelf)


class ProbeAsked(Asked):
    name: Annotated[str, Field(max_length=20_000)]
    place: PlaceAsked
    since: AskedMoment
    checked: bool = False


class HungProbeTold(BaseModel):
    id: int
    name: str
    place: str
    kind: Literal["box", "shelf", "cabinet"]
    since: Moment
    checked: bool
    by_hand: bool
    act: ActTold | None = None


class ByHandAsked(Asked):
    place: PlaceAsked
    temperature_c: Temperature
    humidity: Humidity | None = None
    at: AskedMoment | None = None


class ReadingAsked(TypedDict):
    """One reading of a batch; `at` is RFC 3339 with its offset.

    A plain dictionary with a plain string: a season is 100,000 of these, and
    an object and a zone for each would cost more than storing them.
    """

    __pydantic_config__ = ConfigDict(extra="forbid", allow_inf_nan=False)  # type: ignore[misc]

    at: Annotated[str, Field(max_length=40, json_schema_extra={"format": "date-time"})]
    temperature_c: Temperature
    humidity: NotRequired[Humidity | None]


class BatchAsked(Asked):
    """Readings of one probe, in any order."""

    probe: Id
    readings: Annotated[list[ReadingAsked], Field(max_length=100_000)]

    def rows(self) -> list[ReadingRow]:
        """As the journal takes them; NotPlausible names the first time that is none."""
        read = datetime.fromisoformat
        try:
            moments = [read(reading["at"]) for reading in self.readings]
        except ValueError:
            moments = []
        if len(moments) < len(self.readings) or None in {m.tzinfo for m in moments}:
            raise self._first_bad_time()
        return [
            (int(moment.timestamp()), reading["temperature_c"], reading.get("humidity"))
            for moment, reading in zip(moments, self.readings, strict=True)
        ]

    def _first_bad_time(self) -> NotPlausible:
        for number, reading in enumerate(self.readings):
            field = f"readings.{number}.at"
            try:
                if datetime.fromisoformat(reading["at"]).tzinfo is None:
                    return NotPlausible(field, f"{field} needs its offset from UTC")
            except ValueError:
                return NotPlausible(field, f'{field} "{reading["at"]}" is not a date and time')
        raise AssertionError("every time is one")


class ConflictTold(BaseModel):
    at: Moment
    temperature_c: float


class IntakeTold(BaseModel):
    """What became of the readings. `act` is null when nothing changed."""

    new: int
    known: int
    conflicting: int
    conflicts: list[ConflictTold]
    before_probe: int
    in_future: int
    act: ActTold | None


class BadRowTold(BaseModel):
    line: int
    reason: str


class QuestionTold(BaseModel):
    about: Literal["zone", "order", "unit", "columns"]
    text: str


class RowTold(BaseModel):
    at: Moment
    temperature_c: float
    humidity: float | None


class FileTold(BaseModel):
    """A file as understood, before anything is stored."""

    heading: list[str]
    time_column: int | None
    clock_column: int | None
    temperature_column: int | None
    humidity_column: int | None
    delimiter: str
    unit: Literal["c", "f"]
    humidity_unit: Literal["percent", "fraction"] | None
    order: Literal["dmy", "mdy"] | None
    times_have_offset: bool
    rows: int
    first: RowTold | None
    last: RowTold | None
    sample: list[RowTold]
    lowest_c: float | None
    highest_c: float | None
    bad_row_count: int
    bad_rows: list[BadRowTold]
    questions: list[QuestionTold]


class StoredFileTold(BaseModel):
    file: FileTold
    intake: IntakeTold


class FileChoices(BaseModel):
    """What the keeper decided about a file; what is left out the file must tell."""

    zone: Annotated[str, Field(max_length=60)] | None = None
    order: Literal["dmy", "mdy"] | None = None
    unit: Literal["c", "f"] | None = None
    time_column: Annotated[int, Field(ge=0, le=200)] | None = None
    temperature_column: Annotated[int, Field(ge=0, le=200)] | None = None
    humidity_column: Annotated[int, Field(ge=0, le=200)] | None = None

    def choices(self) -> Choices:
        columns = None
        if self.time_column is not None and self.temperature_column is not None:
            columns = Columns(self.time_column, self.temperature_column, self.humidity_column)
        zone = known_zone(self.zone) if self.zone else None
        return Choices(zone=zone, order=self.order, unit=self.unit, columns=columns)


@router.get("/probes")
def get_probes(house: TheHouse) -> list[HungProbeTold]:
    """Every probe and where it hangs."""
    facts = house.now.facts()
    return [_probe(facts, p) for p in sorted(facts.probes.values(), key=lambda p: p.name)]


@router.post("/probes", status_code=201)
def hang_probe(asked: ProbeAsked, house: TheHouse, now_s: NowS) -> HungProbeTold:
    """Record a logger's probe at its place."""
    probe, act = probes.hang_probe(
        asked.name, asked.place.place(), asked.since.timestamp(), now_s, checked=asked.checked
    )
    told = _probe(house.now.facts(), probe)
    return told.model_copy(update={"act": ActTold.of(act)})


@router.post("/readings/by-hand", status_code=201)
def read_by_hand(asked: ByHandAsked, now_s: NowS) -> ActTold:
    """Record one reading of a thermometer."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActTold.of(
        readings.read_by_hand(asked.place.place(), at_s, asked.temperature_c, asked.humidity, now_s)
    )


@router.post("/readings", status_code=201, openapi_extra=described(BatchAsked))
def post_readings(body: RawBody, now_s: NowS) -> IntakeTold:
    """Take in a batch from a logger; the same batch again changes nothing."""
    asked = validated(BatchAsked, body)
    return _intake(readings.store_readings(asked.probe, asked.rows(), "logger", "", now_s))


_FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"text/csv": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post("/readings/files/preview", openapi_extra=_FILE_BODY)
async def preview_file(request: Request, choices: Annotated[FileChoices, Query()]) -> FileTold:
    """Say what is understood of a logger's file; nothing is stored."""
    data = await request.body()
    return _file(await run_in_threadpool(read_readings, data, choices.choices()))


@router.post("/readings/files", status_code=201, openapi_extra=_FILE_BODY)
async def store_file(
    request: Request,
    choices: Annotated[FileChoices, Query()],
    probe: Annotated[Id, Query()],
    now_s: NowS,
    file_name: Annotated[str, Query(max_length=300)] = "",
) -> StoredFileTold:
    """Store a logger's file as readings of a probe, all that can be read, or nothing at all."""
    data = await request.body()

    def store() -> StoredFileTold:
        file = read_readings(data, choices.choices())
        file.require_no_questions()
        shown_name = file_name.rsplit("/", 1)[-1].rsplit("\\", 1)[-1][:120]
        intake = readings.store_readings(probe, file.rows, "csv", shown_name, now_s)
        return StoredFileTold(file=_file(file), intake=_intake(intake))

    return await run_in_threadpool(store)


def _file(file: ReadingsFile) -> FileTold:
    columns = file.columns
    temperatures = [row[1] for row in file.rows]
    told = [RowTold(at=a, temperature_c=t, humidity=h) for a, t, h in file.rows[:5]]  # type: ignore[arg-type]
    last = file.rows[-1] if file.rows else None
    return FileTold(
        heading=list(file.heading),
        time_column=columns.time if columns else None,
        clock_column=columns.clock if columns else None,
        temperature_column=columns.temperature if columns else None,
        humidity_column=columns.humidity if columns else None,
        delimiter=file.delimiter,
        unit=file.unit,
        humidity_unit=file.humidity_unit,
        order=file.order,
        times_have_offset=file.times_have_offset,
        rows=len(file.rows),
        first=told[0] if told else None,
        last=RowTold(at=last[0], temperature_c=last[1], humidity=last[2]) if last else None,  # type: ignore[arg-type]
        sample=told,
        lowest_c=min(temperatures, default=None),
        highest_c=max(temperatures, default=None),
        bad_row_count=len(file.bad_rows),
        bad_rows=[BadRowTold(line=b.line, reason=b.reason) for b in file.bad_rows[:_TOLD_BAD_ROWS]],
        questions=[QuestionTold(about=q.about, text=q.text) for q in file.questions],  # type: ignore[arg-type]
    )


def _intake(intake: readings.Intake) -> IntakeTold:
    return IntakeTold(
        new=intake.new,
        known=intake.known,
        conflicting=len(intake.conflicting),
        conflicts=[
            ConflictTold(at=row[0], temperature_c=row[1])  # type: ignore[arg-type]
            for row in intake.conflicting[:20]
        ],
        before_probe=intake.before_probe,
        in_future=intake.in_future,
        act=ActTold.of(intake.act) if intake.act else None,
    )


def _probe(facts: Facts, probe: Probe) -> HungProbeTold:
    place, kind = _place_words(facts, probe.place)
    return HungProbeTold(
        id=probe.entity,
        name=probe.name,
        place=place,
        kind=kind,
        since=probe.since_s,  # type: ignore[arg-type]
        checked=bool(probe.checked),
        by_hand=bool(probe.by_hand),
    )


def _place_words(facts: Facts, place: int) -> tuple[str, Literal["box", "shelf", "cabinet"]]:
    if place in facts.cabinets:
        return facts.cabinets[place].name, "cabinet"
    if place in facts.shelves:
        shelf = facts.shelves[place]
        return f"{facts.cabinets[shelf.cabinet].name}, {shelf.name}", "shelf"
    box = Box.now(place)
    clutch = next((c for c in facts.clutches if box and c.entity == box.clutch), None)
    return f"box {clutch.code}" if clutch else "a box no longer there", "box"
