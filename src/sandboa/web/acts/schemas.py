"""What an act recorded, field by field: requests and responses."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.services.acts.revisions import revision_of
from sandboa.services.corrections.fields import FieldKind, RecordField, Value
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import AskedMoment, Moment, RequestSchema, at

_FieldName = Annotated[str, Field(max_length=40)]


class FieldResponse(BaseModel):
    """A field as it stands: `moment`, `number` (g, °C) or `text` holds its value, by its kind."""

    name: str
    label: str
    kind: FieldKind
    moment: Moment | None = None
    number: float | None = None
    text: str | None = None
    choices: list[str]
    required: bool

    @classmethod
    def of(cls, told: RecordField) -> "FieldResponse":
        response = cls(
            name=told.name,
            label=told.label,
            kind=told.kind,
            choices=list(told.choices),
            required=told.required,
        )
        if isinstance(told.value, str):
            response.text = told.value
        elif told.value is not None and told.kind is FieldKind.MOMENT:
            response.moment = at(told.value)
        else:
            response.number = told.value
        return response


class RecordResponse(BaseModel):
    """What an act recorded, and the revision a correction of it is made over."""

    fields: list[FieldResponse]
    revision: Revision

    @classmethod
    def of(cls, told: tuple[RecordField, ...]) -> "RecordResponse":
        return cls(fields=[FieldResponse.of(t) for t in told], revision=revision_of(form(told)))


class FieldRequest(RequestSchema):
    """A field's value; with all three left out nothing is said of it."""

    name: _FieldName
    moment: AskedMoment | None = None
    number: float | None = None
    text: Annotated[str, Field(max_length=20_000)] | None = None

    def value(self) -> Value:
        if self.moment is not None:
            return self.moment.timestamp()
        return self.number if self.number is not None else self.text


class RecordRequest(RequestSchema):
    """The fields to correct; those left out stay as they are."""

    fields: Annotated[list[FieldRequest], Field(min_length=1, max_length=20)]


def form(told: tuple[RecordField, ...]) -> dict[str, Value]:
    """The fields by name, as a form that two people may correct at once."""
    return {field.name: field.value for field in told}
