"""Egg: its standing with the evidence for it, its history and photos; what-if of its box."""

from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.core.box import Closing
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.standing import Standing
from sandboa.services.boxes.water import OtherClosing
from sandboa.services.clutches.clutch_view import what_if_water
from sandboa.services.clutches.egg_view import EggPage, egg_page
from sandboa.web.eggs.schemas import EggMomentResponse, EggPageResponse, StandingResponse
from sandboa.web.house import NowS, TheHouse
from sandboa.web.schemas.common import PhotoResponse
from sandboa.web.schemas.eggs import EvidenceResponse, egg_told
from sandboa.web.schemas.water import WaterLeftResponse, water_left_told
from sandboa.web.security.permissions import LOOK

router = APIRouter(prefix="/api/clutches", tags=["egg"])


Code = Annotated[str, Path(max_length=20)]


@router.get("/{code}/eggs/{number}", dependencies=[LOOK])
def get_egg(
    code: Code, number: Annotated[int, Path(ge=1, le=1000)], house: TheHouse, now_s: NowS
) -> EggPageResponse:
    """Everything of one egg."""
    page = egg_page(house.snapshot(), code, number, now_s)
    rules = house.snapshot().settings.rules.standing
    return _told(page, rules.standing_from, rules.dependence, now_s)


@router.get("/{code}/water", dependencies=[LOOK])
def get_what_if(
    code: Code,
    house: TheHouse,
    now_s: NowS,
    closing: Annotated[Closing | None, Query()] = None,
    humidity: Annotated[float | None, Query(ge=0, le=1)] = None,
) -> WaterLeftResponse | None:
    """The box's water were it closed another way, or its cabinet damper, from now on."""
    return water_left_told(
        what_if_water(house.snapshot(), code, now_s, OtherClosing(closing, humidity))
    )


def _told(
    page: EggPage, thresholds: dict[Standing, float], dependence: float, now_s: float
) -> EggPageResponse:
    now, egg = page.now, page.egg
    standing = egg.standing
    return EggPageResponse(
        as_of=now_s,  # type: ignore[arg-type]
        clutch_id=now.clutch.entity_id,
        code=now.clutch.code,
        dam=now.dam,
        day=now.day,
        fraction=now.fraction,
        egg=egg_told(egg),
        allowed_words=GRADE_WORDS[egg.allowed_grade],
        box_scope=now.eggs.box.scope,
        early_eggs=list(now.eggs.box.early_eggs),
        live_eggs=now.eggs.box.live_eggs,
        standing=StandingResponse(
            standing=standing.standing,
            alive=standing.alive,
            log_odds=standing.log_odds,
            prior=EvidenceResponse.model_validate(standing.prior),
            evidence=[EvidenceResponse.model_validate(e) for e in standing.evidence],
        )
        if standing
        else None,
        thresholds={str(s): start for s, start in thresholds.items()},
        dependence=dependence,
        history=[EggMomentResponse.model_validate(m) for m in page.history],
        photos=[PhotoResponse.model_validate(p) for p in page.photos],
    )
