"""Requests and responses of this place."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.core.box import BoxKind
from sandboa.core.candling import Disc, Vessels
from sandboa.core.lay_day import Lump
from sandboa.core.laying.origin import OriginKind, TorchStage
from sandboa.core.methods import Contact, Method
from sandboa.web.lay_day.schemas import EggPlace
from sandboa.web.requests.reader import Sentence
from sandboa.web.requests.revisions import Revision
from sandboa.web.rounds.schemas import DueResponse, PostponedResponse
from sandboa.web.schemas.common import (
    AskedMoment,
    ExpectedResponse,
    ForecastResponse,
    Id,
    ImpossiblePipResponse,
    LogResponse,
    Moment,
    RequestSchema,
    ResponseSchema,
    RibbonPieceResponse,
    Temperature,
)
from sandboa.web.schemas.eggs import EggResponse
from sandboa.web.schemas.faults import FaultResponse
from sandboa.web.schemas.water import BoxWaterResponse
from sandboa.web.today.schemas import AttentionResponse


class BoxResponse(BaseModel):
    """A box in which eggs of the clutch lie, with all eggs in it; set up `since`.

    `shared_with` are the codes of other clutches whose eggs lie in it too.
    """

    id: int
    name: str
    revision: Revision
    kind: BoxKind
    shared_with: list[str]
    cabinet: str
    shelf: str
    medium: str | None
    on_grid: bool
    dry_mass_g: float | None
    water_g: float | None
    set_up_mass_g: float | None
    contact: Contact | None
    closing: str | None
    set_point_c: float | None
    temperature_c: float
    since: Moment
    box_water: BoxWaterResponse | None
    lid: str | None
    due: list[DueResponse]
    postponed: list[PostponedResponse]
    eggs: list[EggResponse]


class ColdSpellResponse(ResponseSchema):
    start: Moment = Field(validation_alias="start_s")
    end: Moment = Field(validation_alias="end_s")
    lowest_c: float
    delay_days: float


class GapResponse(ResponseSchema):
    start: Moment = Field(validation_alias="start_s")
    end: Moment = Field(validation_alias="end_s")
    filled_from: str = Field(validation_alias="provenance")


class ProbeResponse(ResponseSchema):
    id: int = Field(validation_alias="entity_id")
    name: str
    by_hand: bool


class DamAtLayingRequest(RequestSchema):
    """What lay day said of the dam: `lump` null where nobody felt her, g."""

    lump: Lump | None = None
    mass_g: float | None = None


class DamAtLayingResponse(ResponseSchema):
    lump: Lump | None
    mass_g: float | None
    revision: Revision


class DifferenceResponse(ResponseSchema):
    """A line on which the clutch departs from its house method."""

    line: str
    house: Sentence
    own: Sentence


class LearnedResponse(BaseModel):
    """What finished clutches taught: of how many, how many in this cabinet, and the days it moves
    the forecast (negative: earlier); `sentences` say it of the house and of the dam."""

    clutches: int
    in_cabinet: int
    days: float
    sentences: list[Sentence]


class CardLineResponse(ResponseSchema):
    name: str
    text: Sentence


class CardResponse(ResponseSchema):
    """What card and label say beside the dates."""

    parents: str
    lines: list[CardLineResponse]
    egg_notes: str
    keeping: str


class AsLaidResponse(ResponseSchema):
    """What can be corrected of lay day: its eggs where they lay first, its first `box` as set up,
    on the shelf where that stands now; `boxes` are the names of the boxes, egg by egg."""

    eggs: list[EggPlace]
    boxes: list[str]
    box: str
    medium: str | None
    dry_mass_g: float | None
    water_g: float | None
    closing: str | None
    cabinet: str
    shelf: str


class MethodCopiesRequest(RequestSchema):
    """The name of a house method, and the codes of the clutches that are to follow it."""

    method: Annotated[str, Field(max_length=200)]
    clutches: Annotated[
        list[Annotated[str, Field(max_length=20)]], Field(min_length=1, max_length=1_000)
    ]


class SiresRequest(RequestSchema):
    """The sires a clutch may be of, by their ids: one alone is its sire, none: not known."""

    sires: Annotated[list[Id], Field(max_length=50)]


class PossibleSireResponse(ResponseSchema):
    """`chance` by what hatched, null where no sire explains that."""

    id: int
    name: str
    chance: float | None


class SwapRequest(RequestSchema):
    """Two eggs by their numbers. Null `since`: they get each other's number. Else each gets what
    was seen of the other from `since` to `until` (now when left out)."""

    one: Annotated[int, Field(ge=1, le=1000)]
    other: Annotated[int, Field(ge=1, le=1000)]
    since: AskedMoment | None = None
    until: AskedMoment | None = None


class OriginRequest(RequestSchema):
    """Where a clutch comes from; `kind` null: it was seen laid, at `laid_at`.

    Else it was laid at `laid_at`, between `laid_from` and `laid_until`, or showed `stage` by torch
    at `stage_seen_at`. `arrived_at` is when it came into its box, `before_c` about how warm it was.
    """

    kind: OriginKind | None
    laid_at: AskedMoment | None = None
    laid_from: AskedMoment | None = None
    laid_until: AskedMoment | None = None
    stage: TorchStage | None = None
    stage_seen_at: AskedMoment | None = None
    arrived_at: AskedMoment | None = None
    before_c: Temperature | None = None


class OriginResponse(BaseModel):
    """As it was said; `words` what that means for the forecast."""

    kind: OriginKind
    laid_at: Moment | None
    laid_from: Moment | None
    laid_until: Moment | None
    stage: TorchStage | None
    stage_seen_at: Moment | None
    arrived_at: Moment | None
    before_c: float | None
    words: list[Sentence]


class ClutchResponse(BaseModel):
    """`revision` is of the clutch `as_laid`, `method_revision` of its method; `boxes` are where its
    eggs lie, by name; `box` is the name of that of most of them. `origin` null: seen laid."""

    id: int
    revision: Revision
    method_revision: Revision
    code: str
    maternal: bool
    method: Method
    house_method: str
    differences: list[DifferenceResponse]
    dam_id: int
    sire_id: int | None
    dam: str
    sire: str | None
    possible_sires: list[PossibleSireResponse]
    laid_at: Moment
    day: int
    count: str
    card: CardResponse
    as_laid: AsLaidResponse
    boxes: list[BoxResponse]
    box: str
    set_point_at_lay_c: float
    forecast: ForecastResponse | None
    rests_on: str
    origin: OriginResponse | None
    origin_revision: Revision
    sires_revision: Revision
    gaps: list[GapResponse]
    cold_spells: list[ColdSpellResponse]
    ribbon: list[RibbonPieceResponse]
    eggs: list[EggResponse]
    attention: list[AttentionResponse]
    faults: list[FaultResponse]
    learned: LearnedResponse
    impossible_pip: ImpossiblePipResponse | None
    expected: ExpectedResponse | None
    finished_at: Moment | None
    probes: list[ProbeResponse]
    log: list[LogResponse]


class GradeRequest(RequestSchema):
    """A turgor grade; `at` is when it was seen, now when left out."""

    grade: Annotated[int, Field(ge=0, le=4)]
    at: AskedMoment | None = None


class CandlingRequest(RequestSchema):
    """What the torch showed; `disc` null when it was not looked for."""

    vessels: Vessels
    disc: Disc | None = None
    at: AskedMoment | None = None
