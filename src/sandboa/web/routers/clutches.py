"""Clutch: where it stands, its eggs, and what is recorded at the box."""

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.core.candling import Disc, Vessels
from sandboa.core.methods import Method
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.acts.strict_model import Strictly
from sandboa.services.boxes import commands as looks
from sandboa.services.climate.faults import clutch_faults
from sandboa.services.clutches import methods
from sandboa.services.clutches.cards import card_of
from sandboa.services.clutches.clutch_view import ClutchPage, clutch_page
from sandboa.services.forms.clutch import clutch_form
from sandboa.services.forms.numbers import clutch_method_form
from sandboa.services.overview.today import attention
from sandboa.services.rounds.due_now import BoxDue, box_due
from sandboa.web.egg_shapes import EggResponse, egg_told
from sandboa.web.fault_shapes import FaultResponse, fault_told
from sandboa.web.house import NowS, TheHouse
from sandboa.web.revisions import Revision, Seen
from sandboa.web.routers.rounds import DueResponse, PostponedResponse, due_told
from sandboa.web.routers.today import AttentionResponse
from sandboa.web.shapes import (
    ActResponse,
    AskedMoment,
    ForecastResponse,
    LogResponse,
    Moment,
    RequestSchema,
    ResponseSchema,
    RibbonPieceResponse,
    at_or_none,
)
from sandboa.web.water_shapes import BoxWaterResponse

router = APIRouter(prefix="/api/clutches", tags=["clutch"])

Code = Annotated[str, Path(max_length=20)]
EggNumber = Annotated[int, Path(ge=1, le=1000)]


class BoxResponse(BaseModel):
    cabinet: str
    shelf: str
    medium: str | None
    on_grid: bool
    dry_mass_g: float | None
    water_g: float | None
    set_up_mass_g: float | None
    closing: str | None
    set_point_c: float
    set_point_at_lay_c: float
    temperature_c: float


class ColdSpellResponse(ResponseSchema):
    start: Moment = Field(validation_alias="start_s")
    end: Moment = Field(validation_alias="end_s")
    lowest_c: float
    delay_days: float


class GapResponse(ResponseSchema):
    start: Moment = Field(validation_alias="start_s")
    end: Moment = Field(validation_alias="end_s")
    filled_from: str = Field(validation_alias="provenance")


class ProbeResponse(ResponseSchema):
    id: int = Field(validation_alias="entity")
    name: str
    by_hand: bool


class DifferenceResponse(ResponseSchema):
    """A line on which the clutch departs from its house method."""

    line: str
    house: str
    own: str


class LearnedResponse(BaseModel):
    """What finished clutches taught: of how many, how many in this cabinet, and the days it moves
    the forecast (negative: earlier)."""

    clutches: int
    in_cabinet: int
    days: float


class CardLineResponse(ResponseSchema):
    name: str
    text: str


class CardResponse(ResponseSchema):
    """What card and label say beside the dates."""

    parents: str
    lines: list[CardLineResponse]
    egg_notes: str
    keeping: str


class ClutchResponse(BaseModel):
    """`revision` is of the clutch as laid, `method_revision` of its method."""

    id: int
    revision: Revision
    method_revision: Revision
    code: str
    maternal: bool
    method: Method
    house_method: str
    differences: list[DifferenceResponse]
    dam_id: int
    sire_id: int | None
    dam: str
    sire: str | None
    laid_at: Moment
    day: int
    count: str
    card: CardResponse
    box: BoxResponse
    box_water: BoxWaterResponse | None
    lid: str | None
    due: list[DueResponse]
    postponed: list[PostponedResponse]
    forecast: ForecastResponse | None
    rests_on: str
    gaps: list[GapResponse]
    cold_spells: list[ColdSpellResponse]
    ribbon: list[RibbonPieceResponse]
    eggs: list[EggResponse]
    attention: list[AttentionResponse]
    faults: list[FaultResponse]
    learned: LearnedResponse
    finished_at: Moment | None
    probes: list[ProbeResponse]
    log: list[LogResponse]


class GradeRequest(RequestSchema):
    """A turgor grade; `at` is when it was seen, now when left out."""

    grade: Annotated[int, Field(ge=0, le=4)]
    at: AskedMoment | None = None


class CandlingRequest(RequestSchema):
    """What the torch showed; `disc` null when it was not looked for."""

    vessels: Vessels
    disc: Disc | None = None
    at: AskedMoment | None = None


class WateringRequest(RequestSchema):
    water_g: float
    at: AskedMoment | None = None


@router.get("/{code}")
def get_clutch(code: Code, house: TheHouse, now_s: NowS) -> ClutchResponse:
    """Everything the Clutch place shows."""
    page = clutch_page(house.snapshot(), code, now_s)
    faults = clutch_faults(house.snapshot(), house.faults, page.now, now_s)
    snapshot = house.snapshot()
    box = box_due(snapshot, page.now, now_s)
    return _told(page, box, [fault_told(snapshot, fault) for fault in faults], now_s)


@router.post("/{code}/eggs/{number}/grades", status_code=201)
def grade_egg(code: Code, number: EggNumber, asked: GradeRequest, now_s: NowS) -> ActResponse:
    """Record an egg's turgor grade."""
    seen_s = asked.at.timestamp() if asked.at else now_s
    return ActResponse.of(looks.grade_egg(code, number, asked.grade, seen_s, now_s))


@router.post("/{code}/eggs/{number}/candlings", status_code=201)
def candle_egg(code: Code, number: EggNumber, asked: CandlingRequest, now_s: NowS) -> ActResponse:
    """Record what the torch showed."""
    seen_s = asked.at.timestamp() if asked.at else now_s
    act = looks.candle_egg(code, number, asked.vessels, asked.disc, seen_s, now_s)
    return ActResponse.of(act)


@router.put("/{code}/method")
def change_method(
    code: Code, asked: Annotated[Method, Strictly()], seen: Seen, now_s: NowS
) -> ActResponse:
    """Let the clutch differ from its house method."""
    with saved_over(seen, lambda: clutch_method_form(code)):
        return ActResponse.of(methods.change_clutch_method(code, asked, now_s))


@router.post("/{code}/waterings", status_code=201)
def water_box(code: Code, asked: WateringRequest, now_s: NowS) -> ActResponse:
    """Record water added to the box."""
    poured_s = asked.at.timestamp() if asked.at else now_s
    return ActResponse.of(looks.water_box(code, asked.water_g, poured_s, now_s))


def _told(
    page: ClutchPage, box: BoxDue, faults: list[FaultResponse], now_s: float
) -> ClutchResponse:
    now = page.now
    due, postponed = due_told(box)
    return ClutchResponse(
        id=now.clutch.entity_id,
        code=now.clutch.code,
        maternal=now.maternal,
        revision=revision_of(clutch_form(now.clutch.code)),
        method_revision=revision_of(clutch_method_form(now.clutch.code)),
        method=page.method,
        house_method=page.house_method,
        differences=[DifferenceResponse.model_validate(d) for d in page.differences],
        dam_id=now.clutch.dam_id,
        sire_id=now.clutch.sire_id,
        dam=now.dam,
        sire=now.sire,
        laid_at=now.clutch.laid_s,  # type: ignore[arg-type]
        day=now.day,
        count=str(now.count),
        card=CardResponse.model_validate(card_of(page)),
        box=BoxResponse(
            cabinet=now.cabinet,
            shelf=now.shelf,
            medium=now.box.medium,
            on_grid=now.on_grid,
            dry_mass_g=now.box.dry_mass_g,
            water_g=now.box.water_g,
            set_up_mass_g=now.box.set_up_mass_g,
            closing=now.box.closing,
            set_point_c=now.set_point_c,
            set_point_at_lay_c=now.set_point_at_lay_c,
            temperature_c=now.curve.temperature.future_c,
        ),
        box_water=BoxWaterResponse.of(now.water) if now.water else None,
        lid=now.lid,
        due=due,
        postponed=postponed,
        forecast=ForecastResponse.of(now.forecast) if now.forecast else None,
        rests_on=page.rests_on,
        gaps=[GapResponse.model_validate(gap) for gap in page.gaps],
        cold_spells=[ColdSpellResponse.model_validate(spell) for spell in now.cold_spells],
        ribbon=[RibbonPieceResponse.of(piece) for piece in page.ribbon],
        eggs=[egg_told(egg) for egg in now.eggs.eggs],
        attention=[AttentionResponse.model_validate(a) for a in attention(now, now_s)],
        faults=faults,
        learned=LearnedResponse(
            clutches=now.learned.clutches,
            in_cabinet=now.learned.in_cabinet,
            days=now.learned_days,
        ),
        finished_at=at_or_none(now.finished_s),
        probes=[ProbeResponse.model_validate(probe) for probe in page.probes],
        log=[LogResponse.of(entry) for entry in page.log],
    )
