"""Old records: a list understood, checked and stored in one act; past clutches corrected."""

from collections.abc import Sequence
from typing import Annotated

from fastapi import APIRouter, Path, Query, Request
from starlette.concurrency import run_in_threadpool

from sandboa.core.errors import NotPlausible
from sandboa.formats.logger_files.times import DateOrder
from sandboa.formats.old_records import (
    Field,
    ReadLine,
    Texts,
    order_of,
    read_line,
    read_record_list,
)
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.old_records.checks import check_records
from sandboa.services.old_records.lines import ClutchLine, OldLine, RecordKind
from sandboa.services.old_records.past_clutches import (
    correct_past_clutch,
    form_of_past,
    past_clutch_form,
    past_clutches,
    remove_past_clutch,
)
from sandboa.services.old_records.store import store_records
from sandboa.web.house import NowS, TheHouse
from sandboa.web.old_records.schemas import (
    MOST_COLUMNS,
    CheckedLineResponse,
    NameResponse,
    PastClutchRequest,
    PastClutchResponse,
    RecordListResponse,
    RecordsCheckResponse,
    RecordsRequest,
)
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["old records"])

_FILE_BODY = {
    "requestBody": {
        "required": True,
        "content": {"text/csv": {"schema": {"type": "string", "format": "binary"}}},
    }
}
PastClutchId = Annotated[int, Path(ge=1, le=2**53)]


@router.post("/old-records/files/read", dependencies=[LOOK], openapi_extra=_FILE_BODY)
async def read_record_file(
    request: Request,
    kind: RecordKind | None = None,
    column: Annotated[list[Field] | None, Query(max_length=MOST_COLUMNS)] = None,
    sheet: Annotated[str, Query(max_length=200)] = "",
) -> RecordListResponse:
    """Say what is understood of a list in a file; nothing is stored.

    `column` is what each column holds, as the keeper chose; else their headings tell it.
    """
    data = await request.body()
    return RecordListResponse.of(
        await run_in_threadpool(read_record_list, data, kind, column, sheet)
    )


@router.post("/old-records/check", dependencies=[LOOK])
def check_lines(asked: RecordsRequest, now_s: NowS) -> RecordsCheckResponse:
    """Say what would become of each line; nothing is stored."""
    order, order_asked = _order(asked.order, asked.lines)
    if order_asked:
        return RecordsCheckResponse(order=None, order_asked=True, asked=False, lines=[], names=[])
    read = [read_line(asked.kind, texts, order) for texts in asked.lines]
    checked = check_records([own.line for own in read], asked.chosen(), now_s)
    lines = zip(read, checked.lines, strict=True)
    return RecordsCheckResponse(
        order=order,
        order_asked=False,
        asked=checked.asked,
        lines=[CheckedLineResponse.of(own, found) for own, found in lines],
        names=[NameResponse.of(name) for name in checked.names],
    )


@router.post("/old-records", dependencies=[RECORD], status_code=201)
def store_lines(asked: RecordsRequest, now_s: NowS) -> ActResponse:
    """Record every line that is new in one act, all of them or none."""
    order, order_asked = _order(asked.order, asked.lines)
    if order_asked:
        raise NotPlausible("order", "does the day or the month come first in these dates?")
    read = [read_line(asked.kind, texts, order) for texts in asked.lines]
    lines = [_line_of(place, own) for place, own in enumerate(read)]
    return ActResponse.of(store_records(lines, asked.chosen(), now_s, set(asked.doubles)))


@router.get("/past-clutches", dependencies=[LOOK])
def get_past_clutches(house: TheHouse) -> list[PastClutchResponse]:
    """The clutches of before Sandboa, the latest first."""
    told = ((past, form_of_past(past.line)) for past in past_clutches(house.snapshot()))
    return [PastClutchResponse.of(past, form, revision_of(form)) for past, form in told]


@router.put("/past-clutches/{past}", dependencies=[RECORD])
def correct_past(
    past: PastClutchId, asked: PastClutchRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Correct a past clutch; what was recorded before stays in the log."""
    texts = asked.texts()
    order, order_asked = _order(None, [texts])
    if order_asked:
        raise NotPlausible("laid", "write the month of each day as a word, or 2019-06-12")
    read = read_line(RecordKind.CLUTCHES, texts, order)
    if not isinstance(read.line, ClutchLine):
        raise NotPlausible(*read.problems[0])
    with saved_over(seen, lambda: past_clutch_form(past)):
        return ActResponse.of(correct_past_clutch(past, read.line, now_s))


@router.delete("/past-clutches/{past}", dependencies=[RECORD])
def remove_past(past: PastClutchId, now_s: NowS) -> ActResponse:
    """Take a past clutch away; that can be undone."""
    return ActResponse.of(remove_past_clutch(past, now_s))


def _order(chosen: DateOrder | None, lines: Sequence[Texts]) -> tuple[DateOrder | None, bool]:
    """Which of day and month comes first, and whether that has to be asked."""
    if chosen is not None:
        return chosen, False
    order, needed = order_of(lines)
    return order, needed and order is None


def _line_of(place: int, read: ReadLine) -> OldLine:
    if read.line is None:
        field, reason = read.problems[0]
        raise NotPlausible(f"lines.{place}.{field}", reason)
    return read.line
