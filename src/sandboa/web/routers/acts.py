"""What was recorded last, and undo."""

from fastapi import APIRouter

from sandboa.core.people import Deed, may, refusal
from sandboa.services.acts import recording as acts
from sandboa.services.people.commands import KIND
from sandboa.web.house import Asking, NowS
from sandboa.web.problems import NotForYou
from sandboa.web.shapes import ActTold, Id, LogTold

router = APIRouter(prefix="/api/acts", tags=["acts"])

#: Kinds of acts that changed how the house is run: whoever may not do them takes none back.
_RUNNING = frozenset({KIND, "setting", "method", "device", "messenger"})


@router.get("")
def get_log() -> list[LogTold]:
    """What was recorded last in the whole house, newest first."""
    return [LogTold.of(entry) for entry in acts.house_log()]


@router.post("/{act_id}/undo")
def undo_act(act_id: Id, person: Asking, now_s: NowS) -> ActTold:
    """Take an act back; undoing the undo does it again."""
    if person and not may(person.role, Deed.RUN) and acts.kind_taken_back(act_id) in _RUNNING:
        raise NotForYou(refusal(Deed.RUN))
    return ActTold.of(acts.undo(act_id, now_s))
