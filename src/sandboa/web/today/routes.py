"""Today: what to do now, by cabinet and shelf, with the reason."""

from fastapi import APIRouter, Response

from sandboa.services.overview.today import Today, TodayClutch, today
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.requests.reader import reader_now
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


@router.get("/today", dependencies=[LOOK], response_model=TodayResponse)
def get_today(house: TheHouse, now_s: NowS) -> Response:
    """Every clutch with its day, share developed, next window and what needs attention."""
    snapshot, reader = house.snapshot(), reader_now()
    # Good for its minute, as long as no act is recorded and nothing read; each unit has its own.
    stamp = (snapshot.version, snapshot.readings.newest_change(), int(now_s // 60), reader)

    def said() -> bytes:
        return _told(today(snapshot, now_s), house).model_dump_json().encode()

    body = snapshot.kept.held(f"today in {reader.unit}", stamp, said)
    return Response(body, media_type="application/json")


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
