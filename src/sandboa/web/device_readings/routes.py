"""Live intake: what devices post with their token, and what was held back of it."""

from typing import Annotated

from fastapi import APIRouter, Header, Request
from starlette.concurrency import run_in_threadpool

from sandboa.formats.delivery import LARGEST_DELIVERY_BYTES, Delivery
from sandboa.services.people.tokens import NotAllowed
from sandboa.services.probes.devices import Device, device_of
from sandboa.services.readings import intake
from sandboa.web.device_readings.schemas import (
    DropRequest,
    HeldResponse,
    LetInRequest,
    TakenInResponse,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.requests.gzip_body import unpacked
from sandboa.web.requests.json_body import described, validated
from sandboa.web.schemas.common import ActResponse, at
from sandboa.web.security.permissions import DEVICE, LOOK, RECORD

router = APIRouter(prefix="/api", tags=["intake"])


@router.post("/readings", dependencies=[DEVICE], status_code=201, openapi_extra=described(Delivery))
async def post_readings(
    request: Request,
    house: TheHouse,
    now_s: NowS,
    authorization: Annotated[str, Header(max_length=300)] = "",
    content_encoding: Annotated[str | None, Header(max_length=40)] = None,
) -> TakenInResponse:
    """Take in a delivery of a device; the same delivery again changes nothing."""
    device = await run_in_threadpool(device_of, _token(authorization))
    with house.deliveries.enter(f"device {device.entity_id}"):
        body = await request.body()
        async with house.writing:
            taken = await run_in_threadpool(_take_in, device, body, content_encoding, now_s)
    house.live.readings_came()
    return taken


@router.get("/held-readings", dependencies=[LOOK])
def get_held(house: TheHouse) -> list[HeldResponse]:
    """What is held back and waits for a decision."""
    probes = house.snapshot().probes
    return [
        HeldResponse(
            probe=held.probe_id,
            probe_name=probes[held.probe_id].name,
            reason=held.reason,  # type: ignore[arg-type]
            count=held.count,
            first_at=at(held.first_s),
            last_at=at(held.last_s),
            received_at=at(held.received_s),
            shift_s=-held.off_s,
        )
        for held in intake.held()
        if held.probe_id in probes
    ]


@router.post("/held-readings/let-in", dependencies=[RECORD], status_code=201)
def let_in(asked: LetInRequest, now_s: NowS) -> ActResponse:
    """Store held readings with their clock put right."""
    return ActResponse.of(intake.let_in(asked.probe, asked.reason, asked.shift_s, now_s))


@router.post("/held-readings/set-aside", dependencies=[RECORD], status_code=201)
def set_aside(asked: DropRequest, now_s: NowS) -> ActResponse:
    """Decide against held readings."""
    return ActResponse.of(intake.drop_held(asked.probe, asked.reason, now_s))


def _take_in(device: Device, body: bytes, encoding: str | None, now_s: float) -> TakenInResponse:
    asked = validated(Delivery, unpacked(body, encoding, LARGEST_DELIVERY_BYTES))
    taken = intake.take_in(device, asked.rows(), now_s, asked.sent_s)
    return TakenInResponse(
        new=taken.new, known=taken.known, conflicting=taken.conflicting, held=taken.held
    )


def _token(authorization: str) -> str:
    scheme, _, token = authorization.partition(" ")
    if authorization and scheme.casefold() != "bearer":
        raise NotAllowed("send the token as Authorization: Bearer ...")
    return token.strip()
