"""Requests and responses of this place."""

from dataclasses import asdict
from typing import Annotated, Literal, Self

from pydantic import BaseModel, Field, model_validator

from sandboa.core.box import BoxKind, Closing, Shell
from sandboa.core.candling import Disc, Vessels
from sandboa.core.rounds import BoxActKind, DueKind, EggActKind
from sandboa.core.standing import SignKind
from sandboa.services.acts.revisions import revision_of
from sandboa.services.rounds.due_now import BoxDue
from sandboa.services.rounds.recorded_visit import RecordedVisit
from sandboa.services.rounds.visit import BoxVisit
from sandboa.web.boxes.schemas import BoxRequest, ClutchInBoxResponse
from sandboa.web.requests.reader import Sentence
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import (
    ActResponse,
    AskedMoment,
    Celsius,
    Moment,
    RequestSchema,
    ResponseSchema,
    at,
)
from sandboa.web.schemas.eggs import EggResponse
from sandboa.web.schemas.water import BoxWaterResponse

#: Visits a device may deliver in one request; it sends the rest in the next.
MOST_VISITS = 500


#: Reasons put off in one request: every one of a house of three hundred boxes.
MOST_REASONS = 2_500


_Name = Annotated[str, Field(max_length=200)]


_Word = Annotated[str, Field(max_length=40)]


_Grams = Annotated[float, Field(gt=-100_000, lt=100_000)]


class DueResponse(ResponseSchema):
    """A reason to open the box, since when."""

    kind: DueKind
    since: Moment = Field(validation_alias="since_s")
    urgency: str
    text: Sentence
    eggs: list[str]


class PostponedResponse(DueResponse):
    """A reason that was put off."""

    until: Moment


class TopUpStepResponse(ResponseSchema):
    """A box that weighs `from_g` or more, and less than the step before, lacks `add_g`."""

    from_g: float
    add_g: float
    today_g: float
    split: bool


class ShelfChoice(BaseModel):
    cabinet: str
    shelf: str


class RoundBoxResponse(BaseModel):
    """A box as a phone carries it into the room."""

    id: int
    name: str
    kind: BoxKind
    clutches: list[ClutchInBoxResponse]
    cabinet: str
    shelf: str
    urgency: str
    due: list[DueResponse]
    postponed: list[PostponedResponse]
    last_visit_at: Moment
    visited: bool
    seen_act: int
    on_grid: bool
    mould_method: str
    cloth_on: bool
    box_c: Celsius
    box_water: BoxWaterResponse
    lid: str | None
    top_ups: list[TopUpStepResponse]
    heaviest_g: float | None
    eggs: list[EggResponse]


class ShareRequest(RequestSchema):
    """A cabinet by name: `mine` takes it for this round, otherwise it is anybody's again."""

    cabinet: _Name
    mine: bool


class ShareResponse(BaseModel):
    """A cabinet, and who opens it on this round."""

    cabinet: str
    name: str
    mine: bool


class SharesResponse(BaseModel):
    """`possible`: who is signed in may open boxes, and there are others to share a round with."""

    possible: bool
    shares: list[ShareResponse]


class RoundResponse(BaseModel):
    as_of: Moment
    boxes: list[RoundBoxResponse]
    shelves: list[ShelfChoice]


class EggSignRequest(RequestSchema):
    kind: SignKind
    value: _Word


class EggSeenRequest(RequestSchema):
    """What was recorded of one egg; left out where nothing was. `clutch` is its code, needed where
    the box holds eggs of several; `shells` are all the marks of its shell now."""

    number: Annotated[int, Field(ge=1, le=1000)]
    clutch: Annotated[str, Field(max_length=20)] | None = None
    grade: Annotated[int, Field(ge=0, le=4)] | None = None
    vessels: Vessels | None = None
    disc: Disc | None = None
    shells: Annotated[list[Shell], Field(max_length=len(Shell))] | None = None
    signs: Annotated[list[EggSignRequest], Field(default_factory=list, max_length=20)]
    acts: Annotated[list[EggActKind], Field(default_factory=list, max_length=10)]
    mass_g: _Grams | None = None


class BoxSignRequest(RequestSchema):
    kind: Literal["lid", "medium", "weight", "smell", "pests"]
    value: _Word


class FreshMediumRequest(RequestSchema):
    medium: _Word
    water_g: _Grams | None = None
    mass_g: _Grams | None = None


class ShelfRequest(RequestSchema):
    cabinet: _Name
    shelf: _Name


class EggRefRequest(RequestSchema):
    """An egg of the box; `clutch` is its code, needed where the box holds eggs of several."""

    number: Annotated[int, Field(ge=1, le=1000)]
    clutch: Annotated[str, Field(max_length=20)] | None = None


class EggsMovedRequest(RequestSchema):
    """Eggs put into another box: into the one called `to`, or a `new` one. What is left out of
    that is as in the box they come from."""

    eggs: Annotated[list[EggRefRequest], Field(min_length=1, max_length=30)]
    to: _Name | None = None
    new: BoxRequest | None = None


class VisitRequest(RequestSchema):
    """One box opened and shut. `key` is the device's own: delivered twice, it is one visit.

    Its times are those of the device's clock, or, with `by_hand`, what a keeper typed.
    `box` is its name. A visit kept by a device since before boxes had names says `code` instead:
    that of the clutch, whose box had it as its name.
    """

    key: Annotated[str, Field(min_length=8, max_length=64, pattern=r"^[ -~]+$")]
    box: _Name | None = None
    code: Annotated[str, Field(max_length=20)] | None = None
    opened_at: AskedMoment
    closed_at: AskedMoment
    by_hand: bool = False
    seen_act: Annotated[int, Field(ge=0, le=2**53)] | None = None
    eggs: Annotated[list[EggSeenRequest], Field(default_factory=list, max_length=30)]
    rest_as_before: bool = True
    signs: Annotated[list[BoxSignRequest], Field(default_factory=list, max_length=10)]
    mass_g: _Grams | None = None
    water_g: _Grams | None = None
    acts: Annotated[list[BoxActKind], Field(default_factory=list, max_length=10)]
    closing: Closing | None = None
    shelf: ShelfRequest | None = None
    fresh: FreshMediumRequest | None = None
    mass_change_g: _Grams | None = None
    moved: Annotated[list[EggsMovedRequest], Field(default_factory=list, max_length=10)]
    note: Annotated[str, Field(max_length=1_000_000)] = ""

    @model_validator(mode="after")
    def _names_its_box(self) -> Self:
        if self.box is None and self.code is None:
            raise ValueError("which box was it?")
        return self

    @classmethod
    def of(cls, visit: BoxVisit) -> "VisitRequest":
        """A recorded visit, as a device would deliver it."""
        return cls.model_validate(
            {
                "key": visit.key,
                "box": visit.box,
                "opened_at": at(visit.opened_s),
                "closed_at": at(visit.closed_s),
                "eggs": [
                    {
                        **asdict(egg),
                        "signs": [{"kind": kind, "value": value} for kind, value in egg.signs],
                        "acts": list(egg.acts),
                    }
                    for egg in visit.eggs
                ],
                "rest_as_before": visit.rest_as_before,
                "signs": [{"kind": kind, "value": value} for kind, value in visit.signs],
                "mass_g": visit.mass_g,
                "water_g": visit.water_g,
                "acts": list(visit.acts),
                "closing": visit.closing,
                "shelf": dict(zip(("cabinet", "shelf"), visit.shelf, strict=True))
                if visit.shelf
                else None,
                "fresh": asdict(visit.fresh) if visit.fresh else None,
                "mass_change_g": visit.mass_change_g,
                "note": visit.note,
                "moved": [
                    {
                        "eggs": [{"clutch": code, "number": number} for code, number in moved.eggs],
                        "to": moved.to,
                    }
                    for moved in visit.moved
                ],
            }
        )


class RecordedVisitResponse(BaseModel):
    """A visit as it stands in the record, by which `act`; `revision` is what a correction of it is
    made over."""

    id: int
    act: int
    revision: Revision
    visit: VisitRequest

    @classmethod
    def of(cls, held: RecordedVisit) -> "RecordedVisitResponse":
        visit = VisitRequest.of(held.visit)
        revision = revision_of(visit.model_dump(mode="json"))
        return cls(id=held.id, act=held.act, revision=revision, visit=visit)


class VisitsRequest(RequestSchema):
    """Visits in the order in which they were closed.

    `sent_at` is the device's own clock at this moment: times by it are shifted to
    the house's, so that a phone that goes wrong is right all the same.
    """

    sent_at: AskedMoment | None = None
    visits: Annotated[list[VisitRequest], Field(min_length=1, max_length=MOST_VISITS)]


class VisitOutcome(BaseModel):
    """What became of a visit. `refused` ones are not stored; `reason` says why, at which field."""

    key: str
    state: Literal["stored", "known", "refused"]
    act: ActResponse | None = None
    conflicts: list[str] = []
    reason: Sentence | None = None
    field: str | None = None


class OutcomesResponse(BaseModel):
    outcomes: list[VisitOutcome]


class ReasonRequest(RequestSchema):
    """A reason to open a box."""

    box: _Name
    kind: DueKind


class PostponementRequest(ReasonRequest):
    days: float


class PostponementsRequest(RequestSchema):
    reasons: Annotated[list[ReasonRequest], Field(min_length=1, max_length=MOST_REASONS)]
    days: float


def due_told(box: BoxDue) -> tuple[list[DueResponse], list[PostponedResponse]]:
    """A box's reasons, due and put off."""
    return (
        [DueResponse.model_validate(due) for due in box.due],
        [
            PostponedResponse(
                kind=due.kind,
                since_s=due.since_s,  # type: ignore[call-arg]
                urgency=due.urgency,
                text=due.text,
                eggs=list(due.eggs),
                until=until_s,  # type: ignore[arg-type]
            )
            for due, until_s in box.postponed
        ],
    )
