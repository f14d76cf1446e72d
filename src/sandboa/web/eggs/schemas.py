"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.box import Shell
from sandboa.core.candling import Disc, Vessels
from sandboa.core.lay_day import EggEvent
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import Moment, PhotoResponse, RequestSchema, ResponseSchema
from sandboa.web.schemas.eggs import EggResponse, EvidenceResponse


class StandingResponse(BaseModel):
    """`prior` and the pushes of `evidence` sum to the `log_odds` of `alive`; chances are 0-1."""

    standing: str
    alive: float
    will_pip: float
    will_hatch: float
    log_odds: float
    prior: EvidenceResponse
    evidence: list[EvidenceResponse]


class EggMomentResponse(ResponseSchema):
    at: Moment = Field(validation_alias="at_s")
    development: float
    kind: str
    text: str
    grade: int | None


class EggAsLaidRequest(RequestSchema):
    """What lay day said of an egg; `vessels` null when it was not candled."""

    slug: bool = False
    shells: Annotated[list[Shell], Field(max_length=len(Shell), default_factory=list)]
    clump: int | None = None
    mass_g: float | None = None
    vessels: Vessels | None = None
    disc: Disc | None = None
    events: Annotated[list[EggEvent], Field(max_length=len(EggEvent), default_factory=list)]


class EggAsLaidResponse(ResponseSchema):
    """What lay day said of an egg, to be corrected."""

    slug: bool
    shells: list[Shell]
    clump: int | None
    mass_g: float | None
    vessels: Vessels | None
    disc: Disc | None
    events: list[EggEvent]
    revision: Revision


class EggPageResponse(BaseModel):
    """The Egg place. `thresholds` are the chances from which sound, watch and failing begin."""

    as_of: Moment
    id: int
    clutch_id: int
    code: str
    dam: str
    day: int
    fraction: float
    egg: EggResponse
    allowed_words: str
    box: str
    box_scope: str
    early_eggs: list[str]
    live_eggs: int
    standing: StandingResponse | None
    thresholds: dict[str, float]
    dependence: float
    closed_eggs: int
    taught_by: dict[str, int]
    history: list[EggMomentResponse]
    photos: list[PhotoResponse]
