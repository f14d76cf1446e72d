"""Requests and responses of this place."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from sandboa.core.hatching import Defect, Sex, Size, YolkLeft
from sandboa.core.hatching.raising import Departure, RaisingTask
from sandboa.services.acts.revisions import revision_of
from sandboa.services.forms.clutch import form_of_hatchling
from sandboa.services.hatching.hatchling_views import HatchlingView
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
    WindowResponse,
    at,
)

_SHORT_NAME = Annotated[str, Field(max_length=200)]


class MomentRequest(RequestSchema):
    """When it was; now when left out."""

    at: AskedMoment | None = None


class HatchlingRequest(RequestSchema):
    """What came out of an egg; `part` 2 is the second of twins, `twins` the word that it is one,
    `plain` the word that it shows no trait."""

    part: Annotated[int, Field(ge=1, le=9)] = 1
    mass_g: float | None = None
    sex: Sex = Sex.NOT_SEXED
    size: Size | None = None
    yolk: YolkLeft | None = None
    traits: list[TraitRequest] = Field(max_length=200, default_factory=list)
    defects: list[Defect] = Field(max_length=10, default_factory=list)
    note: Annotated[str, Field(max_length=2000)] = ""
    plain: bool = False
    twins: bool = False


class HatchlingWeightRequest(MomentRequest):
    mass_g: float


class FirstMealRequest(MomentRequest):
    taken: bool
    prey: _SHORT_NAME = ""
    mass_g: float | None = None


class HatchlingMealRequest(RequestSchema):
    hatchling: Id
    taken: bool


class SeveralMealsRequest(MomentRequest):
    """The same prey offered to several; its mass in g of each, where it was weighed."""

    meals: Annotated[list[HatchlingMealRequest], Field(min_length=1, max_length=500)]
    prey: _SHORT_NAME = ""
    mass_g: float | None = None


class TubRequest(MomentRequest):
    """A tub of its own, by name."""

    name: _SHORT_NAME


class HoldBackRequest(MomentRequest):
    """What it is called from now on; `role` null to take it from its sex."""

    name: _SHORT_NAME
    role: Literal["dam", "sire"] | None = None


class DepartureRequest(MomentRequest):
    """That an animal or hatchling left the house."""

    how: Departure
    note: Annotated[str, Field(max_length=2000)] = ""


class SeveralDeparturesRequest(DepartureRequest):
    """That several hatchlings left alike."""

    hatchlings: Annotated[list[Id], Field(min_length=1, max_length=500)]


class HeldBackResponse(BaseModel):
    """The animal that a hatchling was held back as."""

    animal: int
    act: ActResponse


class DepartureResponse(ResponseSchema):
    at: Moment = Field(validation_alias="at_s")
    how: Departure
    note: str


class TubResponse(ResponseSchema):
    name: str
    since: Moment = Field(validation_alias="from_s")


class RaisingDueResponse(ResponseSchema):
    """What is due at a young animal, since when, in words."""

    task: RaisingTask
    since: Moment = Field(validation_alias="since_s")
    words: str


class HatchlingResponse(BaseModel):
    """A hatchling as it stands. `shed_window` and `meal_window` are of what is still to come, null
    once it came; `animal` is the id it was held back under, `departure` that it left."""

    id: int
    clutch: str
    egg: int
    name: str
    short_name: str
    part: int
    out_at: Moment
    sex: str
    size: str | None
    yolk: str | None
    defects: list[str]
    note: str
    traits: list[TraitResponse]
    plain: bool
    weights: list[WeightResponse]
    meals: list[MealResponse]
    sheds: list[Moment]
    shed_window: WindowResponse | None
    meal_window: WindowResponse | None
    settled: bool
    tub: TubResponse | None
    animal: int | None
    animal_name: str | None
    departure: DepartureResponse | None
    died: bool
    due: RaisingDueResponse | None
    revision: Revision

    @classmethod
    def of(cls, view: HatchlingView) -> "HatchlingResponse":
        row = view.recorded
        return cls(
            id=row.entity_id,
            clutch=view.clutch.code,
            egg=view.number,
            name=view.name,
            short_name=view.short_name,
            part=row.part,
            out_at=at(view.out_s),
            sex=row.sex,
            size=row.size,
            yolk=row.yolk,
            defects=row.defects.split(",") if row.defects else [],
            plain=bool(row.plain),
            note=row.note,
            traits=[TraitResponse.model_validate(t) for t in view.traits],
            weights=[WeightResponse.model_validate(w) for w in view.weights],
            meals=[MealResponse.model_validate(m) for m in view.meals],
            sheds=[at(seen_s) for seen_s in view.sheds_s],
            shed_window=_window(view.shed_window),
            meal_window=_window(view.meal_window),
            settled=view.settled,
            tub=TubResponse.model_validate(view.tubs[-1]) if view.tubs else None,
            animal=view.animal.entity_id if view.animal else None,
            animal_name=view.animal.name if view.animal else None,
            departure=DepartureResponse.model_validate(view.departure) if view.departure else None,
            died=view.died,
            due=RaisingDueResponse.model_validate(view.due) if view.due else None,
            revision=revision_of(form_of_hatchling(row, view.traits)),
        )


class HatchlingLineResponse(BaseModel):
    """A hatchling in a list, without the years of meals and weights behind it."""

    id: int
    clutch: str
    short_name: str
    sex: str
    traits: list[TraitResponse]
    mass_g: float | None
    meals_taken: int
    last_offered_at: Moment | None
    tub: str | None
    out_at: Moment
    animal: int | None
    animal_name: str | None
    departure: DepartureResponse | None
    died: bool
    due: RaisingDueResponse | None

    @classmethod
    def of(cls, view: HatchlingView) -> "HatchlingLineResponse":
        return cls(
            id=view.recorded.entity_id,
            clutch=view.clutch.code,
            short_name=view.short_name,
            sex=view.recorded.sex,
            traits=[TraitResponse.model_validate(t) for t in view.traits],
            mass_g=view.weights[-1].mass_g if view.weights else None,
            meals_taken=sum(bool(meal.taken) for meal in view.meals),
            last_offered_at=at(view.meals[-1].at_s) if view.meals else None,
            tub=view.tub,
            out_at=at(view.out_s),
            animal=view.animal.entity_id if view.animal else None,
            animal_name=view.animal.name if view.animal else None,
            departure=DepartureResponse.model_validate(view.departure) if view.departure else None,
            died=view.died,
            due=RaisingDueResponse.model_validate(view.due) if view.due else None,
        )


class HatchlingsDueResponse(BaseModel):
    """What is due at hatchlings of one clutch: the same task, each by its short name; those that
    were held back by the name they have now."""

    clutch: str
    task: RaisingTask
    hatchlings: list[str]
    held_back: list[str]
    since: Moment


class HatchlingPageResponse(BaseModel):
    """Everything the page of a hatchling shows."""

    hatchling: HatchlingResponse
    dam: str | None
    sire: str | None
    dam_id: int
    sire_id: int | None
    egg_photos: list[PhotoResponse]
    photos: list[PhotoResponse]


def _window(window: object) -> WindowResponse | None:
    return WindowResponse.model_validate(window) if window else None
