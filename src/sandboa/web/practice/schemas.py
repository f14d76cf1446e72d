"""What a learner is shown of a simulated egg, what may be said of it, and its truth afterwards.

Nothing of a truth is in what is shown before: not whether it lives, nor what kind of case it is.
"""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from sandboa.core.standing import Standing
from sandboa.practice.looks.sessions import EGGS_RANGE, USUAL_EGGS
from sandboa.web.requests.reader import Sentence
from sandboa.web.schemas.common import Celsius, Grams, Moment, RequestSchema, ResponseSchema, Share

Act = Literal["leave", "candle", "water", "air", "support", "isolate", "remove", "help"]


class DeckResponse(BaseModel):
    """A deck: `kinds` of cases in it, of which `due` are to come again by now and `unseen` never
    came."""

    deck: str
    kinds: int
    due: int
    unseen: int


class LookListedResponse(BaseModel):
    """A session in the list: `done` of its `eggs` were judged."""

    id: int
    deck: str
    began_at: Moment
    eggs: int
    done: int


class SeasonListedResponse(ResponseSchema):
    """A kept season in the list: its day, and its seed to share."""

    id: int
    seed: int
    began_at: Moment
    boxes: int
    difficulty: str
    day: int
    over: bool


class PracticeResponse(BaseModel):
    """Decks, and the sessions that are not done, the newest first; `judged` eggs so far."""

    decks: list[DeckResponse]
    sessions: list[LookListedResponse]
    seasons: list[SeasonListedResponse]
    judged: int


class LookBeginRequest(RequestSchema):
    """A new session. With a `seed`, as typed, its eggs are those of whoever else takes it."""

    deck: Annotated[str, Field(max_length=40)]
    eggs: Annotated[int, Field(ge=EGGS_RANGE[0], le=EGGS_RANGE[1])] = USUAL_EGGS
    seed: Annotated[str, Field(max_length=40)] | None = None


class EarlierLookResponse(BaseModel):
    """A look before: on which day since it was laid, and what was recorded."""

    day: int
    grade: int
    vessels: str | None
    mould: str
    smell: str


class CaseBoxResponse(BaseModel):
    """The box of the egg; `short_g` is what the scale misses since set-up, `neighbours` the grades
    of the other eggs' dents."""

    medium: str
    closing: str
    lid: str
    feels: str
    short_g: Grams
    mean_temperature_c: Celsius
    neighbours: list[int]


class CaseResponse(BaseModel):
    """An egg as eyes, hand and nose find it; what a torch shows is its picture."""

    egg: int
    day: int
    share: Share
    shell: str
    grade: int
    mould: str
    smell: str
    wet: str
    colour: str
    feel: str
    hangs: bool
    pipped_hours: int | None
    first_pip_hours: int | None
    box: CaseBoxResponse
    earlier: list[EarlierLookResponse]


class JudgementRequest(RequestSchema):
    """What the learner says: the chance that it lives, whether it is usual for its stage, and what
    to do next; `candle_day` where that is to candle it."""

    chance_percent: float
    usual: bool
    act: Annotated[str, Field(max_length=40)]
    candle_day: Annotated[int, Field(ge=0, le=1_000)] | None = None


class JudgedResponse(ResponseSchema):
    """What the learner said."""

    chance_percent: float
    usual: bool
    act: str
    candle_day: int | None


class PushResponse(BaseModel):
    """A sign and its push on the log-odds that the egg lives; 0 with the reason in `void`."""

    words: Sentence
    push: float
    void: Sentence


class NextActResponse(ResponseSchema):
    """What to do next, and why."""

    act: str
    text: Sentence


class OpinionResponse(BaseModel):
    """What Sandboa would have said of what can be seen."""

    standing: Standing
    alive: Share
    early: bool
    advice: list[NextActResponse]
    evidence: list[PushResponse]


class ToldResponse(BaseModel):
    """The truth of an egg that was judged. `worth` is how many animals more live by what the
    learner would have done than by leaving it alone, `best` by the best that could be done."""

    egg: int
    judged: JudgedResponse
    alive: bool
    mistaken: bool
    usual: bool
    truth: Sentence
    came: Sentence
    worth: float
    best: float
    opinion: OpinionResponse


class LookResponse(BaseModel):
    """A session: every egg as it is shown, and the truth of those that were judged."""

    id: int
    deck: str
    seed: int | None
    began_at: Moment
    cases: list[CaseResponse]
    told: list[ToldResponse]


class TallyResponse(ResponseSchema):
    """Counts over eggs judged; `brier` is null of none."""

    eggs: int
    alive: int
    false_alarms: int
    missed: int
    stages_right: int
    saved: float
    could_save: float
    lost: float
    brier: float | None


class CalibrationBinResponse(ResponseSchema):
    """Of `eggs` said to live with about `said` it was so for `came`; low-high holds the share."""

    eggs: int
    said: float
    came: int
    low: float
    high: float


class SignScoreResponse(ResponseSchema):
    """A sign in `eggs` cases: how many lived, how many were false alarms, how many missed."""

    sign: Sentence
    eggs: int
    alive: int
    false_alarms: int
    missed: int


class WeekResponse(ResponseSchema):
    """A week: eggs judged, and the mean squared error of the chance."""

    since: Moment = Field(validation_alias="from_s")
    eggs: int
    brier: float


class ProgressResponse(BaseModel):
    """What judging was worth so far, of one deck or of all."""

    tally: TallyResponse
    bins: list[CalibrationBinResponse]
    signs: list[SignScoreResponse]
    weeks: list[WeekResponse]
