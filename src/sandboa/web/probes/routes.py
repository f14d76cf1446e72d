"""Probes: where they hang, checks and offsets, readings left out."""

from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.core.climate.probe_checks import CheckKind, reference_check, salt_check
from sandboa.core.errors import NotPlausible
from sandboa.services.probes import commands as probes
from sandboa.web.house import NowS, TheHouse
from sandboa.web.probes.schemas import (
    CheckRequest,
    HungProbeResponse,
    LeftOutRequest,
    ProbeMoveRequest,
    ProbeRequest,
    probe_told,
)
from sandboa.web.schemas.common import ActResponse, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/probes", tags=["probes"])


ProbeId = Annotated[int, Path(ge=1, le=2**53)]


@router.get("", dependencies=[LOOK])
def get_probes(house: TheHouse) -> list[HungProbeResponse]:
    """Every probe and where it hangs."""
    snapshot = house.snapshot()
    tips = snapshot.readings.tips()
    ordered = sorted(snapshot.probes.values(), key=lambda p: p.name)
    return [probe_told(snapshot, p, tips.get(p.entity_id)) for p in ordered]


@router.post("", dependencies=[RECORD], status_code=201)
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


@router.post("/{probe}/moves", dependencies=[RECORD], status_code=201)
def move_probe(probe: ProbeId, asked: ProbeMoveRequest, now_s: NowS) -> ActResponse:
    """Record that a probe was hung elsewhere or taken down."""
    place = asked.place.place() if asked.place else None
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(probes.move_probe(probe, place, at_s, now_s))


@router.post("/{probe}/checks", dependencies=[RECORD], status_code=201)
def check_probe(probe: ProbeId, asked: CheckRequest, now_s: NowS) -> ActResponse:
    """Record a check; its offset holds from its time on."""
    at_s = seconds_or_now(asked.at, now_s)
    if asked.kind is CheckKind.SALT:
        check = salt_check(at_s, asked.shown)
    elif asked.reference_c is None:
        raise NotPlausible("reference_c", "what did the reference thermometer show?")
    else:
        check = reference_check(at_s, asked.shown, asked.reference_c)
    return ActResponse.of(probes.check_probe(probe, check, now_s))


@router.post("/{probe}/left-out", dependencies=[RECORD], status_code=201)
def leave_out(probe: ProbeId, asked: LeftOutRequest, now_s: NowS) -> ActResponse:
    """Leave a stretch of readings out of what the eggs are judged by."""
    return ActResponse.of(
        probes.leave_out(probe, asked.start.timestamp(), asked.end.timestamp(), asked.reason, now_s)
    )
