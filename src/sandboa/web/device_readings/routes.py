"""Live intake: what devices post with their token, and what was held back of it."""

from collections.abc import Callable
from typing import Annotated

from fastapi import APIRouter, Header, Request
from fastapi.exceptions import RequestValidationError
from starlette.concurrency import run_in_threadpool

from sandboa.core.errors import NotPlausible
from sandboa.formats.delivery import (
    LARGEST_DELIVERY_BYTES,
    Delivery,
    is_delivery,
    refusal_words,
)
from sandboa.formats.sensor_payloads import json_of_words, understood, values_in
from sandboa.services.probes.devices import Device, device_of
from sandboa.services.probes.heard_values import Source, values_of
from sandboa.services.readings import intake
from sandboa.web.background.named_messages import take_in_message
from sandboa.web.device_readings.device_token import (
    Authorization,
    TokenInAddress,
    device_token,
)
from sandboa.web.device_readings.schemas import (
    DropRequest,
    HeldResponse,
    LetInRequest,
    TakenInResponse,
)
from sandboa.web.house import House, NowS, TheHouse
from sandboa.web.requests.gzip_body import unpacked
from sandboa.web.requests.json_body import described, validated
from sandboa.web.schemas.common import ActResponse, at
from sandboa.web.security.permissions import DEVICE, LOOK, RECORD

router = APIRouter(prefix="/api", tags=["intake"])


@router.post("/readings", dependencies=[DEVICE], status_code=201, openapi_extra=described(Delivery))
async def post_readings(
    request: Request,
    house: TheHouse,
    authorization: Authorization = "",
    token: TokenInAddress = "",
    content_encoding: Annotated[str | None, Header(max_length=40)] = None,
) -> TakenInResponse:
    """Take in a delivery of a device; the same delivery again changes nothing.

    Besides the one described, what sensors send in words of their own is understood: a number, flat
    or nested JSON, a form. The token may also be the password of basic authorization, or `token` in
    the address.
    """

    def take(device: Device, body: bytes) -> TakenInResponse:
        whole = unpacked(body, content_encoding, LARGEST_DELIVERY_BYTES)
        return _take_in(house, device, whole, request.headers.get("content-type", ""))

    return await _taken(request, house, device_token(authorization, token), take)


@router.get("/readings", dependencies=[DEVICE], status_code=201)
async def get_readings(
    request: Request,
    house: TheHouse,
    authorization: Authorization = "",
    token: TokenInAddress = "",
) -> TakenInResponse:
    """Take in a reading that stands in the address: for sensors that can do nothing else."""

    def take(device: Device, _: bytes) -> TakenInResponse:
        return _take_in(house, device, json_of_words(request.query_params), "")

    return await _taken(request, house, device_token(authorization, token), take)


async def _taken(
    request: Request,
    house: House,
    token: str,
    take: Callable[[Device, bytes], TakenInResponse],
) -> TakenInResponse:
    device = await run_in_threadpool(device_of, token)
    source = Source(device=device.entity_id)
    with house.deliveries.enter(f"device {device.entity_id}"):
        body = await request.body()
        try:
            async with house.writing:
                taken = await run_in_threadpool(take, device, body)
        except (NotPlausible, RequestValidationError) as error:
            house.senders.refuse(source, refusal_words(error), house.clock.now_s())
            raise
    house.senders.take(source)
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


def _take_in(house: House, device: Device, body: bytes, content_type: str) -> TakenInResponse:
    now_s = house.clock.now_s()
    if not is_delivery(body):
        house.heard.device(device.entity_id, body, content_type, now_s)
        source = Source(device=device.entity_id)
        if values_of(source):
            taken = take_in_message(house, source, values_in(body, content_type), now_s)
            return _told(taken or intake.TakenIn(0, 0, 0, 0))
        return _told(intake.take_in_as_said(device, understood(body, now_s, content_type), now_s))
    asked = validated(Delivery, body)
    return _told(intake.take_in(device, asked.rows(), now_s, asked.sent_s))


def _told(taken: intake.TakenIn) -> TakenInResponse:
    return TakenInResponse(
        new=taken.new, known=taken.known, conflicting=taken.conflicting, held=taken.held
    )
