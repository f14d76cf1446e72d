"""Requests and responses of this place."""

from pydantic import BaseModel, Field

from sandboa.core.laying import PreparationTask, Sign
from sandboa.services.breeding.lay_windows import (
    DamLaySeason,
)
from sandboa.services.snapshot.herd import Herd
from sandboa.web.schemas.common import (
    AskedMoment,
    Id,
    Moment,
    RequestSchema,
    ResponseSchema,
    WindowResponse,
    at,
    at_or_none,
)


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
    at: AskedMoment | None = None


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


class DamLaySeasonResponse(BaseModel):
    dam: int
    name: str
    laying: bool
    pairings: list[PairingResponse]
    signs: list[SignResponse]
    forecast: LayForecastResponse | None
    preparations: list[PreparationResponse]
    clutches: list[LaidThisSeasonResponse]

    @classmethod
    def of(cls, told: DamLaySeason, now_s: float, herd: Herd) -> "DamLaySeasonResponse":
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


class LaySeasonResponse(BaseModel):
    as_of: Moment
    dams: list[DamLaySeasonResponse]
    plan: list[PlannedResponse]
