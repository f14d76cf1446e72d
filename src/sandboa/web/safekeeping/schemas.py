"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.services.safekeeping import security_log
from sandboa.services.safekeeping.restores import CopyKind
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import Moment, RequestSchema


class BackupResponse(BaseModel):
    """A backup that was tried; `trouble` says why it does not stand, null when it does."""

    at: Moment
    file: str
    size_bytes: int
    photos: int
    trouble: str | None


class BackupsResponse(BaseModel):
    """Where backups go and how they fare.

    `beside`: on the house's own disk. `fixed`: the folder was named when the
    server was started. `held` is how many are in the folder now, `newest_at` the newest.
    Kept are the newest of so many days, weeks and months.
    """

    folder: str
    beside: bool
    fixed: bool
    held: int
    kept_days: int
    kept_weeks: int
    kept_months: int
    newest_at: Moment | None
    last_good: BackupResponse | None
    last_failed: BackupResponse | None
    revision: Revision


class BackupFolderRequest(RequestSchema):
    """Null or empty: beside the house."""

    folder: Annotated[str, Field(max_length=1000)] | None


class CopyResponse(BaseModel):
    """A copy the house can be restored from: a backup, or a house a restore moved aside."""

    name: str
    kind: CopyKind
    at: Moment
    size_bytes: int


class RestoreRequest(RequestSchema):
    """The name of a copy, as listed."""

    copy_name: Annotated[str, Field(max_length=200)]


class RestoreResponse(BaseModel):
    """A restore; while `ended_at` is null it runs. `problem` says why the house is as it was.

    `aside` is the folder the house before lies in now.
    """

    copy_name: str
    begun_at: Moment
    ended_at: Moment | None
    problem: str | None
    aside: str | None


class SecurityEventResponse(BaseModel):
    """Something of signing in, keys or exports; `who` is empty where nobody is known."""

    id: int
    at: Moment
    kind: security_log.Kind
    who: str
    text: str
    address: str
    device: str


class ProgramLogResponse(BaseModel):
    """Where the log is kept on the house's computer, and its last lines, oldest first."""

    file: str
    lines: list[str]


class AcceptedResponse(BaseModel):
    """What was not as it had been recorded, and counts from now on."""

    accepted: list[str]
