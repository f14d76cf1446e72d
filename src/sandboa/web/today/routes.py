"""Today: what to do now, by cabinet and shelf, with the reason."""

from fastapi import APIRouter, Response

from sandboa.services.moment.as_of import at_hand
from sandboa.services.overview.today import Today, TodayBox, today
from sandboa.web.background.heard_sensors import name_of, weak_senders
from sandboa.web.boxes.schemas import ClutchInBoxResponse
from sandboa.web.house import House, MomentS, TheHouse
from sandboa.web.requests.reader import reader_now
from sandboa.web.responses.parts import joined
from sandboa.web.rounds.schemas import due_told
from sandboa.web.schemas.common import at
from sandboa.web.security.permissions import LOOK
from sandboa.web.today.schemas import (
    AttentionResponse,
    RefusedSenderResponse,
    SilentProbeResponse,
    TodayBoxResponse,
    TodayResponse,
    WeakSenderResponse,
    small_egg,
)

router = APIRouter(prefix="/api", tags=["today"])


@router.get("/today", dependencies=[LOOK], response_model=TodayResponse)
def get_today(house: TheHouse, now_s: MomentS) -> Response:
    """Every box with whose eggs lie in it, what is expected of them and what needs attention."""
    snapshot, reader = house.snapshot(), reader_now()
    now, moment = today(snapshot, now_s), at_hand(snapshot, now_s)

    def told(box: TodayBox) -> bytes:
        own = box.box.box.entity_id
        return moment.of_box(own).once(
            ("today", own, reader), lambda: _box(box).model_dump_json().encode()
        )

    return joined(_told(now, house), "boxes", map(told, now.boxes))


def _told(now: Today, house: House) -> TodayResponse:
    """All but the boxes."""
    return TodayResponse(
        as_of=now.as_of_s,  # type: ignore[arg-type]
        demo=house.demo,
        empty=house.snapshot().empty,
        clock_behind_s=house.clock.behind_s(),
        boxes=[],
        silent_probes=[
            SilentProbeResponse(
                name=p.name,
                last_at=p.last_s,  # type: ignore[arg-type]
                from_files=p.from_files,
            )
            for p in now.silent
        ],
        broker_problem=house.senders.broker_problem(),
        refused_senders=[
            RefusedSenderResponse(device=name, reason=refused.reason, at=at(refused.at_s))
            for source, refused in house.senders.refused().items()
            if (name := name_of(source, house.snapshot())) is not None
        ],
        weak_senders=[
            WeakSenderResponse(name=weak.name, reason=weak.reason)
            for weak in weak_senders(house.heard, house.snapshot())
        ],
    )


def _box(told: TodayBox) -> TodayBoxResponse:
    box = told.box
    due, postponed = due_told(told.due) if told.due else ([], [])
    return TodayBoxResponse(
        name=box.box.name,
        kind=box.kind,
        clutches=[ClutchInBoxResponse.of(clutch) for clutch in told.clutches],
        cabinet=box.cabinet,
        shelf=box.shelf.name,
        temperature_c=box.box_c,
        set_point_c=box.set_point_c,
        urgency=told.urgency,
        attention=[AttentionResponse.model_validate(a) for a in told.attention],
        due=due,
        postponed=postponed,
        eggs=[small_egg(egg) for egg in box.eggs],
    )
