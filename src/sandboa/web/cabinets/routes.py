"""Cabinet: the drawing, its climate, events, shelves and set point."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Path, Query, Response

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.acts.revisions import saved_over
from sandboa.services.cabinets import commands as cabinets
from sandboa.services.cabinets.commands import CabinetKind
from sandboa.services.climate.cabinet_view import cabinet_now
from sandboa.services.climate.trace import POINTS, climate_trace
from sandboa.services.forms.people_and_things import cabinet_form
from sandboa.web.cabinets.schemas import (
    AlterationRequest,
    CabinetListedResponse,
    CabinetRequest,
    CabinetResponse,
    NewCabinetRequest,
    SetPointRequest,
    TraceResponse,
    cabinet_told,
    trace_told,
)
from sandboa.web.house import MomentS, NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/cabinets", tags=["cabinet"])


Name = Annotated[str, Path(max_length=200)]


@router.get("", dependencies=[LOOK])
def get_cabinets(house: TheHouse, now_s: MomentS) -> list[CabinetListedResponse]:
    """Every cabinet with its shelves, by name."""
    snapshot = house.snapshot()
    return [
        CabinetListedResponse(
            name=cabinet.name,
            kind=CabinetKind(cabinet.kind),
            shelves=[
                s.name
                for s in sorted(snapshot.shelves.values(), key=lambda s: s.position)
                if s.cabinet_id == cabinet.entity_id
            ],
            set_point_c=set_points.at(now_s)
            if (set_points := snapshot.cabinet(cabinet.entity_id).set_points)
            else None,
        )
        for cabinet in sorted(snapshot.cabinets.values(), key=lambda c: c.name.casefold())
    ]


@router.post("", dependencies=[RECORD], status_code=201)
def add_cabinet(asked: NewCabinetRequest, now_s: NowS) -> ActResponse:
    """Record a new cabinet."""
    since_s = seconds_or_now(asked.since, now_s)
    return ActResponse.of(cabinets.add_cabinet(asked.said(), asked.set_point_c, since_s, now_s))


@router.get("/{name}", dependencies=[LOOK])
def get_cabinet(name: Name, house: TheHouse, now_s: MomentS) -> CabinetResponse:
    """Everything the Cabinet place shows but the trace."""
    return cabinet_told(house.snapshot(), cabinet_now(house.snapshot(), name, now_s), now_s)


@router.put("/{name}", dependencies=[RECORD])
def correct_cabinet(name: Name, asked: CabinetRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct a cabinet; shelves with a history stay."""
    with saved_over(seen, lambda: cabinet_form(name)):
        return ActResponse.of(cabinets.correct_cabinet(name, asked.said(), now_s))


@router.post("/{name}/set-points", dependencies=[RECORD], status_code=201)
def change_set_point(name: Name, asked: SetPointRequest, now_s: NowS) -> ActResponse:
    """Record that the cabinet was set to another temperature."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(cabinets.change_set_point(name, asked.temperature_c, at_s, now_s))


@router.post("/{name}/alterations", dependencies=[RECORD], status_code=201)
def alter_cabinet(name: Name, asked: AlterationRequest, now_s: NowS) -> ActResponse:
    """Record that the cabinet itself was altered: drilled, glued, painted."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(cabinets.alter_cabinet(name, asked.what, at_s, now_s))


@router.get("/{name}/trace", dependencies=[LOOK], response_model=TraceResponse)
def get_trace(
    name: Name,
    house: TheHouse,
    now_s: NowS,
    start: Annotated[datetime | None, Query()] = None,
    end: Annotated[datetime | None, Query()] = None,
    points: Annotated[int, Query(ge=10, le=4000)] = POINTS,
) -> Response:
    """A span of the cabinet's probes, by default the last 60 days."""
    until_s = end.timestamp() if end else now_s
    from_s = start.timestamp() if start else until_s - 60 * SECONDS_PER_DAY
    trace = climate_trace(house.snapshot(), name, from_s, until_s, points)
    told = trace_told(house.snapshot(), trace)
    return Response(told.model_dump_json(), media_type="application/json")
