"""Requests and responses of this place."""

from pydantic import BaseModel

from sandboa.core.box import BoxKind, Shell
from sandboa.core.standing import Standing
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.web.boxes.schemas import ClutchInBoxResponse
from sandboa.web.requests.reader import Sentence
from sandboa.web.rounds.schemas import DueResponse, PostponedResponse
from sandboa.web.schemas.common import Celsius, Moment, ResponseSchema


class AttentionResponse(ResponseSchema):
    """One thing to know or do, and why."""

    urgency: str
    text: Sentence
    eggs: list[str]
    at_box: bool
    at_hatch: bool


class SmallEggResponse(BaseModel):
    """An egg small enough for a list: where it lies and how dented it is."""

    number: int
    name: str
    x: float
    y: float
    slug: bool
    shells: list[Shell]
    grade: int | None
    early: bool
    pipped: bool
    removed: bool
    out: bool
    lost: bool
    standing: Standing | None
    mould: str | None


class TodayBoxResponse(BaseModel):
    """A box with eggs in it; `clutches` are whose, that of most of them first."""

    name: str
    kind: BoxKind
    clutches: list[ClutchInBoxResponse]
    cabinet: str
    shelf: str
    temperature_c: Celsius
    set_point_c: float | None
    urgency: str
    attention: list[AttentionResponse]
    due: list[DueResponse]
    postponed: list[PostponedResponse]
    eggs: list[SmallEggResponse]


class SilentProbeResponse(BaseModel):
    """`from_files`: its readings come as files, and one is due."""

    name: str
    last_at: Moment | None
    from_files: bool


class RefusedSenderResponse(ResponseSchema):
    """A device of which the last message was not taken, and why."""

    device: str
    reason: Sentence
    at: Moment


class WeakSenderResponse(ResponseSchema):
    """A sensor that feeds a probe and may soon fall silent, by what it says of itself."""

    name: str
    reason: Sentence


class TodayResponse(BaseModel):
    """`broker_problem`: why no reading can come by MQTT, in words; `empty`: there is no animal, no
    cabinet and no clutch, of now or before Sandboa."""

    as_of: Moment
    demo: bool
    empty: bool
    clock_behind_s: float
    boxes: list[TodayBoxResponse]
    silent_probes: list[SilentProbeResponse]
    broker_problem: str | None
    refused_senders: list[RefusedSenderResponse]
    weak_senders: list[WeakSenderResponse]


def small_egg(egg: EggView) -> SmallEggResponse:
    """An egg as it is drawn in a list or in a cabinet."""
    return SmallEggResponse(
        number=egg.number,
        name=egg.name,
        x=egg.x,
        y=egg.y,
        slug=egg.slug,
        shells=list(egg.shells),
        grade=egg.grade,
        early=bool(egg.excess),
        pipped=egg.pipped_s is not None,
        removed=egg.removed_s is not None,
        out=egg.emerged_s is not None,
        lost=egg.fate is not None and egg.fate.is_loss,
        standing=egg.standing.standing if egg.standing else None,
        mould=dict(egg.signs).get("mould"),
    )
