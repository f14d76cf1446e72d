"""Requests and responses of this place."""

from dataclasses import asdict
from typing import Annotated

import numpy as np
from pydantic import BaseModel, Field

from sandboa.core.box import BoxKind
from sandboa.core.development import Provenance
from sandboa.services.acts.revisions import revision_of
from sandboa.services.cabinets import commands as cabinets
from sandboa.services.cabinets.commands import CabinetKind
from sandboa.services.climate.cabinet_view import (
    EXPOSURE_DAYS,
    CabinetNow,
    ShelfNow,
    TemperatureHere,
)
from sandboa.services.climate.faults import SEASON_DAYS
from sandboa.services.climate.trace import Trace
from sandboa.services.clutches.box_view import BoxNow
from sandboa.services.forms.people_and_things import cabinet_form
from sandboa.services.overview.today import today_box
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.boxes.schemas import ClutchInBoxResponse
from sandboa.web.probes.schemas import HungProbeResponse, place_words, probe_told
from sandboa.web.requests.reader import Sentence
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import (
    AskedMoment,
    Moment,
    RequestSchema,
    ResponseSchema,
    Temperature,
    at,
)
from sandboa.web.schemas.faults import FaultResponse, fault_told
from sandboa.web.today.schemas import SmallEggResponse, small_egg

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


class CabinetListedResponse(BaseModel):
    name: str
    kind: CabinetKind
    shelves: list[str]
    set_point_c: float | None


class HereResponse(ResponseSchema):
    """°C at a place now; nulls where nothing measures it."""

    temperature_c: float | None
    source: Provenance | None
    at: Moment | None = Field(validation_alias="at_s")
    swing_c: float | None


class WaterLevelResponse(ResponseSchema):
    """Share of the set-up water left by physics alone, with an 80 % band."""

    share: float
    share_low: float
    share_high: float
    loss_g_day: float


class BoxHereResponse(BaseModel):
    """A box on its shelf; `species` of one of another species, which has no eggs here."""

    name: str
    kind: BoxKind
    species: str | None
    clutches: list[ClutchInBoxResponse]
    urgency: str
    closing: str | None
    on_grid: bool
    lid: str | None
    water_left: WaterLevelResponse | None
    eggs: list[SmallEggResponse]


class ShelfResponse(BaseModel):
    name: str
    position: int
    here: HereResponse
    offset_c: float | None
    boxes: list[BoxHereResponse]


class EventResponse(BaseModel):
    at: Moment
    kind: str
    text: Sentence


class ExposureResponse(BaseModel):
    """Of the place in the cabinet that had the most of it, over the last `days`."""

    days: float
    hours_measured: float
    hours_harmful: float
    degree_hours_harmful: float
    hours_slow: float
    degree_hours_slow: float


class CabinetResponse(BaseModel):
    as_of: Moment
    id: int
    name: str
    kind: CabinetKind
    volume_l: float | None
    ballast_l: float | None
    set_point_c: float | None
    here: HereResponse
    humidity: float | None
    ready: bool
    readiness: str
    shelves: list[ShelfResponse]
    faults: list[FaultResponse]
    faults_days: float
    events: list[EventResponse]
    probes: list[HungProbeResponse]
    exposure: ExposureResponse
    first_reading_at: Moment | None
    revision: Revision


class ProbeTraceResponse(BaseModel):
    """`low` and `high` of each bucket (°C); nulls where nothing was read."""

    id: int
    name: str
    place: str
    low: list[float | None]
    high: list[float | None]


class TraceResponse(BaseModel):
    """Buckets of `bucket_s` seconds from `start` on, the same for all probes."""

    start: Moment
    bucket_s: float
    count: int
    raw: bool
    set_point_c: list[float | None]
    probes: list[ProbeTraceResponse]


def cabinet_told(snapshot: Snapshot, now: CabinetNow, now_s: float) -> CabinetResponse:
    """The cabinet as its place draws it."""
    tips = snapshot.readings.tips()
    known = [
        snapshot.probe(p.entity_id).locations.from_s[0] for p in now.probes if p.entity_id in tips
    ]
    return CabinetResponse(
        as_of=at(now_s),
        id=now.cabinet.entity_id,
        name=now.cabinet.name,
        kind=CabinetKind(now.cabinet.kind),
        volume_l=now.cabinet.volume_l,
        ballast_l=now.cabinet.ballast_l,
        set_point_c=now.set_point_c,
        here=_here(now.here),
        humidity=now.humidity,
        ready=now.readiness.ready,
        readiness=now.readiness.text,
        shelves=[_shelf(now, shelf) for shelf in now.shelves],
        faults=[fault_told(snapshot, fault) for fault in now.faults],
        faults_days=SEASON_DAYS,
        events=[EventResponse(at=at(e.at_s), kind=e.kind, text=e.text) for e in now.events],
        probes=[probe_told(snapshot, p, tips.get(p.entity_id)) for p in now.probes],
        exposure=ExposureResponse(days=EXPOSURE_DAYS, **asdict(now.exposure)),
        first_reading_at=at(min(known)) if known else None,
        revision=revision_of(cabinet_form(now.cabinet.name)),
    )


def _shelf(cabinet: CabinetNow, now: ShelfNow) -> ShelfResponse:
    return ShelfResponse(
        name=now.shelf.name,
        position=now.shelf.position,
        here=_here(now.here),
        offset_c=now.offset_c,
        boxes=[_box(cabinet, box) for box in now.boxes],
    )


def _box(cabinet: CabinetNow, now: BoxNow) -> BoxHereResponse:
    told = today_box(cabinet.at, now)
    return BoxHereResponse(
        name=now.box.name,
        kind=now.kind,
        species=now.box.species,
        clutches=[ClutchInBoxResponse.of(clutch) for clutch in told.clutches],
        urgency=told.urgency,
        closing=now.water.closing if now.water else None,
        lid=now.lid,
        on_grid=now.on_grid,
        water_left=WaterLevelResponse.model_validate(now.water.left)
        if now.water and now.water.left
        else None,
        eggs=[small_egg(egg) for egg in now.eggs],
    )


def _here(here: TemperatureHere) -> HereResponse:
    return HereResponse.model_validate(here)


def trace_told(snapshot: Snapshot, trace: Trace) -> TraceResponse:
    """A span of the cabinet's probes, °C in buckets of time, and what it was set to."""
    return TraceResponse(
        start=at(trace.start_s),
        bucket_s=trace.bucket_s,
        count=trace.count,
        raw=trace.raw,
        set_point_c=_numbers(trace.set_point_c, 2),
        probes=[
            ProbeTraceResponse(
                id=probe.probe.entity_id,
                name=probe.probe.name,
                place=place_words(snapshot, probe.place)[0],
                low=_numbers(probe.temperature.low, 2),
                high=_numbers(probe.temperature.high, 2),
            )
            for probe in trace.probes
        ],
    )


def _numbers(values: np.ndarray, digits: int) -> list[float | None]:
    rounded = np.round(values, digits)
    return [None if v != v else v for v in rounded.tolist()]
