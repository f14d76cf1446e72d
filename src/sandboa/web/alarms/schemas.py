"""Requests and responses of this place."""

from pydantic import BaseModel

from sandboa.services.alarms.trouble import Severity
from sandboa.web.requests.reader import Sentence
from sandboa.web.schemas.common import Moment


class AlarmResponse(BaseModel):
    """An alarm; open while `ended_at` is null. Without a cabinet it is about the house itself."""

    id: int
    kind: str
    severity: Severity
    cabinet: str | None
    probe: str | None
    text: Sentence
    began_at: Moment
    raised_at: Moment
    ended_at: Moment | None
    acknowledged_at: Moment | None


class LiveResponse(BaseModel):
    """How many alarms are open and not yet acknowledged; notices are not counted.

    `house` changes when the house was restored from a copy: everything is read anew. `revision`
    changes with alarms, `act` is the latest that was recorded, `readings` changes with them,
    `shares` with who opens which cabinet on a round.
    """

    house: str
    revision: int
    act: int
    readings: int
    shares: int
    emergencies: int
    alarms: int
