"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.people import Role
from sandboa.core.units import TemperatureUnit
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import Moment, RequestSchema


class SignInRequest(RequestSchema):
    name: Annotated[str, Field(max_length=200)]
    passphrase: Annotated[str, Field(max_length=400)]


class SessionResponse(BaseModel):
    """Who is asking. Without people nobody signs in: `sign_in` is false, `name` null.

    `temperature_unit` is what they chose; a browser may read in another.
    """

    sign_in: bool
    name: str | None
    role: Role | None
    temperature_unit: TemperatureUnit


class PreferencesRequest(RequestSchema):
    """How whoever asks reads: what temperatures are told in."""

    temperature_unit: TemperatureUnit


class PersonRequest(RequestSchema):
    name: Annotated[str, Field(max_length=200)]
    role: Role


class PassphraseRequest(RequestSchema):
    passphrase: Annotated[str, Field(max_length=400)]


class OwnPassphraseRequest(PassphraseRequest):
    """A new passphrase of one's own, and the one before."""

    before: Annotated[str, Field(max_length=400)]


class OwnSessionResponse(BaseModel):
    """A browser somebody is signed in with; `key` ends it, `here` is the one that asks."""

    key: str
    begun_at: Moment
    used_at: Moment
    device: str
    here: bool


class PersonResponse(BaseModel):
    """Somebody of the house, and how many browsers they are signed in with."""

    id: int
    name: str
    role: Role
    can_sign_in: bool
    sessions: int
    last_seen_at: Moment | None
    revision: Revision
