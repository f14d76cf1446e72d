"""The season: lay windows, preparation, pairings and the plan of visits."""

from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.services.breeding import pairings
from sandboa.services.breeding.commands import tick_preparation
from sandboa.services.breeding.lay_windows import LaySeason, lay_season
from sandboa.services.snapshot.herd import Herd
from sandboa.web.breeding.schemas import (
    DamLaySeasonResponse,
    EndRequest,
    LaySeasonResponse,
    LockRequest,
    PairingRequest,
    PairRequest,
    PlannedResponse,
    PreparationTickRequest,
    SignRequest,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.schemas.common import ActResponse, at, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/breeding", tags=["season"])


EntityId = Annotated[int, Path(ge=1, le=2**53)]


@router.get("", dependencies=[LOOK])
def get_season(house: TheHouse, now_s: NowS) -> LaySeasonResponse:
    """Every dam with something to show, soonest first, and the plan of visits."""
    herd = house.snapshot().herd
    return _told(lay_season(herd, now_s), now_s, herd)


@router.post("/pairs", dependencies=[RECORD], status_code=201)
def plan_pair(asked: PairRequest, now_s: NowS) -> ActResponse:
    """Mean a dam and a sire for each other."""
    return ActResponse.of(pairings.plan_pair(asked.dam, asked.sire, now_s))


@router.delete("/pairs/{dam}/{sire}", dependencies=[RECORD])
def drop_pair(dam: EntityId, sire: EntityId, now_s: NowS) -> ActResponse:
    """Take a pair out of the plan."""
    return ActResponse.of(pairings.drop_pair(dam, sire, now_s))


@router.post("/pairings", dependencies=[RECORD], status_code=201)
def begin_pairing(asked: PairingRequest, now_s: NowS) -> ActResponse:
    """Record a visit of a sire, begun now or at `start`, with its end and a lock if known."""
    start_s = seconds_or_now(asked.start, now_s)
    until_s = asked.until.timestamp() if asked.until else None
    lock_s = asked.lock_at.timestamp() if asked.lock_at else None
    _, act = pairings.begin_pairing(asked.dam, asked.sire, start_s, now_s, until_s, lock_s)
    return ActResponse.of(act)


@router.post("/pairings/{pairing}/end", dependencies=[RECORD], status_code=201)
def end_pairing(pairing: EntityId, asked: EndRequest, now_s: NowS) -> ActResponse:
    """Record that the two were parted."""
    until_s = seconds_or_now(asked.until, now_s)
    return ActResponse.of(pairings.end_pairing(pairing, until_s, now_s))


@router.post("/pairings/{pairing}/locks", dependencies=[RECORD], status_code=201)
def see_lock(pairing: EntityId, asked: LockRequest, now_s: NowS) -> ActResponse:
    """Record a lock seen."""
    seen_s = seconds_or_now(asked.seen_at, now_s)
    return ActResponse.of(pairings.see_lock(pairing, seen_s, now_s))


@router.post("/signs", dependencies=[RECORD], status_code=201)
def see_sign(asked: SignRequest, now_s: NowS) -> ActResponse:
    """Record off food, ovulation or a pre-lay shed."""
    seen_s = seconds_or_now(asked.seen_at, now_s)
    return ActResponse.of(pairings.see_sign(asked.dam, asked.sign, seen_s, now_s))


@router.post("/preparations", dependencies=[RECORD], status_code=201)
def tick(asked: PreparationTickRequest, now_s: NowS) -> ActResponse:
    """Tick a line of a dam's preparation list, or take the tick back."""
    done_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(tick_preparation(asked.dam, asked.task, asked.done, now_s, done_s))


def _told(now: LaySeason, now_s: float, herd: Herd) -> LaySeasonResponse:
    return LaySeasonResponse(
        as_of=at(now_s),
        dams=[DamLaySeasonResponse.of(dam, now_s, herd) for dam in now.dams],
        plan=[
            PlannedResponse(
                dam=p.visit.dam,
                sire=p.visit.sire,
                dam_name=p.dam,
                sire_name=p.sire,
                start=at(p.visit.from_s),
                together=p.visit.together,
                due=p.visit.from_s <= now_s,
                pairing=p.pairing,
                warnings=list(p.warnings),
            )
            for p in now.plan
        ],
    )
