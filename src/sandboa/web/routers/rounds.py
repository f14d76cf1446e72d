"""Rounds: the boxes a phone carries along, visits delivered, reasons put off."""

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field

from sandboa.core.box import Closing
from sandboa.core.candling import Disc, Vessels
from sandboa.core.rounds import BoxActKind, DueKind, EggActKind
from sandboa.core.standing import SignKind
from sandboa.services.rounds.close_visit import Closed, Refused, deliver
from sandboa.services.rounds.due_now import BoxDue, postpone
from sandboa.services.rounds.round_now import RoundBox, round_now
from sandboa.services.rounds.visit import BoxVisit, EggSeen, FreshMedium
from sandboa.web.egg_shapes import EggResponse, egg_told
from sandboa.web.house import NowS, TheHouse
from sandboa.web.shapes import ActResponse, AskedMoment, Moment, RequestSchema, ResponseSchema
from sandboa.web.water_shapes import BoxWaterResponse

router = APIRouter(prefix="/api", tags=["rounds"])

#: Visits a device may deliver in one request; it sends the rest in the next.
MOST_VISITS = 500

_Name = Annotated[str, Field(max_length=200)]
_Word = Annotated[str, Field(max_length=40)]
_Grams = Annotated[float, Field(gt=-100_000, lt=100_000)]


class DueResponse(ResponseSchema):
    """A reason to open the box, since when."""

    kind: DueKind
    since: Moment = Field(validation_alias="since_s")
    urgency: str
    text: str
    eggs: list[int]


class PostponedResponse(DueResponse):
    """A reason that was put off."""

    until: Moment


class TopUpStepResponse(ResponseSchema):
    """A box that weighs `from_g` or more, and less than the step before, lacks `add_g`."""

    from_g: float
    add_g: float
    today_g: float
    split: bool


class ShelfChoice(BaseModel):
    cabinet: str
    shelf: str


class RoundBoxResponse(BaseModel):
    """A box as a phone carries it into the room."""

    id: int
    code: str
    dam: str
    cabinet: str
    shelf: str
    day: int
    fraction: float
    urgency: str
    due: list[DueResponse]
    postponed: list[PostponedResponse]
    last_visit_at: Moment
    visited: bool
    seen_act: int
    on_grid: bool
    mould_method: str
    box_c: float
    box_water: BoxWaterResponse
    lid: str | None
    top_ups: list[TopUpStepResponse]
    heaviest_g: float | None
    eggs: list[EggResponse]


class RoundResponse(BaseModel):
    as_of: Moment
    boxes: list[RoundBoxResponse]
    shelves: list[ShelfChoice]


class EggSignRequest(RequestSchema):
    kind: SignKind
    value: _Word


class EggSeenRequest(RequestSchema):
    """What was recorded of one egg; left out where nothing was."""

    number: Annotated[int, Field(ge=1, le=1000)]
    grade: Annotated[int, Field(ge=0, le=4)] | None = None
    vessels: Vessels | None = None
    disc: Disc | None = None
    signs: Annotated[list[EggSignRequest], Field(default_factory=list, max_length=20)]
    acts: Annotated[list[EggActKind], Field(default_factory=list, max_length=10)]
    mass_g: _Grams | None = None


class BoxSignRequest(RequestSchema):
    kind: Literal["lid", "medium", "weight", "smell", "pests"]
    value: _Word


class FreshMediumRequest(RequestSchema):
    medium: _Word
    water_g: _Grams | None = None
    mass_g: _Grams | None = None


class ShelfRequest(RequestSchema):
    cabinet: _Name
    shelf: _Name


class VisitRequest(RequestSchema):
    """One box opened and shut. `key` is the device's own: delivered twice, it is one visit."""

    key: Annotated[str, Field(min_length=8, max_length=64, pattern=r"^[ -~]+$")]
    code: Annotated[str, Field(max_length=20)]
    opened_at: AskedMoment
    closed_at: AskedMoment
    seen_act: Annotated[int, Field(ge=0, le=2**53)] | None = None
    eggs: Annotated[list[EggSeenRequest], Field(default_factory=list, max_length=30)]
    rest_as_before: bool = True
    signs: Annotated[list[BoxSignRequest], Field(default_factory=list, max_length=10)]
    mass_g: _Grams | None = None
    water_g: _Grams | None = None
    acts: Annotated[list[BoxActKind], Field(default_factory=list, max_length=10)]
    closing: Closing | None = None
    shelf: ShelfRequest | None = None
    fresh: FreshMediumRequest | None = None
    mass_change_g: _Grams | None = None


class VisitsRequest(RequestSchema):
    """Visits in the order in which they were closed.

    `sent_at` is the device's own clock at this moment: its times are shifted to
    the house's by it, so that a phone that goes wrong is right all the same.
    """

    sent_at: AskedMoment | None = None
    visits: Annotated[list[VisitRequest], Field(min_length=1, max_length=MOST_VISITS)]


class VisitOutcome(BaseModel):
    """What became of a visit. `refused` ones are not stored; `reason` says why, at which field."""

    key: str
    state: Literal["stored", "known", "refused"]
    act: ActResponse | None = None
    conflicts: list[str] = []
    reason: str | None = None
    field: str | None = None


class OutcomesResponse(BaseModel):
    outcomes: list[VisitOutcome]


class PostponementRequest(RequestSchema):
    code: Annotated[str, Field(max_length=20)]
    kind: DueKind
    days: float


@router.get("/round")
def get_round(house: TheHouse, now_s: NowS) -> RoundResponse:
    """Every box with eggs in it, by cabinet, shelf and code: what a phone needs offline."""
    now = round_now(house.snapshot(), now_s)
    return RoundResponse(
        as_of=now.as_of_s,  # type: ignore[arg-type]
        boxes=[_box(box) for box in now.boxes],
        shelves=[ShelfChoice(cabinet=c, shelf=s) for c, s in now.shelves],
    )


@router.post("/visits")
def deliver_visits(asked: VisitsRequest, now_s: NowS) -> OutcomesResponse:
    """Record visits in their order, each once for its key; one refused does not stop the next."""
    ahead_s = asked.sent_at.timestamp() - now_s if asked.sent_at else 0.0
    told = deliver([_visit(visit, ahead_s) for visit in asked.visits], now_s)
    keys = (visit.key for visit in asked.visits)
    return OutcomesResponse(outcomes=[_outcome(k, t) for k, t in zip(keys, told, strict=True)])


@router.post("/postponements", status_code=201)
def put_off(asked: PostponementRequest, now_s: NowS) -> ActResponse:
    """Put a reason to open a box off for some days."""
    return ActResponse.of(postpone(asked.code, asked.kind, asked.days, now_s))


def due_told(box: BoxDue) -> tuple[list[DueResponse], list[PostponedResponse]]:
    """A box's reasons, due and put off."""
    return (
        [DueResponse.model_validate(due) for due in box.due],
        [
            PostponedResponse(
                kind=due.kind,
                since_s=due.since_s,  # type: ignore[call-arg]
                urgency=due.urgency,
                text=due.text,
                eggs=list(due.eggs),
                until=until_s,  # type: ignore[arg-type]
            )
            for due, until_s in box.postponed
        ],
    )


def _outcome(key: str, told: Closed | Refused) -> VisitOutcome:
    if isinstance(told, Refused):
        return VisitOutcome(key=key, state="refused", reason=told.reason, field=told.field)
    return VisitOutcome(
        key=key,
        state="known" if told.known else "stored",
        act=ActResponse.of(told.act),
        conflicts=list(told.conflicts),
    )


def _visit(asked: VisitRequest, ahead_s: float) -> BoxVisit:
    """The visit in the house's time; the device's clock is `ahead_s` before it."""
    return BoxVisit(
        key=asked.key,
        code=asked.code,
        opened_s=asked.opened_at.timestamp() - ahead_s,
        closed_s=asked.closed_at.timestamp() - ahead_s,
        seen_act=asked.seen_act,
        eggs=tuple(
            EggSeen(
                number=egg.number,
                grade=egg.grade,
                vessels=egg.vessels,
                disc=egg.disc,
                signs=tuple((sign.kind, sign.value) for sign in egg.signs),
                acts=tuple(egg.acts),
                mass_g=egg.mass_g,
            )
            for egg in asked.eggs
        ),
        rest_as_before=asked.rest_as_before,
        signs=tuple((sign.kind, sign.value) for sign in asked.signs),
        mass_g=asked.mass_g,
        water_g=asked.water_g,
        acts=tuple(asked.acts),
        closing=asked.closing,
        shelf=(asked.shelf.cabinet, asked.shelf.shelf) if asked.shelf else None,
        fresh=FreshMedium(asked.fresh.medium, asked.fresh.water_g, asked.fresh.mass_g)
        if asked.fresh
        else None,
        mass_change_g=asked.mass_change_g,
    )


def _box(box: RoundBox) -> RoundBoxResponse:
    now = box.box.now
    assert now.water is not None, "a round has no clutch that its dam keeps"
    due, postponed = due_told(box.box)
    return RoundBoxResponse(
        id=now.clutch.entity_id,
        code=now.clutch.code,
        dam=now.dam,
        cabinet=now.cabinet,
        shelf=now.shelf,
        day=now.day,
        fraction=now.fraction,
        urgency=box.box.urgency,
        due=due,
        postponed=postponed,
        last_visit_at=box.last_visit_s,  # type: ignore[arg-type]
        visited=box.visited,
        seen_act=box.seen_act,
        on_grid=now.on_grid,
        mould_method=box.mould_method,
        box_c=now.curve.temperature.future_c,
        box_water=BoxWaterResponse.of(now.water),
        lid=now.lid,
        top_ups=[TopUpStepResponse.model_validate(step) for step in box.top_ups],
        heaviest_g=box.heaviest_g,
        eggs=[egg_told(egg) for egg in now.eggs.eggs],
    )
