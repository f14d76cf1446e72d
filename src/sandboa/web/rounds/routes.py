"""Rounds: the boxes a phone carries along, visits delivered, reasons put off."""

from typing import Annotated, Any

from fastapi import APIRouter, Path, Query, Response

from sandboa.core.people import Deed, may
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.preconditions import require_not_ahead
from sandboa.services.acts.revisions import saved_over
from sandboa.services.cabinets.commands import cabinet_called
from sandboa.services.moment.as_of import at_hand
from sandboa.services.people.signing_in import SignedIn
from sandboa.services.people.views import names_of_people
from sandboa.services.rounds.close_visit import Closed, Refused, deliver
from sandboa.services.rounds.correct_visit import correct_visit
from sandboa.services.rounds.postponing import postpone, postpone_several
from sandboa.services.rounds.recorded_visit import recorded_visit
from sandboa.services.rounds.round_now import RoundBox, round_now
from sandboa.services.rounds.visit import BoxVisit, EggSeen, EggsMoved, FreshMedium
from sandboa.web.boxes.schemas import ClutchInBoxResponse
from sandboa.web.house import Asking, House, MomentS, NowS, TheHouse
from sandboa.web.requests.reader import reader_now
from sandboa.web.requests.revisions import Seen
from sandboa.web.responses.parts import joined
from sandboa.web.rounds.schemas import (
    OutcomesResponse,
    PostponementRequest,
    PostponementsRequest,
    RecordedVisitResponse,
    RoundBoxResponse,
    RoundResponse,
    ShareRequest,
    ShareResponse,
    SharesResponse,
    ShelfChoice,
    TopUpStepResponse,
    VisitOutcome,
    VisitRequest,
    VisitsRequest,
    due_told,
)
from sandboa.web.schemas.common import (
    ActResponse,
    AskedMoment,
)
from sandboa.web.schemas.eggs import egg_told
from sandboa.web.schemas.water import BoxWaterResponse
from sandboa.web.security.permissions import LOOK, RECORD

VisitId = Annotated[int, Path(ge=1, le=2**53)]

router = APIRouter(prefix="/api", tags=["rounds"])


@router.get("/round", dependencies=[LOOK], response_model=RoundResponse)
def get_round(
    house: TheHouse, now_s: MomentS, at: Annotated[AskedMoment | None, Query()] = None
) -> Response:
    """Every box with eggs in it, by cabinet, shelf and code: what a phone needs offline.

    With `at` as it was then: for what is entered late from paper.
    """
    at_s = at.timestamp() if at else now_s
    require_not_ahead(at_s, now_s)
    snapshot, reader = house.snapshot(), reader_now()
    now, moment = round_now(snapshot, at_s), at_hand(snapshot, at_s)

    def told(box: RoundBox) -> bytes:
        own = box.box.box.box.entity_id
        return moment.of_box(own).held(
            ("round", own, reader), box.seen_act, lambda: _box(box).model_dump_json().encode()
        )

    whole = RoundResponse(
        as_of=now.as_of_s,  # type: ignore[arg-type]
        boxes=[],
        shelves=[ShelfChoice(cabinet=c, shelf=s) for c, s in now.shelves],
    )
    return joined(whole, "boxes", map(told, now.boxes))


@router.get("/round/shares", dependencies=[LOOK])
def get_shares(house: TheHouse, person: Asking, now_s: NowS) -> SharesResponse:
    """Who opens which cabinet on this round."""
    return _shares(house, person, now_s)


@router.post("/round/shares", dependencies=[RECORD])
def share_round(
    asked: ShareRequest, house: TheHouse, person: Asking, now_s: NowS
) -> SharesResponse:
    """Take a cabinet for this round, or leave it to anybody; the other phones are told."""
    if person is None:
        raise Conflict("a round is shared between people: add them in Settings, and sign in")
    cabinet = cabinet_called(asked.cabinet).entity_id
    if asked.mine:
        house.shares.take(cabinet, person.entity, now_s)
    else:
        house.shares.leave(cabinet)
    return _shares(house, person, now_s)


def _shares(house: House, person: SignedIn | None, now_s: float) -> SharesResponse:
    names, cabinets = names_of_people(), house.snapshot().cabinets
    return SharesResponse(
        possible=person is not None and may(person.role, Deed.RECORD) and len(names) > 1,
        shares=[
            ShareResponse(
                cabinet=cabinets[share.cabinet].name,
                name=names[share.person],
                mine=person is not None and share.person == person.entity,
            )
            for share in house.shares.held(now_s, names)
            if share.cabinet in cabinets
        ],
    )


@router.post("/visits", dependencies=[RECORD])
def deliver_visits(asked: VisitsRequest, now_s: NowS) -> OutcomesResponse:
    """Record visits in their order, each once for its key; one refused does not stop the next."""
    ahead_s = asked.sent_at.timestamp() - now_s if asked.sent_at else 0.0
    told = deliver([_visit(visit, ahead_s) for visit in asked.visits], now_s)
    keys = (visit.key for visit in asked.visits)
    return OutcomesResponse(outcomes=[_outcome(k, t) for k, t in zip(keys, told, strict=True)])


@router.get("/visits/{visit}", dependencies=[LOOK])
def get_visit(visit: VisitId) -> RecordedVisitResponse:
    """A visit as it was recorded, or put right since."""
    return RecordedVisitResponse.of(recorded_visit(visit))


@router.put("/visits/{visit}", dependencies=[RECORD])
def put_visit_right(visit: VisitId, asked: VisitRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct a visit whole: its time, what was seen and what was done."""

    def form() -> dict[str, Any]:
        return VisitRequest.of(recorded_visit(visit).visit).model_dump(mode="json")

    with saved_over(seen, form):
        return ActResponse.of(correct_visit(visit, _visit(asked, 0.0), now_s))


@router.post("/postponements", dependencies=[RECORD], status_code=201)
def put_off(asked: PostponementRequest, now_s: NowS) -> ActResponse:
    """Put a reason to open a box off for some days."""
    return ActResponse.of(postpone(asked.box, asked.kind, asked.days, now_s))


@router.post("/postponements/several", dependencies=[RECORD], status_code=201)
def put_several_off(asked: PostponementsRequest, now_s: NowS) -> ActResponse:
    """Put reasons to open several boxes off for some days, all of them or none."""
    reasons = [(reason.box, reason.kind) for reason in asked.reasons]
    return ActResponse.of(postpone_several(reasons, asked.days, now_s))


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
    ahead_s = 0.0 if asked.by_hand else ahead_s
    return BoxVisit(
        key=asked.key,
        box=asked.box or asked.code or "",
        opened_s=asked.opened_at.timestamp() - ahead_s,
        closed_s=asked.closed_at.timestamp() - ahead_s,
        seen_act=asked.seen_act,
        eggs=tuple(
            EggSeen(
                number=egg.number,
                clutch=egg.clutch,
                grade=egg.grade,
                vessels=egg.vessels,
                disc=egg.disc,
                shells=None if egg.shells is None else tuple(egg.shells),
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
        note=asked.note,
        moved=tuple(
            EggsMoved(
                tuple((egg.clutch, egg.number) for egg in moved.eggs),
                moved.to,
                moved.new.as_command() if moved.new else None,
            )
            for moved in asked.moved
        ),
    )


def _box(box: RoundBox) -> RoundBoxResponse:
    now = box.box.box
    assert now.water is not None, "a round has no clutch that its dam keeps"
    due, postponed = due_told(box.box)
    return RoundBoxResponse(
        id=now.box.entity_id,
        name=now.box.name,
        kind=now.kind,
        clutches=[ClutchInBoxResponse.of(clutch) for clutch in box.box.clutches],
        cabinet=now.cabinet,
        shelf=now.shelf.name,
        urgency=box.box.urgency,
        due=due,
        postponed=postponed,
        last_visit_at=box.last_visit_s,  # type: ignore[arg-type]
        visited=box.visited,
        seen_act=box.seen_act,
        on_grid=now.on_grid,
        mould_method=box.mould_method,
        cloth_on=box.cloth_on,
        box_c=now.box_c,
        box_water=BoxWaterResponse.of(now.water),
        lid=now.lid,
        top_ups=[TopUpStepResponse.model_validate(step) for step in box.top_ups],
        heaviest_g=box.heaviest_g,
        eggs=[egg_told(egg) for egg in now.eggs],
    )
