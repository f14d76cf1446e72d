"""Requests and responses of this place."""

from pydantic import BaseModel, Field

from sandboa.core.climate import Requirement
from sandboa.core.methods import (
    Method,
)
from sandboa.core.settings import Quantity
from sandboa.services.climate.readiness import CabinetReadiness
from sandboa.web.requests.reader import Sentence
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import (
    ActResponse,
    Moment,
    RequestSchema,
    ResponseSchema,
    at_or_none,
)
from sandboa.web.schemas.water import MediumResponse


class MethodRequest(RequestSchema):
    """A house method; `chosen` makes it the one new clutches start from."""

    method: Method
    chosen: bool = False


class MethodResponse(BaseModel):
    """`id` null is the standard that nobody has changed yet."""

    id: int | None
    method: Method
    chosen: bool
    temperature_school: str
    revision: Revision


class TemperatureSchoolResponse(BaseModel):
    """What set points above `above_c` (°C) mean."""

    above_c: float
    reason: Sentence


class MethodsResponse(BaseModel):
    """`choices` lists the schools of each line; `media` those of the medium.

    `reasons` tells what speaks for each choice, by line and choice; `temperatures` the same of set
    points, coolest first.
    """

    methods: list[MethodResponse]
    reasons: dict[str, dict[str, Sentence]]
    choices: dict[str, list[str]]
    temperatures: list[TemperatureSchoolResponse]
    media: list[MediumResponse]


class MethodAddedResponse(BaseModel):
    id: int
    act: ActResponse


class SettingResponse(BaseModel):
    """`learned` is what holds in its place, from `learned_from` closed eggs; null where none."""

    name: str
    label: Sentence
    unit: str
    value: float
    default: float
    low: float
    high: float
    reason: str
    group: str
    quantity: Quantity
    deep: bool
    learned: float | None
    learned_from: int
    revision: Revision


class SettingRequest(RequestSchema):
    value: float


class ConditionResponse(ResponseSchema):
    """°C for swings and mean, hours for the gap; null without readings."""

    requirement: Requirement
    met: bool
    value: float | None
    limit: float
    since: Moment | None = Field(validation_alias="since_s")


class ProbeReadinessResponse(BaseModel):
    probe: str
    ready: bool
    conditions: list[ConditionResponse]


class CabinetReadinessResponse(BaseModel):
    """`since` null: as it is for as long as 14 days of readings tell."""

    cabinet: str
    target_c: float | None
    ready: bool
    since: Moment | None
    text: str
    probes: list[ProbeReadinessResponse]

    @classmethod
    def of(cls, told: CabinetReadiness) -> "CabinetReadinessResponse":
        return cls(
            cabinet=told.cabinet,
            target_c=told.target_c,
            ready=told.ready,
            since=at_or_none(told.since_s),
            text=told.text,
            probes=[
                ProbeReadinessResponse(
                    probe=p.probe,
                    ready=p.told.ready,
                    conditions=[ConditionResponse.model_validate(c) for c in p.told.conditions],
                )
                for p in told.probes
            ],
        )
