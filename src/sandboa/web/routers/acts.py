"""What was recorded last, and undo."""

from fastapi import APIRouter

from sandboa.journal import acts
from sandboa.web.house import NowS
from sandboa.web.shapes import ActTold, Id, LogTold

router = APIRouter(prefix="/api/acts", tags=["acts"])


@router.get("")
def get_log() -> list[LogTold]:
    """What was recorded last in the whole house, newest first."""
    return [LogTold.of(entry) for entry in acts.house_log()]


@router.post("/{act_id}/undo")
def undo_act(act_id: Id, now_s: NowS) -> ActTold:
    """Take an act back; undoing the undo does it again."""
    return ActTold.of(acts.undo(act_id, now_s))
