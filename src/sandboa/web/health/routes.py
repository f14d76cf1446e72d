"""The health of the house itself: damage, a restore under way, the watch, the clock."""

from fastapi import APIRouter, Response
from fastapi.responses import PlainTextResponse

from sandboa.services.safekeeping.backups import backup_state
from sandboa.services.safekeeping.condition import CLOCK_OFF_S, clock_behind_s
from sandboa.services.safekeeping.house_file import damage
from sandboa.web.health.schemas import HealthResponse, OutsideHealthResponse
from sandboa.web.house import NowS, TheHouse
from sandboa.web.schemas.common import at_or_none
from sandboa.web.security.permissions import ANYONE, LOOK

router = APIRouter(prefix="/api", tags=["house"])
#: Asked without a word of the API: by what starts and watches services.
outside = APIRouter(tags=["house"])


#: s without a look at the cabinets after which a page says so: a look is due every 30 s.
WATCH_LATE_S = 300.0


@router.get("/health", dependencies=[LOOK])
def get_health(house: TheHouse, now_s: NowS) -> HealthResponse:
    """How the house itself is."""
    state = house.restoring.state
    return HealthResponse(
        damage=list(damage()),
        changed=list(house.problems),
        restoring=state.copy if state is not None and state.ended_s is None else None,
        looked_at=at_or_none(house.looked_s),
        watch_late=now_s - (house.looked_s or house.begun_s) > WATCH_LATE_S,
        clock_behind_s=max(clock_behind_s(now_s), _set_back_s(house.clock.behind_s())),
    )


def _set_back_s(behind_s: float) -> float:
    return behind_s if behind_s > CLOCK_OFF_S else 0.0


@outside.get("/healthz", dependencies=[ANYONE], responses={503: {"model": OutsideHealthResponse}})
def get_healthz(house: TheHouse, now_s: NowS, response: Response) -> OutsideHealthResponse:
    """For what looks after services: 200 while all is well, 503 while somebody should look.

    The house is asked for its last backup, so a database that does not answer is found out.
    """
    state = backup_state(house.backups)
    damaged = bool(damage() or house.problems)
    late = now_s - (house.looked_s or house.begun_s) > WATCH_LATE_S
    if damaged or late:
        response.status_code = 503
    return OutsideHealthResponse(
        status="damaged" if damaged else "watch late" if late else "well",
        watch_at=at_or_none(house.looked_s),
        backup_at=at_or_none(state.last_good.at_s if state.last_good else None),
    )


@outside.get("/trusted", dependencies=[ANYONE], include_in_schema=False)
def get_trusted() -> PlainTextResponse:
    """For the first page of a phone: who can read this believes the house's certificate."""
    return PlainTextResponse("trusted", headers={"Cross-Origin-Resource-Policy": "cross-origin"})


@router.get("/alive", dependencies=[ANYONE], include_in_schema=False)
def get_alive() -> dict[str, bool]:
    """The empty endpoint: for waiting until the server is up, and to measure others against."""
    return {"alive": True}
