"""The house kept safe: backups, the way back to a copy, who came in; for keepers."""

from typing import Annotated

from fastapi import APIRouter, Query

from sandboa.core.retention import KEPT_DAYS, KEPT_MONTHS, KEPT_WEEKS
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.forms.numbers import backup_folder_form
from sandboa.services.people.commands import names_of_people
from sandboa.services.safekeeping import security_log
from sandboa.services.safekeeping.accepting import accept_as_it_is
from sandboa.services.safekeeping.backups import (
    BackupTried,
    back_up_now,
    backup_folder,
    backup_state,
    set_backup_folder,
)
from sandboa.services.safekeeping.daily import problems_behind
from sandboa.services.safekeeping.log_file import last_lines
from sandboa.services.safekeeping.restores import find_copy, restorable
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.safekeeping.schemas import (
    AcceptedResponse,
    BackupFolderRequest,
    BackupResponse,
    BackupsResponse,
    CopyResponse,
    ProgramLogResponse,
    RestoreRequest,
    RestoreResponse,
    SecurityEventResponse,
)
from sandboa.web.schemas.common import at, at_or_none
from sandboa.web.security.permissions import RUN
from sandboa.web.security.requester import AskedBy

router = APIRouter(prefix="/api/house", tags=["house"])


@router.get("/backups", dependencies=[RUN])
def get_backups(house: TheHouse) -> BackupsResponse:
    """How backups fare."""
    return _backups(house)


@router.post("/backups", dependencies=[RUN], status_code=201)
def make_backup(house: TheHouse, by: AskedBy, now_s: NowS) -> BackupResponse:
    """Make a backup now and prove it; one that fails says why in `trouble`."""
    tried = back_up_now(now_s, house.backups)
    house.problems = problems_behind(tried)
    security_log.note(security_log.Kind.BACKUP, tried.trouble or "a backup was made", by, now_s)
    return _tried(tried)


@router.put("/backups/folder", dependencies=[RUN])
def set_folder(
    asked: BackupFolderRequest, seen: Seen, house: TheHouse, by: AskedBy, now_s: NowS
) -> BackupsResponse:
    """Send backups to another folder of the house's computer, or beside the house again."""
    with saved_over(seen, backup_folder_form):
        folder = set_backup_folder(asked.folder)
    security_log.note(security_log.Kind.BACKUP, f"backups go to {folder}", by, now_s)
    return _backups(house)


@router.get("/copies", dependencies=[RUN])
def get_copies(house: TheHouse) -> list[CopyResponse]:
    """Every copy the house can be restored from, newest first."""
    return [
        CopyResponse(name=copy.name, kind=copy.kind, at=at(copy.made_s), size_bytes=copy.size)
        for copy in restorable(backup_folder(house.backups))
    ]


@router.post("/restore", dependencies=[RUN], status_code=202)
def take_house_back(asked: RestoreRequest, house: TheHouse, by: AskedBy) -> RestoreResponse:
    """Restore the house from a copy; it is read meanwhile, and the one before moved aside whole."""
    house.restoring.begin(house, find_copy(asked.copy_name, backup_folder(house.backups)), by)
    told = _restore(house)
    assert told is not None
    return told


@router.get("/restore", dependencies=[RUN])
def get_restore(house: TheHouse) -> RestoreResponse | None:
    """How the last restore stands; null when there was none since the start."""
    return _restore(house)


@router.get("/security", dependencies=[RUN])
def get_security_log(
    limit: Annotated[int, Query(ge=1, le=500)] = 50,
    before: Annotated[int | None, Query(ge=1, le=2**53)] = None,
) -> list[SecurityEventResponse]:
    """Who came in or tried to, and what keys were made, changed or ended; newest first."""
    names = names_of_people()
    return [
        SecurityEventResponse(
            id=row.id,
            at=at(row.at_s),
            kind=security_log.Kind(row.kind),
            who=names.get(row.person_id or 0, ""),
            text=row.text,
            address=row.address,
            device=row.device,
        )
        for row in security_log.lately(limit, before)
    ]


@router.get("/log", dependencies=[RUN])
def get_program_log(
    house: TheHouse, lines: Annotated[int, Query(ge=1, le=1_000)] = 200
) -> ProgramLogResponse | None:
    """The end of the log, oldest line first; null where none is kept, as in a demo."""
    if house.log is None:
        return None
    return ProgramLogResponse(file=str(house.log), lines=last_lines(house.log, lines))


@router.post("/acceptance", dependencies=[RUN], status_code=201)
def accept(house: TheHouse, by: AskedBy, now_s: NowS) -> AcceptedResponse:
    """Let what lies in the house count as recorded, though it was changed from outside."""
    accepted = accept_as_it_is(by, now_s)
    house.problems = ()
    house.live.changed_elsewhere()
    return AcceptedResponse(accepted=list(accepted))


def _backups(house: House) -> BackupsResponse:
    state = backup_state(house.backups)
    return BackupsResponse(
        folder=str(state.folder),
        beside=state.beside,
        fixed=state.fixed,
        held=len(state.held),
        kept_days=KEPT_DAYS,
        kept_weeks=KEPT_WEEKS,
        kept_months=KEPT_MONTHS,
        newest_at=at_or_none(state.held[0].made_s if state.held else None),
        last_good=_tried(state.last_good) if state.last_good else None,
        last_failed=_tried(state.last_failed) if state.last_failed else None,
        revision=revision_of(backup_folder_form()),
    )


def _tried(row: BackupTried) -> BackupResponse:
    return BackupResponse(
        at=at(row.at_s),
        file=row.file,
        size_bytes=row.size,
        photos=row.photos,
        trouble=row.trouble or None,
    )


def _restore(house: House) -> RestoreResponse | None:
    state = house.restoring.state
    if state is None:
        return None
    return RestoreResponse(
        copy_name=state.copy,
        begun_at=at(state.begun_s),
        ended_at=at_or_none(state.ended_s),
        problem=state.problem,
        aside=state.aside,
    )
