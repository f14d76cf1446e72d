"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.box import BoxKind, Closing
from sandboa.core.methods import Contact
from sandboa.services.boxes.set_up import BoxCommand
from sandboa.services.clutches.clutch_view import ClutchNow
from sandboa.web.schemas.common import (
    AskedMoment,
    ExpectedResponse,
    RequestSchema,
    Share,
    WindowResponse,
)

ShortName = Annotated[str, Field(max_length=200)]
_Word = Annotated[str, Field(max_length=40)]
_Grams = Annotated[float, Field(gt=-100_000, lt=100_000)]


class ClutchInBoxResponse(BaseModel):
    """A clutch of which eggs lie in the box. Windows null where no date can be told."""

    id: int
    code: str
    dam: str
    sire: str | None
    count: str
    day: int
    fraction: Share
    first_pip: WindowResponse | None
    typical_pip: WindowResponse | None
    expected: ExpectedResponse | None

    @classmethod
    def of(cls, now: ClutchNow) -> "ClutchInBoxResponse":
        forecast = now.forecast if now.forecast and not now.forecast.overdue else None
        return cls(
            id=now.clutch.entity_id,
            code=now.clutch.code,
            dam=now.dam,
            sire=now.sire,
            count=str(now.count),
            day=now.day,
            fraction=now.fraction,
            first_pip=_window(forecast.first_pip) if forecast else None,
            typical_pip=_window(forecast.typical_pip) if forecast else None,
            expected=ExpectedResponse.model_validate(now.expected) if now.expected else None,
        )


class BoxRequest(RequestSchema):
    """A box as set up; left out what is not said. Of another species: a name, a place, which."""

    name: ShortName | None = None
    kind: BoxKind = BoxKind.INCUBATION
    cabinet: ShortName | None = None
    shelf: ShortName | None = None
    medium: _Word | None = None
    closing: Closing | None = None
    contact: Contact | None = None
    dry_mass_g: _Grams | None = None
    water_g: _Grams | None = None
    set_up_mass_g: _Grams | None = None
    species: ShortName | None = None

    def as_command(self) -> BoxCommand:
        return BoxCommand(
            name=self.name,
            kind=self.kind,
            shelf=(self.cabinet, self.shelf) if self.cabinet and self.shelf else None,
            medium=self.medium,
            closing=self.closing,
            contact=self.contact,
            dry_mass_g=self.dry_mass_g,
            water_g=self.water_g,
            set_up_mass_g=self.set_up_mass_g,
            species=self.species,
        )


class NewBoxRequest(BoxRequest):
    """A box set up at a time, now when left out."""

    at: AskedMoment | None = None


class BoxMoveRequest(RequestSchema):
    cabinet: ShortName
    shelf: ShortName
    at: AskedMoment | None = None


class BoxMomentRequest(RequestSchema):
    """When it was; now when left out."""

    at: AskedMoment | None = None


class WateringRequest(RequestSchema):
    water_g: float
    at: AskedMoment | None = None


def _window(window: object) -> WindowResponse | None:
    return None if window is None else WindowResponse.model_validate(window)
