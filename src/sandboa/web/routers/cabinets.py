"""Cabinet: the drawing, its climate, events, shelves and set point."""

from datetime import datetime
from typing import Annotated

from fastapi import APIRouter, Path, Query, Response
from pydantic import Field

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.acts.revisions import saved_over
from sandboa.services.cabinets import commands as cabinets
from sandboa.services.cabinets.commands import CabinetKind
from sandboa.services.climate.cabinet_view import cabinet_now
from sandboa.services.climate.trace import POINTS, climate_trace
from sandboa.services.forms.people_and_things import cabinet_form
from sandboa.web.cabinet_shapes import (
    CabinetListedResponse,
    CabinetResponse,
    TraceResponse,
    cabinet_told,
    trace_told,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.revisions import Seen
from sandboa.web.shapes import (
    ActResponse,
    AskedMoment,
    RequestSchema,
    Temperature,
)

router = APIRouter(prefix="/api/cabinets", tags=["cabinet"])

Name = Annotated[str, Path(max_length=200)]
_SHORT_NAME = Annotated[str, Field(max_length=200)]


class CabinetRequest(RequestSchema):
    """Shelves from top to bottom; litres where they are known."""

    name: _SHORT_NAME
    kind: CabinetKind = CabinetKind.BOUGHT
    shelves: Annotated[list[_SHORT_NAME], Field(max_length=50)]
    volume_l: float | None = None
    ballast_l: float | None = None

    def said(self) -> cabinets.CabinetCommand:
        return cabinets.CabinetCommand(
            self.name, self.kind, tuple(self.shelves), self.volume_l, self.ballast_l
        )


class NewCabinetRequest(CabinetRequest):
    set_point_c: Temperature
    since: AskedMoment | None = None


class AlterationRequest(RequestSchema):
    """What was changed about the cabinet; `at` now when left out."""

    what: Annotated[str, Field(max_length=2000)]
    at: AskedMoment | None = None


class SetPointRequest(RequestSchema):
    temperature_c: Temperature
    at: AskedMoment | None = None


@router.get("")
def get_cabinets(house: TheHouse, now_s: NowS) -> list[CabinetListedResponse]:
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
            if (set_points := snapshot.set_points.get(cabinet.entity_id))
            else None,
        )
        for cabinet in sorted(snapshot.cabinets.values(), key=lambda c: c.name.casefold())
    ]


@router.post("", status_code=201)
def add_cabinet(asked: NewCabinetRequest, now_s: NowS) -> ActResponse:
    """Record a new cabinet."""
    since_s = asked.since.timestamp() if asked.since else now_s
    return ActResponse.of(cabinets.add_cabinet(asked.said(), asked.set_point_c, since_s, now_s))


@router.get("/{name}")
def get_cabinet(name: Name, house: TheHouse, now_s: NowS) -> CabinetResponse:
    """Everything the Cabinet place shows but the trace."""
    return cabinet_told(
        house.snapshot(), cabinet_now(house.snapshot(), house.faults, name, now_s), now_s
    )


@router.put("/{name}")
def correct_cabinet(name: Name, asked: CabinetRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct a cabinet; shelves with a history stay."""
    with saved_over(seen, lambda: cabinet_form(name)):
        return ActResponse.of(cabinets.correct_cabinet(name, asked.said(), now_s))


@router.post("/{name}/set-points", status_code=201)
def change_set_point(name: Name, asked: SetPointRequest, now_s: NowS) -> ActResponse:
    """Record that the cabinet was set to another temperature."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActResponse.of(cabinets.change_set_point(name, asked.temperature_c, at_s, now_s))


@router.post("/{name}/alterations", status_code=201)
def alter_cabinet(name: Name, asked: AlterationRequest, now_s: NowS) -> ActResponse:
    """Record that the cabinet itself was altered: drilled, glued, painted."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActResponse.of(cabinets.alter_cabinet(name, asked.what, at_s, now_s))


@router.get("/{name}/trace", response_model=TraceResponse)
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
