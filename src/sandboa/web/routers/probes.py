"""Probes: where they hang, checks and offsets, readings left out."""

from typing import Annotated, Literal

from fastapi import APIRouter, Path
from pydantic import BaseModel, Field

from sandboa.core.climate.probe_checks import CheckKind, reference_check, salt_check
from sandboa.core.errors import NotPlausible
from sandboa.records import readings
from sandboa.records.clutches import Box
from sandboa.records.house import Probe
from sandboa.records.readings import Tip
from sandboa.services.probes import commands as probes
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.house import NowS, TheHouse
from sandboa.web.shapes import (
    ActResponse,
    AskedMoment,
    Id,
    Moment,
    RequestSchema,
    Temperature,
    at,
    at_or_none,
)

router = APIRouter(prefix="/api/probes", tags=["probes"])

ProbeId = Annotated[int, Path(ge=1, le=2**53)]


class PlaceRequest(RequestSchema):
    """A clutch's box, else a shelf of a cabinet, else a cabinet."""

    clutch: Annotated[str, Field(max_length=20)] | None = None
    cabinet: Annotated[str, Field(max_length=200)] | None = None
    shelf: Annotated[str, Field(max_length=200)] | None = None

    def place(self) -> probes.ProbePlace:
        return probes.ProbePlace(self.clutch, self.cabinet, self.shelf)


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


class ProbeStayResponse(BaseModel):
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
    stays: list[ProbeStayResponse]
    left_out: list[LeftOutResponse]
    last_at: Moment | None
    last_c: float | None
    last_humidity: float | None
    act: ActResponse | None = None


@router.get("")
def get_probes(house: TheHouse) -> list[HungProbeResponse]:
    """Every probe and where it hangs."""
    snapshot, tips = house.snapshot(), readings.tips()
    ordered = sorted(snapshot.probes.values(), key=lambda p: p.name)
    return [probe_told(snapshot, p, tips.get(p.entity_id)) for p in ordered]


@router.post("", status_code=201)
def hang_probe(asked: ProbeRequest, house: TheHouse, now_s: NowS) -> HungProbeResponse:
    """Record a logger's probe at its place."""
    probe, act = probes.hang_probe(
        asked.name,
        asked.place.place(),
        asked.since.timestamp(),
        now_s,
        checked=asked.checked,
        device=asked.device,
    )
    told = probe_told(house.snapshot(), probe, None)
    return told.model_copy(update={"act": ActResponse.of(act)})


@router.post("/{probe}/moves", status_code=201)
def move_probe(probe: ProbeId, asked: ProbeMoveRequest, now_s: NowS) -> ActResponse:
    """Record that a probe was hung elsewhere or taken down."""
    place = asked.place.place() if asked.place else None
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActResponse.of(probes.move_probe(probe, place, at_s, now_s))


@router.post("/{probe}/checks", status_code=201)
def check_probe(probe: ProbeId, asked: CheckRequest, now_s: NowS) -> ActResponse:
    """Record a check; its offset holds from its time on."""
    at_s = asked.at.timestamp() if asked.at else now_s
    if asked.kind is CheckKind.SALT:
        check = salt_check(at_s, asked.shown)
    elif asked.reference_c is None:
        raise NotPlausible("reference_c", "what did the reference thermometer show?")
    else:
        check = reference_check(at_s, asked.shown, asked.reference_c)
    return ActResponse.of(probes.check_probe(probe, check, now_s))


@router.post("/{probe}/left-out", status_code=201)
def leave_out(probe: ProbeId, asked: LeftOutRequest, now_s: NowS) -> ActResponse:
    """Leave a stretch of readings out of what the eggs are judged by."""
    return ActResponse.of(
        probes.leave_out(probe, asked.start.timestamp(), asked.end.timestamp(), asked.reason, now_s)
    )


def probe_told(snapshot: Snapshot, probe: Probe, tip: Tip | None) -> HungProbeResponse:
    """A probe as every screen shows it."""
    stays = snapshot.probe_stays.get(probe.entity_id)
    last = stays.last if stays else probe.place_id
    place, kind = place_words(snapshot, last)
    checks = snapshot.checks.get(probe.entity_id, [])
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
            ProbeStayResponse(
                start=at(from_s), place=place_words(snapshot, where)[0] if where else None
            )
            for from_s, where in zip(stays.from_s, stays.place, strict=True)
        ]
        if stays
        else [],
        left_out=[
            LeftOutResponse(start=at(row.from_s), end=at(row.until_s), reason=row.reason)
            for row in snapshot.left_out.get(probe.entity_id, [])
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
    box = Box.now(place)
    clutch = next((c for c in snapshot.clutches if box and c.entity_id == box.clutch_id), None)
    return f"box {clutch.code}" if clutch else "a box no longer there", "box"
