"""Boxes: set up, corrected, watered, moved to another shelf, put away."""

from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.core.box import Closing
from sandboa.services.acts.revisions import saved_over
from sandboa.services.boxes import commands, set_up
from sandboa.services.boxes.water import OtherClosing
from sandboa.services.cabinets.commands import move_box
from sandboa.services.clutches.box_view import what_if_water
from sandboa.services.forms.clutch import box_form
from sandboa.web.boxes.schemas import (
    BoxMomentRequest,
    BoxMoveRequest,
    BoxRequest,
    NewBoxRequest,
    WateringRequest,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, seconds_or_now
from sandboa.web.schemas.water import WaterLeftResponse, water_left_told
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/boxes", tags=["box"])

Name = Annotated[str, Path(max_length=200)]


@router.post("", dependencies=[RECORD], status_code=201)
def add_box(asked: NewBoxRequest, now_s: NowS) -> ActResponse:
    """Record a box set up: for eggs to be moved into it, or one of another species."""
    _, made = set_up.add_box(asked.as_command(), seconds_or_now(asked.at, now_s), now_s)
    return ActResponse.of(made)


@router.put("/{name}", dependencies=[RECORD])
def correct_box(name: Name, asked: BoxRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Correct how a box was set up; what is left out stays."""
    with saved_over(seen, lambda: box_form(name)):
        return ActResponse.of(set_up.correct_box(name, asked.as_command(), now_s))


@router.post("/{name}/put-away", dependencies=[RECORD], status_code=201)
def put_away(name: Name, asked: BoxMomentRequest, now_s: NowS) -> ActResponse:
    """Record that a box of another species is out of the cabinet."""
    return ActResponse.of(set_up.put_away(name, seconds_or_now(asked.at, now_s), now_s))


@router.post("/{name}/moves", dependencies=[RECORD], status_code=201)
def move_to_shelf(name: Name, asked: BoxMoveRequest, now_s: NowS) -> ActResponse:
    """Record that a box was put on another shelf."""
    return ActResponse.of(
        move_box(name, asked.cabinet, asked.shelf, seconds_or_now(asked.at, now_s), now_s)
    )


@router.post("/{name}/waterings", dependencies=[RECORD], status_code=201)
def water_box(name: Name, asked: WateringRequest, now_s: NowS) -> ActResponse:
    """Record water added to a box."""
    return ActResponse.of(
        commands.water_box(name, asked.water_g, seconds_or_now(asked.at, now_s), now_s)
    )


@router.get("/{name}/water", dependencies=[LOOK])
def get_what_if(
    name: Name,
    house: TheHouse,
    now_s: NowS,
    closing: Annotated[Closing | None, Query()] = None,
    humidity: Annotated[float | None, Query(ge=0, le=1)] = None,
) -> WaterLeftResponse | None:
    """A box's water were it closed another way, or its cabinet damper, from now on."""
    return water_left_told(
        what_if_water(house.snapshot(), name, now_s, OtherClosing(closing, humidity))
    )
