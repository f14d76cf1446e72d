"""Requests and responses of this place."""

from typing import Literal

from pydantic import BaseModel

from sandboa.web.schemas.common import Id, Moment, RequestSchema


class TakenInResponse(BaseModel):
    """What became of a delivery: rows stored, known before, contradicting, and held back."""

    new: int
    known: int
    conflicting: int
    held: int


class HeldResponse(BaseModel):
    """Readings held back. `shift_s` is what would put their clock right, as far as can be told."""

    probe: int
    probe_name: str
    reason: Literal["ahead", "behind", "before"]
    count: int
    first_at: Moment
    last_at: Moment
    received_at: Moment
    shift_s: int


class LetInRequest(RequestSchema):
    """Take held readings in, each moved by `shift_s` seconds."""

    probe: Id
    reason: Literal["ahead", "behind", "before"]
    shift_s: float


class DropRequest(RequestSchema):
    probe: Id
    reason: Literal["ahead", "behind", "before"]
