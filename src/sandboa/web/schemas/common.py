"""Field types shared by requests and responses: moments, temperatures, names, acts."""

from datetime import UTC, datetime
from typing import Annotated, Any

from pydantic import (
    AfterValidator,
    AwareDatetime,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
)

from sandboa.core.animals import TraitForm
from sandboa.core.development import Forecast
from sandboa.core.development.exposure import Exposure
from sandboa.core.development.impossible_pip import ImpossiblePip
from sandboa.core.development.none_alive import late_words
from sandboa.core.development.ribbon import RibbonPiece
from sandboa.core.development.windows import Window
from sandboa.core.units import READING_RANGE_C, require_moment
from sandboa.services.acts.log import LogEntry
from sandboa.services.acts.recording import Act
from sandboa.services.acts.strict_model import StrictModel
from sandboa.web.requests.reader import Sentence


def _moment(value: Any) -> Any:
    return datetime.fromtimestamp(value, UTC) if isinstance(value, int | float) else value


def at(seconds: float) -> datetime:
    """The core's seconds as a moment."""
    return datetime.fromtimestamp(seconds, UTC)


def at_or_none(seconds: float | None) -> datetime | None:
    return None if seconds is None else at(seconds)


#: A moment in a response, made from the core's seconds.
Moment = Annotated[AwareDatetime, BeforeValidator(_moment)]


def _minute(value: Any) -> Any:
    return _moment(round(value / 60.0) * 60.0) if isinstance(value, int | float) else value


#: A moment that is estimated, to the minute.
Minute = Annotated[AwareDatetime, BeforeValidator(_minute)]


def _digits(digits: int) -> PlainSerializer:
    return PlainSerializer(lambda value: round(value, digits), return_type=float)


#: A share or a chance (0-1), °C, and g as they are told: finer than anything here is known.
Share = Annotated[float, _digits(4)]
Celsius = Annotated[float, _digits(3)]
Grams = Annotated[float, _digits(2)]


def _asked_moment(moment: datetime) -> datetime:
    require_moment("the moment", moment.timestamp())
    return moment


#: A moment in a request: with its offset, in the years 1980 to 2200.
AskedMoment = Annotated[AwareDatetime, AfterValidator(_asked_moment)]
#: The id of an act or a probe; no larger than JSON and SQLite can both hold.
Id = Annotated[int, Field(ge=1, le=2**53)]
Temperature = Annotated[float, Field(ge=READING_RANGE_C[0], le=READING_RANGE_C[1])]
Humidity = Annotated[float, Field(ge=0, le=1)]


def seconds_or_now(asked: datetime | None, now_s: float) -> float:
    """When something was (s): as it is said, now where that is left out."""
    return asked.timestamp() if asked else now_s


class RequestSchema(StrictModel):
    """Base of request bodies: unknown fields, NaN, infinity and numbers as text are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class ResponseSchema(BaseModel):
    """Base of response bodies, filled from the services' dataclasses."""

    model_config = ConfigDict(from_attributes=True)


class ActResponse(ResponseSchema):
    """An act just recorded; its id undoes it."""

    id: int
    summary: Sentence

    @classmethod
    def of(cls, act: Act) -> "ActResponse":
        return cls(id=act.id, summary=act.said)


class LogResponse(BaseModel):
    """A line of a log; `by` is who recorded it, null at the machine itself. `at` is when it
    happened, null where that is not known; `visit` is what is corrected at the box, where the line
    is of one, `correctable` whether what it recorded is corrected as the act's record, and `clutch`
    the code of the clutch it is of."""

    act: int
    kind: str
    summary: Sentence
    recorded_at: Moment
    at: Moment | None
    undone: bool
    by: str | None
    visit: int | None
    correctable: bool
    clutch: str | None

    @classmethod
    def of(cls, entry: LogEntry) -> "LogResponse":
        return cls(
            act=entry.act.id,
            kind=entry.act.kind,
            summary=entry.act.said,
            recorded_at=entry.act.recorded_s,  # type: ignore[arg-type]
            at=entry.act.at_s,  # type: ignore[arg-type]
            undone=entry.undone,
            by=entry.by,
            visit=entry.visit,
            correctable=entry.single,
            clutch=entry.clutch,
        )


class DependentsResponse(BaseModel):
    """What rests on an act, a sentence each; none where nothing does."""

    sentences: list[Sentence]


class WindowResponse(ResponseSchema):
    """p10-p90 holds 80 %, p25-p75 half."""

    p10: Minute
    p25: Minute
    p50: Minute
    p75: Minute
    p90: Minute


class ForecastResponse(ResponseSchema):
    as_of: Moment
    day: float
    development: float
    fraction: float
    measured_share: float
    log_sd: float
    rate_per_day: float
    none_alive: float
    late: str | None
    overdue: bool
    first_pip: WindowResponse | None
    typical_pip: WindowResponse | None
    last_pip: WindowResponse | None
    next_out: WindowResponse | None
    all_out: WindowResponse | None
    first_shed: WindowResponse | None
    first_meal: WindowResponse | None
    pipped: int
    first_pipped_at: Moment | None
    next_pip: WindowResponse | None

    @classmethod
    def of(cls, forecast: Forecast) -> "ForecastResponse":
        """As the core has it, with `late`, what to say when time goes by without a pip."""

        def window(held: Window | None) -> WindowResponse | None:
            return None if held is None else WindowResponse.model_validate(held)

        return cls(
            as_of=forecast.as_of_s,  # type: ignore[arg-type]  # seconds, validated to a moment
            day=forecast.day,
            development=forecast.development,
            fraction=forecast.fraction,
            measured_share=forecast.measured_share,
            log_sd=forecast.log_sd,
            rate_per_day=forecast.rate_per_day,
            none_alive=forecast.none_alive,
            late=late_words(forecast.none_alive, forecast.rules),
            overdue=forecast.overdue,
            first_pip=window(forecast.first_pip),
            typical_pip=window(forecast.typical_pip),
            last_pip=window(forecast.last_pip),
            next_out=window(forecast.next_out),
            all_out=window(forecast.all_out),
            first_shed=window(forecast.first_shed),
            first_meal=window(forecast.first_meal),
            pipped=forecast.pipped,
            first_pipped_at=at_or_none(forecast.first_pipped_s),
            next_pip=window(forecast.next_pip),
        )


class RibbonPieceResponse(BaseModel):
    """A piece of the development ribbon."""

    start: Moment
    end: Moment
    development_start: float
    development_end: float
    mean_c: float
    source: str
    measured: bool
    exposure: Exposure

    @classmethod
    def of(cls, piece: RibbonPiece) -> "RibbonPieceResponse":
        return cls(
            start=piece.start_s,  # type: ignore[arg-type]
            end=piece.end_s,  # type: ignore[arg-type]
            development_start=piece.development_start,
            development_end=piece.development_end,
            mean_c=piece.mean_c,
            source=piece.provenance.value,
            measured=piece.measured,
            exposure=piece.exposure,
        )


class TraitRequest(RequestSchema):
    """A trait an animal carries, or a hatchling shows."""

    name: Annotated[str, Field(max_length=20_000)]
    form: TraitForm


class TraitResponse(ResponseSchema):
    name: str
    form: str


class WeightResponse(ResponseSchema):
    at: Moment = Field(validation_alias="at_s")
    mass_g: float


class MealResponse(ResponseSchema):
    at: Moment = Field(validation_alias="at_s")
    taken: bool
    prey: str
    mass_g: float | None


class PhotoResponse(ResponseSchema):
    """A photo; its picture is at /api/photos/{file}.jpg. `egg` null when it is of the whole."""

    id: int = Field(validation_alias="entity_id")
    egg: int | None = Field(validation_alias="egg_number")
    step: str
    taken_at: Moment = Field(validation_alias="taken_s")
    file: str
    width: int
    height: int


class ExpectedResponse(ResponseSchema):
    """Of `eggs` eggs `middle` are expected to hatch, 80 % of the time `low` to `high`."""

    eggs: int
    low: int
    middle: int
    high: int
    words: str


class ImpossiblePipResponse(BaseModel):
    """A first pip that cannot be by heat, as a question: it would fit eggs laid `days` earlier
    (negative: later), or a probe that reads `reads_low_c` too low (negative: too high)."""

    question: Sentence
    days: float
    reads_low_c: float

    @classmethod
    def of(cls, found: ImpossiblePip | None) -> "ImpossiblePipResponse | None":
        """As the core asks it; None where nothing is asked."""
        if found is None:
            return None
        return cls(question=found.words, days=found.days, reads_low_c=found.reads_low_c)
