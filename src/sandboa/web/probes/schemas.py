"""Requests and responses of this place."""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from sandboa.core.climate.probe_checks import CheckKind
from sandboa.services.probes import commands as probes
from sandboa.services.probes.commands import Probe
from sandboa.services.series.cache import Tip
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.schemas.common import (
    ActResponse,
    AskedMoment,
    Id,
    Moment,
    RequestSchema,
    Temperature,
    at,
    at_or_none,
)


class PlaceRequest(RequestSchema):
    """A box by its name, else a shelf of a cabinet, else a cabinet."""

    box: Annotated[str, Field(max_length=200)] | None = None
    cabinet: Annotated[str, Field(max_length=200)] | None = None
    shelf: Annotated[str, Field(max_length=200)] | None = None

    def place(self) -> probes.ProbePlace:
        return probes.ProbePlace(self.box, self.cabinet, self.shelf)


class ProbeRequest(RequestSchema):
    name: Annotated[str, Field(max_length=20_000)]
    place: PlaceRequest
    since: AskedMoment
    checked: bool = False
    device: Id | None = None


class ProbeMoveRequest(RequestSchema):
    """`place` null: taken down."""

    place: PlaceRequest | None
    at: AskedMoment | None = None


class CheckRequest(RequestSchema):
    """Beside a reference thermometer (°C both), or in the salt test (`shown` 0-1)."""

    kind: CheckKind
    shown: float
    reference_c: Temperature | None = None
    at: AskedMoment | None = None


class LeftOutRequest(RequestSchema):
    start: AskedMoment
    end: AskedMoment
    reason: Annotated[str, Field(max_length=400)] = ""


class CheckResponse(BaseModel):
    kind: CheckKind
    at: Moment
    shown: float
    expected: float
    offset: float


class ProbeLocationResponse(BaseModel):
    """`place` null: hung nowhere."""

    start: Moment
    place: str | None


class LeftOutResponse(BaseModel):
    start: Moment
    end: Moment
    reason: str


class HungProbeResponse(BaseModel):
    """A probe, where it hangs and hung, its offsets, and its last reading as it was sent."""

    id: int
    name: str
    place: str
    kind: Literal["box", "shelf", "cabinet", "nowhere"]
    since: Moment
    checked: bool
    by_hand: bool
    device: str | None
    offset_c: float
    humidity_offset: float
    checks: list[CheckResponse]
    stays: list[ProbeLocationResponse]
    left_out: list[LeftOutResponse]
    last_at: Moment | None
    last_c: float | None
    last_humidity: float | None
    act: ActResponse | None = None


def probe_told(snapshot: Snapshot, probe: Probe, tip: Tip | None) -> HungProbeResponse:
    """A probe as every screen shows it."""
    stays = snapshot.probe(probe.entity_id).locations
    last = stays.last if stays else probe.place_id
    place, kind = place_words(snapshot, last)
    checks = snapshot.probe(probe.entity_id).checks
    offsets = {check.kind: check.offset for check in checks}
    return HungProbeResponse(
        id=probe.entity_id,
        name=probe.name,
        place=place,
        kind=kind,
        since=at(stays.since_s if stays else probe.since_s),
        checked=bool(probe.checked) or CheckKind.REFERENCE in offsets,
        by_hand=bool(probe.by_hand),
        device=snapshot.devices[probe.device_id].name
        if probe.device_id in snapshot.devices
        else None,
        offset_c=offsets.get(CheckKind.REFERENCE, 0.0),
        humidity_offset=offsets.get(CheckKind.SALT, 0.0),
        checks=[
            CheckResponse(
                kind=c.kind, at=at(c.at_s), shown=c.shown, expected=c.expected, offset=c.offset
            )
            for c in checks
        ],
        stays=[
            ProbeLocationResponse(
                start=at(from_s), place=place_words(snapshot, where)[0] if where else None
            )
            for from_s, where in zip(stays.from_s, stays.place, strict=True)
        ]
        if stays
        else [],
        left_out=[
            LeftOutResponse(start=at(row.from_s), end=at(row.until_s), reason=row.reason)
            for row in snapshot.probe(probe.entity_id).left_out
        ],
        last_at=at_or_none(tip.last_s if tip else None),
        last_c=tip.last_c if tip else None,
        last_humidity=tip.last_humidity if tip else None,
    )


def place_words(
    snapshot: Snapshot, place: int | None
) -> tuple[str, Literal["box", "shelf", "cabinet", "nowhere"]]:
    """A place in words, and what kind of place it is."""
    if place is None:
        return "nowhere", "nowhere"
    if place in snapshot.cabinets:
        return snapshot.cabinets[place].name, "cabinet"
    if place in snapshot.shelves:
        shelf = snapshot.shelves[place]
        return f"{snapshot.cabinets[shelf.cabinet_id].name}, {shelf.name}", "shelf"
    box = snapshot.boxes.get(place)
    return f"box {box.name}" if box else "a box no longer there", "box"
