"""Animals: dams and sires, what they weigh and eat, and the season they are in."""

from math import inf
from typing import Annotated, Literal

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.dam_care import AftercareTask
from sandboa.records.house import DAM, Animal
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.animals import commands as animals
from sandboa.services.animals.commands import AnimalCommand
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.breeding import aftercare
from sandboa.services.breeding.aftercare import DamAfterLaying
from sandboa.services.breeding.lay_windows import dam_season
from sandboa.services.clutches.photos import photos_of_owner
from sandboa.services.forms.people_and_things import animal_form
from sandboa.services.snapshot.herd import Herd
from sandboa.services.snapshot.settings import house_settings
from sandboa.web.house import NowS, TheHouse
from sandboa.web.revisions import Revision, Seen
from sandboa.web.routers.season import DamSeasonResponse
from sandboa.web.shapes import (
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

router = APIRouter(prefix="/api/animals", tags=["animals"])

AnimalId = Annotated[int, Path(ge=1, le=2**53)]
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


class AnimalAddedResponse(BaseModel):
    id: int
    act: ActResponse


class YearResponse(BaseModel):
    """A year's clutches as on cards, like "7-2"."""

    year: int
    counts: list[str]


class AnimalResponse(BaseModel):
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


class ClutchOfResponse(BaseModel):
    code: str
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
    season: DamSeasonResponse | None
    after_laying: AfterLayingResponse | None
    photos: list[PhotoResponse]
    revision: Revision


@router.get("")
def get_animals(house: TheHouse) -> list[AnimalResponse]:
    """All dams and sires by name, the retired last."""
    herd = house.snapshot().herd
    rows = sorted(herd.animals.values(), key=lambda a: (a.role, a.retired, a.name.casefold()))
    return [_animal(herd, row) for row in rows]


@router.post("", status_code=201)
def add_animal(asked: AnimalRequest, now_s: NowS) -> AnimalAddedResponse:
    """Record an animal."""
    entity, act = animals.add_animal(_said(asked), now_s)
    return AnimalAddedResponse(id=entity, act=ActResponse.of(act))


@router.get("/after-laying")
def get_after_laying(house: TheHouse, now_s: NowS) -> list[AfterLayingResponse]:
    """Dams on the way back after laying, the latest first."""
    told = aftercare.dams_after_laying(house.snapshot().herd, now_s)
    return [AfterLayingResponse.of(after, now_s) for after in told]


@router.get("/{animal}")
def get_animal(animal: AnimalId, house: TheHouse, now_s: NowS) -> AnimalPageResponse:
    """Everything the page of an animal shows."""
    row = animals.find_animal(animal)
    herd = house.snapshot().herd
    settings = house_settings()
    is_dam = row.role == DAM
    after = aftercare.dam_after_laying(herd, animal, settings, now_s) if is_dam else None
    parents = [p for p in (herd.name(row.dam_id), herd.name(row.sire_id)) if p]
    return AnimalPageResponse(
        animal=_animal(herd, row),
        traits_text=row.traits,
        dam=row.dam_id,
        sire=row.sire_id,
        parents=" × ".join(parents) or None,
        weights=[WeightResponse.model_validate(w) for w in herd.weights.get(animal, [])],
        meals=[MealResponse.model_validate(m) for m in herd.meals.get(animal, [])],
        clutches=_clutches(herd, row),
        lightest_g=settings["lightest_dam_g"] if is_dam else None,
        season=DamSeasonResponse.of(dam_season(herd, animal, now_s, inf), now_s, herd)
        if is_dam
        else None,
        after_laying=AfterLayingResponse.of(after, now_s) if after else None,
        photos=[PhotoResponse.model_validate(p) for p in photos_of_owner(animal)],
        revision=revision_of(animal_form(animal)),
    )


@router.put("/{animal}")
def correct_animal(animal: AnimalId, asked: AnimalRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct an animal; the earlier values stay in the log."""
    with saved_over(seen, lambda: animal_form(animal)):
        return ActResponse.of(animals.correct_animal(animal, _said(asked), now_s))


@router.post("/{animal}/weights", status_code=201)
def weigh_animal(animal: AnimalId, asked: WeightRequest, now_s: NowS) -> ActResponse:
    """Record a weight."""
    at_s = asked.at.timestamp() if asked.at else now_s
    act = animals.weigh(animal, asked.mass_g, at_s, now_s, confirmed=asked.confirmed)
    return ActResponse.of(act)


@router.post("/{animal}/meals", status_code=201)
def offer_meal(animal: AnimalId, asked: MealRequest, now_s: NowS) -> ActResponse:
    """Record a meal offered, taken or refused."""
    at_s = asked.at.timestamp() if asked.at else now_s
    act = animals.offer_meal(animal, asked.taken, asked.prey, asked.mass_g, at_s, now_s)
    return ActResponse.of(act)


@router.post("/{animal}/aftercare", status_code=201)
def tick_aftercare(
    animal: AnimalId, asked: TickRequest, house: TheHouse, now_s: NowS
) -> ActResponse:
    """Tick a line of the dam's checklist after laying."""
    animals.find_animal(animal, DAM)
    clutch = aftercare.last_clutch(house.snapshot().herd, animal)
    return ActResponse.of(aftercare.tick_aftercare(clutch, asked.task, now_s))


def _said(asked: AnimalRequest) -> AnimalCommand:
    return AnimalCommand(
        role=asked.role,
        name=asked.name,
        code=asked.code,
        hatch_year=asked.hatch_year,
        traits_text=asked.traits_text,
        traits=[TraitCommand(t.name, t.form) for t in asked.traits],
        dam=asked.dam,
        sire=asked.sire,
        retired=asked.retired,
    )


def _animal(herd: Herd, row: Animal) -> AnimalResponse:
    weights = herd.weights.get(row.entity_id, [])
    meals = herd.meals.get(row.entity_id, [])
    taken = [m for m in meals if m.taken]
    years: dict[int, list[str]] = {}
    for clutch in _clutches(herd, row):
        years.setdefault(clutch.laid_at.year, []).append(clutch.count)
    return AnimalResponse(
        id=row.entity_id,
        role=row.role,
        name=row.name,
        code=row.code,
        hatch_year=row.hatch_year,
        retired=bool(row.retired),
        traits=[TraitResponse.model_validate(t) for t in herd.traits.get(row.entity_id, [])],
        mass_g=weights[-1].mass_g if weights else None,
        weighed_at=at(weights[-1].at_s) if weights else None,
        last_meal_at=at(taken[-1].at_s) if taken else None,
        refusals_since=sum(not m.taken for m in meals if not taken or m.at_s > taken[-1].at_s),
        clutches=[YearResponse(year=year, counts=counts) for year, counts in sorted(years.items())],
    )


def _clutches(herd: Herd, row: Animal) -> list[ClutchOfResponse]:
    """The animal's clutches in order of time, with the other parent."""
    every = [c for clutches in herd.clutches.values() for c in clutches]
    own = [c for c in every if row.entity_id in (c.dam_id, c.sire_id)]
    return [
        ClutchOfResponse(
            code=clutch.code,
            laid_at=at(clutch.laid_s),
            count=str(ClutchCount(*herd.counts.get(clutch.entity_id, (0, 0)))),
            mate=herd.name(clutch.sire_id if row.role == DAM else clutch.dam_id),
        )
        for clutch in sorted(own, key=lambda c: c.laid_s)
    ]
