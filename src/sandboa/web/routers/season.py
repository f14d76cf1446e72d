"""The season: lay windows, preparation, pairings and the plan of visits."""

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.core.laying import PreparationTask, Sign
from sandboa.services.breeding import pairings
from sandboa.services.breeding.lay_windows import (
    DamSeason,
    Season,
    season,
    tick_preparation,
)
from sandboa.services.snapshot.herd import Herd
from sandboa.web.house import NowS, TheHouse
from sandboa.web.shapes import (
    ActResponse,
    AskedMoment,
    Id,
    Moment,
    RequestSchema,
    ResponseSchema,
    WindowResponse,
    at,
    at_or_none,
)

router = APIRouter(prefix="/api/season", tags=["season"])

EntityId = Annotated[int, Path(ge=1, le=2**53)]


class PairRequest(RequestSchema):
    dam: Id
    sire: Id


class PairingRequest(PairRequest):
    """`until` null while the two are together; `lock_at` for a lock seen meanwhile."""

    start: AskedMoment | None = None
    until: AskedMoment | None = None
    lock_at: AskedMoment | None = None


class EndRequest(RequestSchema):
    until: AskedMoment | None = None


class LockRequest(RequestSchema):
    seen_at: AskedMoment | None = None


class SignRequest(RequestSchema):
    dam: Id
    sign: Sign
    seen_at: AskedMoment | None = None


class PreparationTickRequest(RequestSchema):
    dam: Id
    task: PreparationTask
    done: bool = True


class PairingResponse(BaseModel):
    id: int
    sire: str
    start: Moment
    until: Moment | None
    locks: list[Moment]


class SignResponse(ResponseSchema):
    sign: Sign
    seen_at: Moment = Field(validation_alias="seen_s")


class LayForecastResponse(BaseModel):
    """`window` null when she is overdue: no date is told then."""

    sign: Sign
    seen_at: Moment
    overdue: bool
    window: WindowResponse | None
    learned: str | None


class PreparationResponse(BaseModel):
    task: PreparationTask
    text: str
    start: Moment
    by: Moment
    done_at: Moment | None
    due: bool


class LaidThisSeasonResponse(BaseModel):
    code: str
    laid_at: Moment


class DamSeasonResponse(BaseModel):
    dam: int
    name: str
    laying: bool
    pairings: list[PairingResponse]
    signs: list[SignResponse]
    forecast: LayForecastResponse | None
    preparations: list[PreparationResponse]
    clutches: list[LaidThisSeasonResponse]

    @classmethod
    def of(cls, told: DamSeason, now_s: float, herd: Herd) -> "DamSeasonResponse":
        forecast = told.forecast
        return cls(
            dam=told.dam,
            name=told.name,
            laying=told.laying,
            pairings=[
                PairingResponse(
                    id=row.entity_id,
                    sire=herd.name(row.sire_id) or "",
                    start=at(row.from_s),
                    until=at_or_none(row.until_s),
                    locks=[at(seen_s) for seen_s in locks],
                )
                for row, locks in told.pairings
            ],
            signs=[SignResponse.model_validate(sign) for sign in told.signs],
            forecast=LayForecastResponse(
                sign=forecast.sign,
                seen_at=at(forecast.seen_s),
                overdue=forecast.overdue,
                window=WindowResponse.model_validate(forecast.window) if forecast.window else None,
                learned=told.learned_words,
            )
            if forecast
            else None,
            preparations=[
                PreparationResponse(
                    task=p.line.task,
                    text=p.line.text,
                    start=at(p.line.from_s),
                    by=at(p.line.by_s),
                    done_at=at_or_none(p.done_s),
                    due=p.due(now_s),
                )
                for p in told.preparations
            ],
            clutches=[
                LaidThisSeasonResponse(code=code, laid_at=at(laid_s))
                for code, laid_s in told.clutches
            ],
        )


class PlannedResponse(BaseModel):
    """`pairing` is the visit under way when the two are together now."""

    dam: int
    sire: int
    dam_name: str
    sire_name: str
    start: Moment
    together: bool
    due: bool
    pairing: int | None
    warnings: list[str]


class SeasonResponse(BaseModel):
    as_of: Moment
    dams: list[DamSeasonResponse]
    plan: list[PlannedResponse]


@router.get("")
def get_season(house: TheHouse, now_s: NowS) -> SeasonResponse:
    """Every dam with something to show, soonest first, and the plan of visits."""
    herd = house.snapshot().herd
    return _told(season(herd, now_s), now_s, herd)


@router.post("/pairs", status_code=201)
def plan_pair(asked: PairRequest, now_s: NowS) -> ActResponse:
    """Mean a dam and a sire for each other."""
    return ActResponse.of(pairings.plan_pair(asked.dam, asked.sire, now_s))


@router.delete("/pairs/{dam}/{sire}")
def drop_pair(dam: EntityId, sire: EntityId, now_s: NowS) -> ActResponse:
    """Take a pair out of the plan."""
    return ActResponse.of(pairings.drop_pair(dam, sire, now_s))


@router.post("/pairings", status_code=201)
def begin_pairing(asked: PairingRequest, now_s: NowS) -> ActResponse:
    """Record a visit of a sire, begun now or at `start`, with its end and a lock if known."""
    start_s = asked.start.timestamp() if asked.start else now_s
    until_s = asked.until.timestamp() if asked.until else None
    lock_s = asked.lock_at.timestamp() if asked.lock_at else None
    _, act = pairings.begin_pairing(asked.dam, asked.sire, start_s, now_s, until_s, lock_s)
    return ActResponse.of(act)


@router.post("/pairings/{pairing}/end", status_code=201)
def end_pairing(pairing: EntityId, asked: EndRequest, now_s: NowS) -> ActResponse:
    """Record that the two were parted."""
    until_s = asked.until.timestamp() if asked.until else now_s
    return ActResponse.of(pairings.end_pairing(pairing, until_s, now_s))


@router.post("/pairings/{pairing}/locks", status_code=201)
def see_lock(pairing: EntityId, asked: LockRequest, now_s: NowS) -> ActResponse:
    """Record a lock seen."""
    seen_s = asked.seen_at.timestamp() if asked.seen_at else now_s
    return ActResponse.of(pairings.see_lock(pairing, seen_s, now_s))


@router.post("/signs", status_code=201)
def see_sign(asked: SignRequest, now_s: NowS) -> ActResponse:
    """Record off food, ovulation or a pre-lay shed."""
    seen_s = asked.seen_at.timestamp() if asked.seen_at else now_s
    return ActResponse.of(pairings.see_sign(asked.dam, asked.sign, seen_s, now_s))


@router.post("/preparations", status_code=201)
def tick(asked: PreparationTickRequest, now_s: NowS) -> ActResponse:
    """Tick a line of a dam's preparation list, or take the tick back."""
    return ActResponse.of(tick_preparation(asked.dam, asked.task, asked.done, now_s))


def _told(now: Season, now_s: float, herd: Herd) -> SeasonResponse:
    return SeasonResponse(
        as_of=at(now_s),
        dams=[DamSeasonResponse.of(dam, now_s, herd) for dam in now.dams],
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
