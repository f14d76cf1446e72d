"""Animals: dams and sires, what they weigh and eat, and the season they are in."""

from math import inf
from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.core.animals import DAM
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.animals import commands as animals
from sandboa.services.animals.commands import Animal, AnimalCommand
from sandboa.services.animals.individuals import hatched_here, individual
from sandboa.services.animals.leaving import leave_house, put_in_tub
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.breeding import aftercare
from sandboa.services.breeding import commands as breeding
from sandboa.services.breeding.lay_windows import dam_lay_season
from sandboa.services.breeding.proving import HouseCarriers, TraitProof
from sandboa.services.clutches.photos import photos_of_animal
from sandboa.services.forms.people_and_things import animal_form
from sandboa.services.snapshot.herd import Herd
from sandboa.services.snapshot.settings import house_settings
from sandboa.web.animals.schemas import (
    AfterLayingResponse,
    AnimalAddedResponse,
    AnimalPageResponse,
    AnimalRequest,
    AnimalResponse,
    ClutchOfResponse,
    HatchedHereResponse,
    MealRequest,
    RetirementsRequest,
    TickRequest,
    TraitProofResponse,
    WeightRequest,
    YearResponse,
)
from sandboa.web.breeding.schemas import DamLaySeasonResponse
from sandboa.web.hatchlings.schemas import (
    DepartureRequest,
    DepartureResponse,
    TubRequest,
    TubResponse,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import (
    ActResponse,
    MealResponse,
    PhotoResponse,
    TraitResponse,
    WeightResponse,
    at,
    seconds_or_now,
)
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/animals", tags=["animals"])


AnimalId = Annotated[int, Path(ge=1, le=2**53)]


@router.get("", dependencies=[LOOK])
def get_animals(house: TheHouse) -> list[AnimalResponse]:
    """All dams and sires by name, the retired and then those that left last."""
    herd = house.snapshot().herd
    rows = sorted(
        herd.animals.values(),
        key=lambda a: (a.role, a.entity_id in herd.departures, a.retired, a.name.casefold()),
    )
    return [_animal(herd, row) for row in rows]


@router.post("", dependencies=[RECORD], status_code=201)
def add_animal(asked: AnimalRequest, now_s: NowS) -> AnimalAddedResponse:
    """Record an animal."""
    entity, act = animals.add_animal(_said(asked), now_s)
    return AnimalAddedResponse(id=entity, act=ActResponse.of(act))


@router.post("/retirements", dependencies=[RECORD], status_code=201)
def retire_animals(asked: RetirementsRequest, now_s: NowS) -> ActResponse:
    """Say that several animals breed no more, or again."""
    entities = list(dict.fromkeys(asked.animals))
    return ActResponse.of(animals.retire(entities, now_s, retired=asked.retired))


@router.get("/after-laying", dependencies=[LOOK])
def get_after_laying(house: TheHouse, now_s: NowS) -> list[AfterLayingResponse]:
    """Dams on the way back after laying, the latest first."""
    told = aftercare.dams_after_laying(house.snapshot().herd, now_s)
    return [AfterLayingResponse.of(after, now_s) for after in told]


@router.get("/{animal}", dependencies=[LOOK])
def get_animal(animal: AnimalId, house: TheHouse, now_s: NowS) -> AnimalPageResponse:
    """Everything the page of an animal shows."""
    row = animals.find_animal(animal)
    herd = house.snapshot().herd
    settings = house_settings()
    is_dam = row.role == DAM
    after = aftercare.dam_after_laying(herd, animal, settings, now_s) if is_dam else None
    who = individual(animal)
    hatched, tub = hatched_here(who), who.tub
    parents = [p for p in (herd.name(row.dam_id), herd.name(row.sire_id)) if p]
    return AnimalPageResponse(
        animal=_animal(herd, row),
        traits_text=row.traits,
        dam=row.dam_id,
        sire=row.sire_id,
        parents=" × ".join(parents) or None,
        weights=[WeightResponse.model_validate(w) for w in herd.weights.get(animal, [])],
        meals=[MealResponse.model_validate(m) for m in herd.meals.get(animal, [])],
        clutches=[
            ClutchOfResponse(
                code=clutch.code,
                past=clutch.past,
                laid_at=at(clutch.laid_s),
                count=str(clutch.count),
                mate=clutch.mate,
            )
            for clutch in herd.clutches_of(animal)
        ],
        lightest_g=settings["lightest_dam_g"] if is_dam else None,
        season=DamLaySeasonResponse.of(dam_lay_season(herd, animal, now_s, inf), now_s, herd)
        if is_dam
        else None,
        after_laying=AfterLayingResponse.of(after, now_s) if after else None,
        photos=[PhotoResponse.model_validate(p) for p in photos_of_animal(row)],
        hatched_here=HatchedHereResponse.model_validate(hatched) if hatched else None,
        tub=TubResponse.model_validate(tub) if tub else None,
        proofs=[_proof(told) for told in HouseCarriers(house.snapshot()).proofs(animal)],
        revision=revision_of(animal_form(animal)),
    )


@router.put("/{animal}", dependencies=[RECORD])
def correct_animal(animal: AnimalId, asked: AnimalRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct an animal; the earlier values stay in the log."""
    with saved_over(seen, lambda: animal_form(animal)):
        return ActResponse.of(animals.correct_animal(animal, _said(asked), now_s))


@router.post("/{animal}/weights", dependencies=[RECORD], status_code=201)
def weigh_animal(animal: AnimalId, asked: WeightRequest, now_s: NowS) -> ActResponse:
    """Record a weight."""
    at_s = seconds_or_now(asked.at, now_s)
    act = animals.weigh(animal, asked.mass_g, at_s, now_s, confirmed=asked.confirmed)
    return ActResponse.of(act)


@router.post("/{animal}/meals", dependencies=[RECORD], status_code=201)
def offer_meal(animal: AnimalId, asked: MealRequest, now_s: NowS) -> ActResponse:
    """Record a meal offered, taken or refused."""
    at_s = seconds_or_now(asked.at, now_s)
    act = animals.offer_meal(animal, asked.taken, asked.prey, asked.mass_g, at_s, now_s)
    return ActResponse.of(act)


@router.post("/{animal}/tub", dependencies=[RECORD], status_code=201)
def put_animal_in_tub(animal: AnimalId, asked: TubRequest, now_s: NowS) -> ActResponse:
    """Record the tub it lives in from then on."""
    animals.find_animal(animal)
    return ActResponse.of(put_in_tub(animal, asked.name, seconds_or_now(asked.at, now_s), now_s))


@router.post("/{animal}/departure", dependencies=[RECORD], status_code=201)
def record_animal_departure(animal: AnimalId, asked: DepartureRequest, now_s: NowS) -> ActResponse:
    """Record that it left the house: how, and when."""
    animals.find_animal(animal)
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(leave_house(animal, asked.how, asked.note, at_s, now_s))


@router.post("/{animal}/aftercare", dependencies=[RECORD], status_code=201)
def tick_aftercare(
    animal: AnimalId, asked: TickRequest, house: TheHouse, now_s: NowS
) -> ActResponse:
    """Tick a line of the dam's checklist after laying."""
    animals.find_animal(animal, DAM)
    clutch = aftercare.last_clutch(house.snapshot().herd, animal)
    done_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(breeding.tick_aftercare(clutch, asked.task, now_s, done_s))


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
    left = herd.departures.get(row.entity_id)
    years: dict[int, list[str]] = {}
    for clutch in herd.clutches_of(row.entity_id):
        years.setdefault(at(clutch.laid_s).year, []).append(str(clutch.count))
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
        departure=DepartureResponse.model_validate(left) if left else None,
    )


def _proof(told: TraitProof) -> TraitProofResponse:
    return TraitProofResponse(
        gene=told.gene,
        before=told.proof.before,
        chance=told.proof.chance,
        proved=told.proof.proved,
        words=told.words,
        by_mate=list(told.by_mate),
    )
