"""Requests and responses of this place."""

from pydantic import BaseModel, Field

from sandboa.web.schemas.common import Moment, PhotoResponse, ResponseSchema
from sandboa.web.schemas.eggs import EggResponse, EvidenceResponse


class StandingResponse(BaseModel):
    """`prior` and the pushes of `evidence` sum to `log_odds`; `alive` is the chance 0-1."""

    standing: str
    alive: float
    log_odds: float
    prior: EvidenceResponse
    evidence: list[EvidenceResponse]


class EggMomentResponse(ResponseSchema):
    at: Moment = Field(validation_alias="at_s")
    development: float
    kind: str
    text: str
    grade: int | None


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
    history: list[EggMomentResponse]
    photos: list[PhotoResponse]
