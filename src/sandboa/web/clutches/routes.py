"""Clutch: where it stands, its eggs, and what is recorded at the box."""

from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.core.methods import Contact, Method
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.acts.strict_model import Strictly
from sandboa.services.boxes import commands as looks
from sandboa.services.breeding.paternity import name_sires, possible_sires
from sandboa.services.climate.faults import clutch_faults
from sandboa.services.clutches import methods
from sandboa.services.clutches.box_view import BoxNow
from sandboa.services.clutches.cards import card_of
from sandboa.services.clutches.clutch_view import ClutchPage, clutch_page
from sandboa.services.forms.clutch import (
    box_form,
    boxes_as_laid,
    clutch_form,
    dam_at_laying_form,
    origin_form,
    sires_form,
)
from sandboa.services.forms.numbers import clutch_method_form
from sandboa.services.hatching.mixed_up import swap_findings, swap_numbers
from sandboa.services.lay_day import drafts
from sandboa.services.lay_day.dam_at_laying import DamAtLaying, correct_dam_at_laying
from sandboa.services.lay_day.origin import correct_origin as lay_day_origin
from sandboa.services.lay_day.origin import forget_origin
from sandboa.services.lay_day.state import OriginState
from sandboa.services.overview.today import attention
from sandboa.services.rounds.due_now import box_due
from sandboa.web.clutches.schemas import (
    AsLaidResponse,
    BoxResponse,
    CandlingRequest,
    CardResponse,
    ClutchResponse,
    ColdSpellResponse,
    DamAtLayingRequest,
    DamAtLayingResponse,
    DifferenceResponse,
    GapResponse,
    GradeRequest,
    LearnedResponse,
    MethodCopiesRequest,
    OriginRequest,
    OriginResponse,
    PossibleSireResponse,
    ProbeResponse,
    SiresRequest,
    SwapRequest,
)
from sandboa.web.house import MomentS, NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.rounds.schemas import due_told
from sandboa.web.schemas.common import (
    ActResponse,
    ExpectedResponse,
    ForecastResponse,
    ImpossiblePipResponse,
    LogResponse,
    RibbonPieceResponse,
    at_or_none,
    seconds_or_now,
)
from sandboa.web.schemas.eggs import egg_told
from sandboa.web.schemas.faults import FaultResponse, fault_told
from sandboa.web.schemas.water import BoxWaterResponse
from sandboa.web.security.permissions import LOOK, RECORD
from sandboa.web.today.schemas import AttentionResponse

router = APIRouter(prefix="/api/clutches", tags=["clutch"])


Code = Annotated[str, Path(max_length=20)]


EggNumber = Annotated[int, Path(ge=1, le=1000)]


@router.get("/{code}", dependencies=[LOOK])
def get_clutch(code: Code, house: TheHouse, now_s: MomentS) -> ClutchResponse:
    """Everything the Clutch place shows."""
    page = clutch_page(house.snapshot(), code, now_s)
    faults = clutch_faults(house.snapshot(), page.now, now_s)
    snapshot = house.snapshot()
    return _told(page, [fault_told(snapshot, fault) for fault in faults], now_s)


@router.post("/{code}/eggs/{number}/grades", dependencies=[RECORD], status_code=201)
def grade_egg(code: Code, number: EggNumber, asked: GradeRequest, now_s: NowS) -> ActResponse:
    """Record an egg's turgor grade."""
    seen_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(looks.grade_egg(code, number, asked.grade, seen_s, now_s))


@router.post("/{code}/eggs/{number}/candlings", dependencies=[RECORD], status_code=201)
def candle_egg(code: Code, number: EggNumber, asked: CandlingRequest, now_s: NowS) -> ActResponse:
    """Record what the torch showed."""
    seen_s = seconds_or_now(asked.at, now_s)
    act = looks.candle_egg(code, number, asked.vessels, asked.disc, seen_s, now_s)
    return ActResponse.of(act)


@router.post("/methods", dependencies=[RECORD], status_code=201)
def copy_method(asked: MethodCopiesRequest, now_s: NowS) -> ActResponse:
    """Let several clutches follow a house method, all of them or none."""
    codes = list(dict.fromkeys(asked.clutches))
    return ActResponse.of(methods.copy_to_clutches(asked.method, codes, now_s))


@router.put("/{code}/method", dependencies=[RECORD])
def change_method(
    code: Code, asked: Annotated[Method, Strictly()], seen: Seen, now_s: NowS
) -> ActResponse:
    """Let the clutch differ from its house method."""
    with saved_over(seen, lambda: clutch_method_form(code)):
        return ActResponse.of(methods.change_clutch_method(code, asked, now_s))


@router.put("/{code}/sires", dependencies=[RECORD])
def say_sires(code: Code, asked: SiresRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Say which sires a clutch may be of, or that it is known now."""
    with saved_over(seen, lambda: sires_form(code)):
        return ActResponse.of(name_sires(code, asked.sires, now_s))


@router.get("/{code}/dam-at-laying", dependencies=[LOOK])
def get_dam_at_laying(code: Code) -> DamAtLayingResponse:
    """What lay day said of the dam."""
    form = dam_at_laying_form(code)
    return DamAtLayingResponse.model_validate({**form, "revision": revision_of(form)})


@router.put("/{code}/dam-at-laying", dependencies=[RECORD])
def put_dam_at_laying(
    code: Code, asked: DamAtLayingRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Correct what lay day said of the dam; the earlier values stay in the log."""
    with saved_over(seen, lambda: dam_at_laying_form(code)):
        said = DamAtLaying(asked.lump, asked.mass_g)
        return ActResponse.of(correct_dam_at_laying(code, said, now_s))


@router.post("/{code}/eggs/swapped", dependencies=[RECORD], status_code=201)
def swap_eggs(code: Code, asked: SwapRequest, now_s: NowS) -> ActResponse:
    """Swap the numbers of two eggs, or what was seen of them."""
    if asked.since is None:
        return ActResponse.of(swap_numbers(code, asked.one, asked.other, now_s))
    since_s, until_s = asked.since.timestamp(), seconds_or_now(asked.until, now_s)
    act = swap_findings(code, asked.one, asked.other, since_s, until_s, now_s)
    return ActResponse.of(act)


@router.put("/{code}/origin", dependencies=[RECORD])
def correct_origin(code: Code, asked: OriginRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Say, or correct, where a clutch comes from that nobody saw laid."""
    with saved_over(seen, lambda: origin_form(code)):
        if asked.kind is None:
            laid_at = asked.laid_at or drafts.moment(now_s)
            return ActResponse.of(forget_origin(code, laid_at, now_s))
        said = OriginState(
            kind=asked.kind,
            laid_at=asked.laid_at,
            laid_from=asked.laid_from,
            laid_until=asked.laid_until,
            stage=asked.stage,
            stage_seen_at=asked.stage_seen_at,
            arrived_at=asked.arrived_at,
            before_c=asked.before_c,
        )
        return ActResponse.of(lay_day_origin(code, said.command(), now_s))


def _origin(page: ClutchPage) -> OriginResponse | None:
    held = origin_form(page.now.clutch.code)
    if held is None:
        return None
    return OriginResponse.model_validate({**held, "words": page.origin_words})


def _told(page: ClutchPage, faults: list[FaultResponse], now_s: float) -> ClutchResponse:
    now = page.now
    form = clutch_form(now.clutch.code)
    return ClutchResponse(
        id=now.clutch.entity_id,
        code=now.clutch.code,
        maternal=now.maternal,
        revision=revision_of(form),
        as_laid=AsLaidResponse.model_validate(
            {**form, "boxes": boxes_as_laid(now.clutch.code)}, extra="ignore"
        ),
        method_revision=revision_of(clutch_method_form(now.clutch.code)),
        method=page.method,
        house_method=page.house_method,
        differences=[DifferenceResponse.model_validate(d) for d in page.differences],
        dam_id=now.clutch.dam_id,
        sire_id=now.clutch.sire_id,
        dam=now.dam,
        sire=now.sire,
        possible_sires=[
            PossibleSireResponse.model_validate(one)
            for one in possible_sires(page.at.snapshot, now.clutch)
        ],
        laid_at=now.clutch.laid_s,  # type: ignore[arg-type]
        day=now.day,
        count=str(now.count),
        card=CardResponse.model_validate(card_of(page)),
        boxes=[_box(page, box) for box in now.boxes],
        box=now.box.box.name,
        set_point_at_lay_c=now.set_points.at(now.clutch.laid_s),
        forecast=ForecastResponse.of(now.forecast) if now.forecast else None,
        rests_on=page.rests_on,
        origin=_origin(page),
        sires_revision=revision_of(sires_form(now.clutch.code)),
        origin_revision=revision_of(origin_form(now.clutch.code)),
        gaps=[GapResponse.model_validate(gap) for gap in page.gaps],
        cold_spells=[ColdSpellResponse.model_validate(spell) for spell in now.cold_spells],
        ribbon=[RibbonPieceResponse.of(piece) for piece in page.ribbon],
        eggs=[egg_told(egg) for egg in now.eggs],
        attention=[AttentionResponse.model_validate(a) for a in attention(now, now_s)],
        faults=faults,
        learned=LearnedResponse(
            clutches=now.learned.clutches,
            in_cabinet=now.learned.in_cabinet,
            days=now.learned_days,
            sentences=list(page.learned_words),
        ),
        expected=ExpectedResponse.model_validate(now.expected) if now.expected else None,
        impossible_pip=ImpossiblePipResponse.of(now.impossible_pip),
        finished_at=at_or_none(now.finished_s),
        probes=[ProbeResponse.model_validate(probe) for probe in page.probes],
        log=[LogResponse.of(entry) for entry in page.log],
    )


def _box(page: ClutchPage, box: BoxNow) -> BoxResponse:
    due, postponed = due_told(box_due(page.at, box))
    return BoxResponse(
        id=box.box.entity_id,
        name=box.box.name,
        revision=revision_of(box_form(box.box.name)),
        kind=box.kind,
        shared_with=[c.code for c in box.clutches if c.entity_id != page.now.clutch.entity_id],
        cabinet=box.cabinet,
        shelf=box.shelf.name,
        medium=box.box.medium,
        on_grid=box.on_grid,
        dry_mass_g=box.box.dry_mass_g,
        water_g=box.box.water_g,
        set_up_mass_g=box.box.set_up_mass_g,
        contact=Contact(box.box.contact) if box.box.contact else None,
        closing=box.box.closing,
        set_point_c=box.set_point_c,
        temperature_c=box.box_c,
        since=box.box.from_s,  # type: ignore[arg-type]
        box_water=BoxWaterResponse.of(box.water) if box.water else None,
        lid=box.lid,
        due=due,
        postponed=postponed,
        eggs=[egg_told(egg) for egg in box.eggs],
    )
