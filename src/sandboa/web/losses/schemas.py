"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.causes import FINDINGS, Cause, FindingKind, RankedCause
from sandboa.core.hatching import DeathStage, Fate
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.acts.revisions import revision_of
from sandboa.services.boxes.box_stays import BoxStay
from sandboa.services.forms.clutch import form_of_opening
from sandboa.services.losses.why import ClutchLosses, LostEgg
from sandboa.web.requests.reader import Sentence
from sandboa.web.requests.revisions import Revision
from sandboa.web.schemas.common import (
    AskedMoment,
    Moment,
    PhotoResponse,
    RequestSchema,
    ResponseSchema,
    at_or_none,
)
from sandboa.web.schemas.eggs import EggResponse
from sandboa.web.today.schemas import SmallEggResponse


class LostLineResponse(BaseModel):
    """A lost egg in the list: its fate, whether it was opened, and what leads."""

    egg: SmallEggResponse
    fate: Fate
    opened: bool | None
    cause: Cause
    share: float


class LossLineResponse(BaseModel):
    code: str
    dam: str
    sire: str | None
    laid_at: Moment
    closed: bool
    count: str
    fertile: int
    hatched: int
    waiting: int
    lost: list[LostLineResponse]


class LossesResponse(BaseModel):
    """The losses of a year's clutches (by lay), and the years there are.

    Of `laid` clutches of the year `worked_out` are worked out; the others follow, and are not among
    `clutches`.
    """

    year: int | None
    years: list[int]
    clutches: list[LossLineResponse]
    worked_out: int
    laid: int


class OpeningRequest(RequestSchema):
    """What was seen in a failed egg; `opened` false: it will not be opened."""

    opened: bool
    findings: dict[FindingKind, list[Annotated[str, Field(max_length=40)]]] = Field(
        default_factory=dict
    )
    note: Annotated[str, Field(max_length=2000)] = ""
    at: AskedMoment | None = None


class GroundResponse(ResponseSchema):
    """What spoke for (`score` > 0) or against; `key` is the setting it rests on."""

    key: str = Field(validation_alias="name")
    words: Sentence
    score: float


class RankedCauseResponse(ResponseSchema):
    cause: Cause
    share: float
    grounds: list[GroundResponse]
    settle_by: str | None
    change: str


class OpeningResponse(BaseModel):
    """What was found: by kind, values and their words."""

    at: Moment
    opened: bool
    note: str
    findings: dict[FindingKind, list[str]]
    words: list[str]
    revision: Revision


class BoxStayResponse(ResponseSchema):
    """A stretch in one box on one shelf, closed in one way, from a day after lay on."""

    from_day: int
    from_at: Moment
    box: str
    medium: str | None
    closing: str | None
    cabinet: str
    shelf: str
    hatching: bool


class LostEggResponse(BaseModel):
    """A lost egg. It died between two shares developed, `died_from` and `died_by`; causes
    likeliest first, `together` those that speak at once; `lain` is where it lay until then."""

    egg: EggResponse
    fate: Fate
    stage: DeathStage | None
    died_from_share: float | None
    died_by_share: float | None
    died_from: Moment | None
    died_by: Moment | None
    window_words: str
    opening: OpeningResponse | None
    causes: list[RankedCauseResponse]
    together: list[Cause]
    missing: list[str]
    lain: list[BoxStayResponse]
    photos: list[PhotoResponse]


class ClutchLossesResponse(BaseModel):
    """A clutch's losses. Slugs stand apart: they are none."""

    id: int
    code: str
    dam: str
    sire: str | None
    laid_at: Moment
    finished_at: Moment | None
    day: int
    fertile: int
    hatched: int
    waiting: int
    lost: list[LostEggResponse]
    slugs: list[LostEggResponse]


class FindingChoices(BaseModel):
    """What can be found of one kind, with words; values in `alone` rule out the others."""

    kind: FindingKind
    several: bool
    alone: list[str]
    values: dict[str, str]


def lost_egg_told(lost: LostEgg, egg: EggResponse, photos: list[PhotoResponse]) -> LostEggResponse:
    """A lost egg with every cause that is worth telling."""
    end = lost.end
    window = end.window
    return LostEggResponse(
        egg=egg,
        fate=lost.evidence.fate,
        stage=end.declared_stage,
        died_from_share=window.start if window else None,
        died_by_share=window.end if window else None,
        died_from=at_or_none(end.died_from_s if window else None),
        died_by=at_or_none(end.died_by_s if window else None),
        window_words=window.words if window else "",
        opening=_opening(lost),
        causes=[_cause(cause) for cause in lost.causes],
        together=list(lost.together),
        missing=list(lost.missing),
        lain=[_stay(stay, end.way.path.start_s) for stay in lost.lain],
        photos=photos,
    )


def _stay(stay: BoxStay, laid_s: float) -> BoxStayResponse:
    return BoxStayResponse(
        from_day=int((stay.start_s - laid_s) // SECONDS_PER_DAY),
        from_at=stay.start_s,  # type: ignore[arg-type]
        box=stay.box,
        medium=stay.medium,
        closing=stay.closing,
        cabinet=stay.cabinet,
        shelf=stay.shelf,
        hatching=stay.hatching,
    )


def _cause(ranked: RankedCause) -> RankedCauseResponse:
    return RankedCauseResponse.model_validate(ranked)


def _opening(lost: LostEgg) -> OpeningResponse | None:
    if lost.opening is None:
        return None
    held = lost.end.findings
    # In the order of opening, whatever was written down first.
    findings = {kind: sorted(held[kind]) for kind in FINDINGS if kind in held}
    return OpeningResponse(
        at=lost.opening.at_s,  # type: ignore[arg-type]
        opened=bool(lost.opening.opened),
        note=lost.opening.note,
        findings=findings,
        words=[FINDINGS[kind][value] for kind, values in findings.items() for value in values],
        revision=revision_of(form_of_opening(lost.opening, findings)),
    )


def counts(losses: ClutchLosses) -> dict[str, int]:
    """Fertile, hatched and waiting eggs of a clutch, by the names of its fields."""
    return {
        "fertile": losses.fertile,
        "hatched": losses.hatched,
        "waiting": losses.waiting,
    }
