"""Requests and responses of this place."""

from typing import Annotated, Self

from pydantic import BaseModel, Field, model_validator

from sandboa.formats.sensor_payloads import Seems
from sandboa.services.probes.heard_values import Source, ValueCommand, ValueUnit
from sandboa.web.requests.reader import Sentence
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import Moment, RequestSchema, ResponseSchema

_Id = Annotated[int, Field(ge=1, le=2**53)]


class NamedValueResponse(BaseModel):
    """What a keeper said a value is: in which unit, and of which probe."""

    unit: ValueUnit
    probe: int
    probe_name: str


class ValueResponse(BaseModel):
    """A value of a message; `path` is empty where it is the whole message.

    `seems` and `unit` are what it seems to be, by its name, its size, or what
    the sensor announced of itself.
    """

    path: str
    text: str
    seems: Seems | None
    unit: ValueUnit | None
    named: NamedValueResponse | None


class HeardResponse(ResponseSchema):
    """A topic, or a device, and what it said last; `count` since the application was started.

    `kept`: the broker had the message from before, and nobody knows when it
    was sent. `at` is null for a sensor that announced itself and said nothing
    yet. `weakness` is why it may soon fall silent; `refused` why its last
    message was not taken.
    """

    topic: str | None
    device: int | None
    name: str
    at: Moment | None
    count: int
    kept: bool
    values: list[ValueResponse]
    weakness: Sentence | None
    refused: Sentence | None
    revision: Revision


class ValueRequest(RequestSchema):
    """A value of a message that is to be stored."""

    path: Annotated[str, Field(max_length=200)] = ""
    unit: ValueUnit
    probe: _Id


class NameRequest(RequestSchema):
    """What the values of a topic's or a device's messages are, in place of what was said before."""

    topic: Annotated[str, Field(min_length=1, max_length=400)] | None = None
    device: _Id | None = None
    values: Annotated[list[ValueRequest], Field(max_length=40)]

    @model_validator(mode="after")
    def _of_one(self) -> Self:
        if (self.topic is None) == (self.device is None):
            raise ValueError("say either a topic or a device")
        return self

    def source(self) -> Source:
        return Source(self.topic, self.device)

    def commands(self) -> list[ValueCommand]:
        return [ValueCommand(value.path, value.unit, value.probe) for value in self.values]
