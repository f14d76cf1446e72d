"""Today: what to do now, by cabinet and shelf, with the reason."""

from dataclasses import dataclass

from fastapi import APIRouter, Request, Response

from sandboa.services.overview.today import Today, TodayClutch, today
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.rounds.schemas import due_told
from sandboa.web.schemas.common import WindowResponse
from sandboa.web.security.permissions import LOOK
from sandboa.web.today.schemas import (
    AttentionResponse,
    SilentProbeResponse,
    TodayClutchResponse,
    TodayResponse,
    small_egg,
)

router = APIRouter(prefix="/api", tags=["today"])


@dataclass(frozen=True)
class _Held:
    """The last answer: good for its minute, as long as no act is recorded and nothing read."""

    as_of: tuple[int, int, int]
    body: bytes


@router.get("/today", dependencies=[LOOK], response_model=TodayResponse)
def get_today(house: TheHouse, now_s: NowS, request: Request) -> Response:
    """Every clutch with its day, share developed, next window and what needs attention."""
    snapshot = house.snapshot()
    as_of = (snapshot.version, snapshot.readings.newest_change(), int(now_s // 60))
    held: _Held | None = getattr(request.app.state, "today", None)
    if held is None or held.as_of != as_of:
        told = _told(today(house.snapshot(), now_s), house)
        held = request.app.state.today = _Held(as_of, told.model_dump_json().encode())
    return Response(held.body, media_type="application/json")


def _told(now: Today, house: House) -> TodayResponse:
    return TodayResponse(
        as_of=now.as_of_s,  # type: ignore[arg-type]
        demo=house.demo,
        clock_behind_s=house.clock.behind_s(),
        clutches=[_clutch(clutch) for clutch in now.clutches],
        silent_probes=[
            SilentProbeResponse(name=p.name, last_at=p.last_s)  # type: ignore[arg-type]
            for p in now.silent
        ],
    )


def _clutch(today_clutch: TodayClutch) -> TodayClutchResponse:
    now = today_clutch.now
    forecast = now.forecast
    shown = forecast if forecast and not forecast.overdue else None
    due, postponed = due_told(today_clutch.box) if today_clutch.box else ([], [])
    return TodayClutchResponse(
        code=now.clutch.code,
        dam=now.dam,
        sire=now.sire,
        cabinet=now.cabinet,
        shelf=now.shelf,
        count=str(now.count),
        laid_at=now.clutch.laid_s,  # type: ignore[arg-type]
        day=now.day,
        fraction=now.curve.now,
        temperature_c=now.curve.temperature.future_c,
        set_point_c=now.set_point_c,
        first_pip=_window(shown.first_pip) if shown else None,
        typical_pip=_window(shown.typical_pip) if shown else None,
        urgency=today_clutch.urgency,
        attention=[AttentionResponse.model_validate(a) for a in today_clutch.attention],
        due=due,
        postponed=postponed,
        eggs=[small_egg(egg) for egg in now.eggs.eggs],
    )


def _window(window: object) -> WindowResponse | None:
    return None if window is None else WindowResponse.model_validate(window)
