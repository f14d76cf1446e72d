"""What a learner is shown of a kept season, what may be done in it, and its telling afterwards."""

from typing import Annotated

from pydantic import BaseModel, Field

from sandboa.practice.seasons.sessions import BOXES_RANGE, USUAL_BOXES
from sandboa.web.requests.reader import Sentence
from sandboa.web.schemas.common import Celsius, Grams, RequestSchema, ResponseSchema, Share


class SeasonBeginRequest(RequestSchema):
    """A new season. With a `seed`, as typed, it is that of whoever else takes it; `school` is the
    rhythm the learner means to keep, null for none."""

    boxes: Annotated[int, Field(ge=BOXES_RANGE[0], le=BOXES_RANGE[1])] = USUAL_BOXES
    difficulty: Annotated[str, Field(max_length=40)] = "usual"
    school: Annotated[str, Field(max_length=40)] | None = None
    seed: Annotated[str, Field(max_length=40)] | None = None


class DeedRequest(RequestSchema):
    """Something done on the season's `day`; `box` is its place, from 0, `egg` its number there."""

    revision: int
    day: int
    what: Annotated[str, Field(max_length=40)]
    box: int | None = None
    egg: int | None = None
    water_g: float = 0.0


class DaysRequest(RequestSchema):
    """So many days pass."""

    revision: int
    days: int = 1


class KeptEggResponse(BaseModel):
    """An egg as it was seen when its box was opened last; `candled`: its picture is there now."""

    number: int
    grade: int
    mould: str
    wet: str
    colour: str
    feel: str
    hangs: bool
    pipped: bool
    out: bool
    removed: bool
    isolated: bool
    candled: bool


class KeptBoxResponse(BaseModel):
    """A box. `lid` is seen through it today; what is in it as it was on `seen_day`, null before
    the first look. `day` counts from when its eggs were laid."""

    place: int
    name: str
    shelf: str
    closing: str
    holes: bool
    medium: str
    set_up_mass_g: Grams
    day: int
    lid: str
    open: bool
    seen_day: int | None
    feels: str | None
    smell: str | None
    mass_g: Grams | None
    short_g: Grams | None
    eggs: list[KeptEggResponse]


class KeptShelfResponse(BaseModel):
    """A shelf's thermometer since yesterday."""

    name: str
    mean_temperature_c: Celsius
    lowest_temperature_c: Celsius
    highest_temperature_c: Celsius


class KeptSeasonResponse(BaseModel):
    """A season as it stands on its `day`; `due` are the places of the boxes that the chosen
    `school` opens on it."""

    id: int
    seed: int
    difficulty: str
    school: str | None
    due: list[int]
    revision: int
    day: int
    over: bool
    set_point_c: Celsius
    humidity: Share
    shelves: list[KeptShelfResponse]
    boxes: list[KeptBoxResponse]
    hatched: int


class LostToResponse(ResponseSchema):
    """Eggs lost to one cause, in words."""

    of: str
    eggs: int


class KeptResponse(ResponseSchema):
    """How a keeper fared in a season, and what took eggs, most first."""

    who: str
    hatched: int
    lost: int
    causes: list[LostToResponse]


class HiddenResponse(BaseModel):
    """What befell a box, or the cabinet (`box` null), from a day on."""

    day: int
    box: str | None
    text: Sentence


class ChoiceResponse(ResponseSchema):
    """What was done at a box, or anywhere (`box` null), how often, and how many eggs more hatched
    by it."""

    what: str
    box: str | None
    times: int
    worth: int


class LessonResponse(ResponseSchema):
    """Something to learn: eggs that others kept, what took them, and the rule."""

    eggs: int
    of: str
    text: Sentence
    rule: str


class TellingResponse(BaseModel):
    """A season told: what was hidden, how others kept it, what choices were worth."""

    eggs: int
    blanks: int
    own: KeptResponse
    others: list[KeptResponse]
    hidden: list[HiddenResponse]
    choices: list[ChoiceResponse]
    lessons: list[LessonResponse]
