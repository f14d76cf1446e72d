"""What was recorded last, and undo."""

from fastapi import APIRouter

from sandboa.core.act_kinds import Touch
from sandboa.core.people import Deed, may, refusal
from sandboa.services.acts import recording as acts
from sandboa.services.acts.log import house_log
from sandboa.web.house import Asking, NowS
from sandboa.web.problems.handlers import NotForYou
from sandboa.web.schemas.common import ActResponse, Id, LogResponse
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/acts", tags=["acts"])


@router.get("", dependencies=[LOOK])
def get_log() -> list[LogResponse]:
    """What was recorded last in the whole house, newest first."""
    return [LogResponse.of(entry) for entry in house_log()]


@router.post("/{act_id}/undo", dependencies=[RECORD])
def undo_act(act_id: Id, person: Asking, now_s: NowS) -> ActResponse:
    """Take an act back; undoing the undo does it again."""
    running = Touch.RUNNING in acts.touched_by_undoing(act_id)
    if person and running and not may(person.role, Deed.RUN):
        raise NotForYou(refusal(Deed.RUN))
    return ActResponse.of(acts.undo(act_id, now_s))
