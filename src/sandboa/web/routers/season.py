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
    ActTold,
    Asked,
    AskedMoment,
    Id,
    Moment,
    Told,
    WindowTold,
    at,
    at_or_none,
)

router = APIRouter(prefix="/api/season", tags=["season"])

EntityId = Annotated[int, Path(ge=1, le=2**53)]


class PairAsked(Asked):
    dam: Id
    sire: Id


class PairingAsked(PairAsked):
    """`until` null while the two are together; `lock_at` for a lock seen meanwhile."""

    start: AskedMoment | None = None
    until: AskedMoment | None = None
    lock_at: AskedMoment | None = None


class EndAsked(Asked):
    until: AskedMoment | None = None


class LockAsked(Asked):
    seen_at: AskedMoment | None = None


class SignAsked(Asked):
    dam: Id
    sign: Sign
    seen_at: AskedMoment | None = None


class PreparationTickAsked(Asked):
    dam: Id
    task: PreparationTask
    done: bool = True


class PairingTold(BaseModel):
    id: int
    sire: str
    start: Moment
    until: Moment | None
    locks: list[Moment]


class SignTold(Told):
    sign: Sign
    seen_at: Moment = Field(validation_alias="seen_s")


class LayForecastTold(BaseModel):
    """`window` null when she is overdue: no date is told then."""

    sign: Sign
    seen_at: Moment
    overdue: bool
    window: WindowTold | None
    learned: str | None


class PreparationTold(BaseModel):
    task: PreparationTask
    text: str
    start: Moment
    by: Moment
    done_at: Moment | None
    due: bool


class LaidThisSeasonTold(BaseModel):
    code: str
    laid_at: Moment


class DamSeasonTold(BaseModel):
    dam: int
    name: str
    laying: bool
    pairings: list[PairingTold]
    signs: list[SignTold]
    forecast: LayForecastTold | None
    preparations: list[PreparationTold]
    clutches: list[LaidThisSeasonTold]

    @classmethod
    def of(cls, told: DamSeason, now_s: float, herd: Herd) -> "DamSeasonTold":
        forecast = told.forecast
        return cls(
            dam=told.dam,
            name=told.name,
            laying=told.laying,
            pairings=[
                PairingTold(
                    id=row.entity_id,
                    sire=herd.name(row.sire_id) or "",
                    start=at(row.from_s),
                    until=at_or_none(row.until_s),
                    locks=[at(seen_s) for seen_s in locks],
                )
                for row, locks in told.pairings
            ],
            signs=[SignTold.model_validate(sign) for sign in told.signs],
            forecast=LayForecastTold(
                sign=forecast.sign,
                seen_at=at(forecast.seen_s),
                overdue=forecast.overdue,
                window=WindowTold.model_validate(forecast.window) if forecast.window else None,
                learned=told.learned_words,
            )
            if forecast
            else None,
            preparations=[
                PreparationTold(
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
                LaidThisSeasonTold(code=code, laid_at=at(laid_s)) for code, laid_s in told.clutches
            ],
        )


class PlannedTold(BaseModel):
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


class SeasonTold(BaseModel):
    as_of: Moment
    dams: list[DamSeasonTold]
    plan: list[PlannedTold]


@router.get("")
def get_season(house: TheHouse, now_s: NowS) -> SeasonTold:
    """Every dam with something to show, soonest first, and the plan of visits."""
    herd = house.snapshot().herd
    return _told(season(herd, now_s), now_s, herd)


@router.post("/pairs", status_code=201)
def plan_pair(asked: PairAsked, now_s: NowS) -> ActTold:
    """Mean a dam and a sire for each other."""
    return ActTold.of(pairings.plan_pair(asked.dam, asked.sire, now_s))


@router.delete("/pairs/{dam}/{sire}")
def drop_pair(dam: EntityId, sire: EntityId, now_s: NowS) -> ActTold:
    """Take a pair out of the plan."""
    return ActTold.of(pairings.drop_pair(dam, sire, now_s))


@router.post("/pairings", status_code=201)
def begin_pairing(asked: PairingAsked, now_s: NowS) -> ActTold:
    """Record a visit of a sire, begun now or at `start`, with its end and a lock if known."""
    start_s = asked.start.timestamp() if asked.start else now_s
    until_s = asked.until.timestamp() if asked.until else None
    lock_s = asked.lock_at.timestamp() if asked.lock_at else None
    _, act = pairings.begin_pairing(asked.dam, asked.sire, start_s, now_s, until_s, lock_s)
    return ActTold.of(act)


@router.post("/pairings/{pairing}/end", status_code=201)
def end_pairing(pairing: EntityId, asked: EndAsked, now_s: NowS) -> ActTold:
    """Record that the two were parted."""
    until_s = asked.until.timestamp() if asked.until else now_s
    return ActTold.of(pairings.end_pairing(pairing, until_s, now_s))


@router.post("/pairings/{pairing}/locks", status_code=201)
def see_lock(pairing: EntityId, asked: LockAsked, now_s: NowS) -> ActTold:
    """Record a lock seen."""
    seen_s = asked.seen_at.timestamp() if asked.seen_at else now_s
    return ActTold.of(pairings.see_lock(pairing, seen_s, now_s))


@router.post("/signs", status_code=201)
def see_sign(asked: SignAsked, now_s: NowS) -> ActTold:
    """Record off food, ovulation or a pre-lay shed."""
    seen_s = asked.seen_at.timestamp() if asked.seen_at else now_s
    return ActTold.of(pairings.see_sign(asked.dam, asked.sign, seen_s, now_s))


@router.post("/preparations", status_code=201)
def tick(asked: PreparationTickAsked, now_s: NowS) -> ActTold:
    """Tick a line of a dam's preparation list, or take the tick back."""
    return ActTold.of(tick_preparation(asked.dam, asked.task, asked.done, now_s))


def _told(now: Season, now_s: float, herd: Herd) -> SeasonTold:
    return SeasonTold(
        as_of=at(now_s),
        dams=[DamSeasonTold.of(dam, now_s, herd) for dam in now.dams],
        plan=[
            PlannedTold(
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
