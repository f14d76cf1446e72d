"""Requests and responses of this place."""

from typing import Literal

from pydantic import BaseModel

from sandboa.web.schemas.common import Moment


class HealthResponse(BaseModel):
    """What a page shows above everything else when it is not as it should be.

    `damage` says why the house is only read from, `changed` what the last night
    found not to be as it was recorded, `restoring` which copy the house is being
    taken back to. `looked_at` is when the watch last looked at the cabinets.
    """

    damage: list[str]
    changed: list[str]
    restoring: str | None
    looked_at: Moment | None
    watch_late: bool
    clock_behind_s: float


class OutsideHealthResponse(BaseModel):
    """`watch_at`: when the watch last looked at the cabinets; `backup_at`: the last good backup."""

    status: Literal["well", "watch late", "damaged"]
    watch_at: Moment | None
    backup_at: Moment | None
