"""Requests and responses of this place."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from sandboa.core.dam_care import AftercareTask
from sandboa.services.breeding import aftercare
from sandboa.services.breeding.aftercare import DamAfterLaying
from sandboa.web.breeding.schemas import DamLaySeasonResponse
from sandboa.web.hatchlings.schemas import DepartureResponse, TubResponse
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import (
    ActResponse,
    AskedMoment,
    Id,
    MealResponse,
    Moment,
    PhotoResponse,
    RequestSchema,
    ResponseSchema,
    TraitRequest,
    TraitResponse,
    WeightResponse,
    at,
    at_or_none,
)

Name = Annotated[str, Field(max_length=20_000)]


class AnimalRequest(RequestSchema):
    """`dam` and `sire` are ids of its parents."""

    role: Literal["dam", "sire"]
    name: Name
    code: Annotated[str, Field(max_length=20)] | None = None
    hatch_year: int | None = None
    traits_text: Annotated[str, Field(max_length=2_000)] = ""
    traits: list[TraitRequest] = Field(max_length=200, default_factory=list)
    dam: Id | None = None
    sire: Id | None = None
    retired: bool = False


class RetirementsRequest(RequestSchema):
    """Animals by their ids, and whether they breed no more."""

    animals: Annotated[list[Id], Field(min_length=1, max_length=2_000)]
    retired: bool = True


class WeightRequest(RequestSchema):
    """`confirmed`: the leap from the weight before was asked about and is right."""

    mass_g: float
    at: AskedMoment | None = None
    confirmed: bool = False


class MealRequest(RequestSchema):
    taken: bool
    prey: Name = ""
    mass_g: float | None = None
    at: AskedMoment | None = None


class TickRequest(RequestSchema):
    task: AftercareTask
    at: AskedMoment | None = None


class AnimalAddedResponse(BaseModel):
    id: int
    act: ActResponse


class YearResponse(BaseModel):
    """A year's clutches as on cards, like "7-2"."""

    year: int
    counts: list[str]


class HatchedHereResponse(ResponseSchema):
    """The egg an animal came from, in this house: the clutch by its code."""

    hatchling: int
    clutch: str
    egg: int
    held_at: Moment = Field(validation_alias="held_s")


class TraitProofResponse(BaseModel):
    """What hatchlings make of a possible trait. `chance` that it is carried, null where nothing
    recorded can explain them; `by_mate` tells it pair by pair."""

    gene: str
    before: float
    chance: float | None
    proved: bool
    words: str
    by_mate: list[str]


class AnimalResponse(BaseModel):
    """`departure`: it left the house."""

    id: int
    role: str
    name: str
    code: str | None
    hatch_year: int | None
    retired: bool
    traits: list[TraitResponse]
    mass_g: float | None
    weighed_at: Moment | None
    last_meal_at: Moment | None
    refusals_since: int
    clutches: list[YearResponse]
    departure: DepartureResponse | None


class ClutchOfResponse(BaseModel):
    """`past` is one of before Sandboa: it has no page, and a code only where its card had one."""

    code: str | None
    past: bool
    laid_at: Moment
    count: str
    mate: str | None


class CareItemResponse(BaseModel):
    task: AftercareTask
    text: str
    start: Moment
    by: Moment
    done_at: Moment | None
    ticked_by_hand: bool
    due: bool


class RecoveryResponse(ResponseSchema):
    latest_g: float
    missing_g: float
    reached: bool
    falling: bool
    gain_g_per_day: float | None
    expected_at: Moment | None = Field(validation_alias="expected_s")
    early_at: Moment | None = Field(validation_alias="early_s")
    late_at: Moment | None = Field(validation_alias="late_s")


class AfterLayingResponse(BaseModel):
    dam: int
    name: str
    clutch: str
    laid_at: Moment
    maternal: bool
    before_g: float | None
    target_g: float
    items: list[CareItemResponse]
    recovery: RecoveryResponse | None
    flags: list[str]

    @classmethod
    def of(cls, after: DamAfterLaying, now_s: float) -> "AfterLayingResponse":
        return cls(
            dam=after.dam,
            name=after.name,
            clutch=after.clutch,
            laid_at=at(after.laid_s),
            maternal=after.maternal,
            before_g=after.before_g,
            target_g=after.target_g,
            items=[
                CareItemResponse(
                    task=item.task,
                    text=item.text,
                    start=at(item.from_s),
                    by=at(item.by_s),
                    done_at=at_or_none(item.done_s),
                    ticked_by_hand=item.task in aftercare.TICKED,
                    due=item.due(now_s),
                )
                for item in after.items
            ],
            recovery=RecoveryResponse.model_validate(after.recovery) if after.recovery else None,
            flags=list(after.flags),
        )


class AnimalPageResponse(BaseModel):
    animal: AnimalResponse
    traits_text: str
    dam: int | None
    sire: int | None
    parents: str | None
    weights: list[WeightResponse]
    meals: list[MealResponse]
    clutches: list[ClutchOfResponse]
    lightest_g: float | None
    season: DamLaySeasonResponse | None
    after_laying: AfterLayingResponse | None
    photos: list[PhotoResponse]
    hatched_here: HatchedHereResponse | None
    tub: TubResponse | None
    proofs: list[TraitProofResponse]
    revision: Revision
