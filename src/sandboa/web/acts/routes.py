"""What was recorded last, and undo."""

from typing import Annotated, Final

from fastapi import APIRouter, Query

from sandboa.core.act_kinds import Touch
from sandboa.core.people import Deed, may, refusal
from sandboa.services.acts import recording as acts
from sandboa.services.acts.dependents import dependents
from sandboa.services.acts.log import LINES, house_log, log_about
from sandboa.services.acts.revisions import saved_over
from sandboa.services.corrections.commands import correct_record, recorded_fields
from sandboa.web.acts.schemas import RecordRequest, RecordResponse, form
from sandboa.web.house import Asking, NowS, TheHouse
from sandboa.web.problems.handlers import NotForYou
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, DependentsResponse, Id, LogResponse
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/acts", tags=["acts"])


#: Lines of a log asked for at once, at most (assumption).
_MOST_LINES: Final = 200


@router.get("", dependencies=[LOOK])
def get_log(
    about: Annotated[Id | None, Query()] = None,
    before: Annotated[Id | None, Query()] = None,
    limit: Annotated[int, Query(ge=1, le=_MOST_LINES)] = LINES,
) -> list[LogResponse]:
    """What was recorded, newest first: in the whole house, or `about` an animal, box, cabinet,
    clutch, egg, hatchling, pairing or probe. `before` is the act after which to go on."""
    found = house_log(limit, before) if about is None else log_about(about, limit, before)
    return [LogResponse.of(entry) for entry in found]


@router.get("/{act_id}/dependents", dependencies=[LOOK])
def get_dependents(act_id: Id) -> DependentsResponse:
    """What was recorded later and rests on an act; for whoever is about to undo or correct it."""
    return DependentsResponse(sentences=list(dependents(act_id)))


@router.get("/{act_id}/record", dependencies=[LOOK])
def get_record(act_id: Id) -> RecordResponse:
    """What an act recorded, field by field; for acts whose line in the log is correctable."""
    return RecordResponse.of(recorded_fields(act_id))


@router.put("/{act_id}/record", dependencies=[RECORD])
def correct(act_id: Id, asked: RecordRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct what an act recorded; the earlier entry stays in the log."""
    values = {field.name: field.value() for field in asked.fields}
    with saved_over(seen, lambda: form(recorded_fields(act_id))):
        return ActResponse.of(correct_record(act_id, values, now_s))


@router.post("/{act_id}/undo", dependencies=[RECORD])
def undo_act(act_id: Id, person: Asking, house: TheHouse, now_s: NowS) -> ActResponse:
    """Take an act back; undoing the undo does it again."""
    running = Touch.RUNNING in acts.touched_by_undoing(act_id)
    if person and running and not may(person.role, Deed.RUN):
        raise NotForYou(refusal(Deed.RUN))
    undone = acts.undo(act_id, now_s)
    house.follow_named()
    return ActResponse.of(undone)
