"""Hatchlings of the house: fed, weighed, shed, moved, held back, gone."""

from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.services.animals.leaving import leave_house, leave_together, put_in_tub
from sandboa.services.animals.meals import MealCommand
from sandboa.services.clutches.photos import photos_of_egg, photos_of_owner
from sandboa.services.hatching import hatchling_views, raising
from sandboa.services.hatching.raising import OfferedMeal
from sandboa.web.hatchlings.schemas import (
    DepartureRequest,
    FirstMealRequest,
    HatchlingLineResponse,
    HatchlingPageResponse,
    HatchlingResponse,
    HatchlingsDueResponse,
    HatchlingWeightRequest,
    HeldBackResponse,
    HoldBackRequest,
    MomentRequest,
    SeveralDeparturesRequest,
    SeveralMealsRequest,
    TubRequest,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.schemas.common import ActResponse, Id, PhotoResponse, at, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/hatchlings", tags=["hatchlings"])


HatchlingId = Annotated[Id, Path()]


@router.get("", dependencies=[LOOK])
def get_hatchlings(
    house: TheHouse, now_s: NowS, gone: Annotated[bool, Query()] = False
) -> list[HatchlingLineResponse]:
    """Hatchlings in the house that were not held back, the newest clutch first; with `gone` those
    that were, left or died."""
    return [
        HatchlingLineResponse.of(view)
        for view in hatchling_views.hatchlings_of_house(house.snapshot(), now_s)
        if (view.here and view.animal is None) is not gone
    ]


@router.get("/due", dependencies=[LOOK])
def get_hatchlings_due(house: TheHouse, now_s: NowS) -> list[HatchlingsDueResponse]:
    """What is due at young animals, clutch by clutch, the longest waiting first."""
    groups: dict[tuple[str, str], HatchlingsDueResponse] = {}
    for view in hatchling_views.hatchlings_due(house.snapshot(), now_s):
        if view.due is None:
            continue
        held = groups.setdefault(
            (view.clutch.code, view.due.task),
            HatchlingsDueResponse(
                clutch=view.clutch.code,
                task=view.due.task,
                hatchlings=[],
                held_back=[],
                since=at(view.due.since_s),
            ),
        )
        if view.animal:
            held.held_back.append(view.animal.name)
        else:
            held.hatchlings.append(view.short_name)
        held.since = min(held.since, at(view.due.since_s))
    return list(groups.values())


@router.post("/meals", dependencies=[RECORD], status_code=201)
def offer_hatchling_meals(asked: SeveralMealsRequest, now_s: NowS) -> ActResponse:
    """Record the same prey offered to several hatchlings, each taken or refused; all or none."""
    offered = [OfferedMeal(one.hatchling, one.taken) for one in asked.meals]
    meal = MealCommand(taken=True, prey=asked.prey, mass_g=asked.mass_g)
    act = raising.offer_meals(offered, meal, seconds_or_now(asked.at, now_s), now_s)
    return ActResponse.of(act)


@router.post("/departures", dependencies=[RECORD], status_code=201)
def record_hatchling_departures(asked: SeveralDeparturesRequest, now_s: NowS) -> ActResponse:
    """Record that several hatchlings left the house alike; all or none."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(leave_together(asked.hatchlings, asked.how, asked.note, at_s, now_s))


@router.get("/{hatchling}", dependencies=[LOOK])
def get_hatchling(hatchling: HatchlingId, house: TheHouse, now_s: NowS) -> HatchlingPageResponse:
    """Everything the page of a hatchling shows."""
    snapshot = house.snapshot()
    view = hatchling_views.hatchling_view(snapshot, hatchling, now_s)
    egg_photos = photos_of_egg(view.clutch.entity_id, view.number)
    return HatchlingPageResponse(
        hatchling=HatchlingResponse.of(view),
        dam=snapshot.herd.name(view.clutch.dam_id),
        sire=snapshot.herd.name(view.clutch.sire_id),
        dam_id=view.clutch.dam_id,
        sire_id=view.clutch.sire_id,
        egg_photos=[PhotoResponse.model_validate(p) for p in egg_photos],
        photos=[PhotoResponse.model_validate(p) for p in photos_of_owner(hatchling)],
    )


@router.post("/{hatchling}/weights", dependencies=[RECORD], status_code=201)
def weigh_hatchling(
    hatchling: HatchlingId, asked: HatchlingWeightRequest, now_s: NowS
) -> ActResponse:
    """Record a hatchling's weight."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(raising.weigh_hatchling(hatchling, asked.mass_g, at_s, now_s))


@router.post("/{hatchling}/shed", dependencies=[RECORD], status_code=201)
def see_shed(hatchling: HatchlingId, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Record a shed of a hatchling, its first or a later one."""
    return ActResponse.of(raising.see_shed(hatchling, seconds_or_now(asked.at, now_s), now_s))


@router.post("/{hatchling}/meals", dependencies=[RECORD], status_code=201)
def offer_hatchling_meal(
    hatchling: HatchlingId, asked: FirstMealRequest, now_s: NowS
) -> ActResponse:
    """Record a meal offered to a hatchling, taken or refused."""
    meal = MealCommand(asked.taken, asked.prey, asked.mass_g)
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(raising.offer_first_meal(hatchling, meal, at_s, now_s))


@router.post("/{hatchling}/tub", dependencies=[RECORD], status_code=201)
def put_hatchling_in_tub(hatchling: HatchlingId, asked: TubRequest, now_s: NowS) -> ActResponse:
    """Record the tub it lives in from then on."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(put_in_tub(hatchling, asked.name, at_s, now_s))


@router.post("/{hatchling}/held-back", dependencies=[RECORD], status_code=201)
def hold_back(hatchling: HatchlingId, asked: HoldBackRequest, now_s: NowS) -> HeldBackResponse:
    """Keep it to breed with: it becomes an animal, with its parents and its egg."""
    at_s = seconds_or_now(asked.at, now_s)
    animal, act = raising.hold_back(hatchling, asked.name, asked.role, at_s, now_s)
    return HeldBackResponse(animal=animal, act=ActResponse.of(act))


@router.post("/{hatchling}/departure", dependencies=[RECORD], status_code=201)
def record_hatchling_departure(
    hatchling: HatchlingId, asked: DepartureRequest, now_s: NowS
) -> ActResponse:
    """Record that it left the house: how, and when."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(leave_house(hatchling, asked.how, asked.note, at_s, now_s))
