"""Requests and responses of this place."""

from pydantic import BaseModel

from sandboa.core.standing import Standing
from sandboa.services.seasons.dimensions import Dimension
from sandboa.web.hatching.schemas import ScoreResponse
from sandboa.web.schemas.common import ResponseSchema


class RateResponse(ResponseSchema):
    """`k` of `n` eggs in `clutches`; low-high holds the rate behind them in 90 %."""

    k: int
    n: int
    clutches: int
    share: float | None
    low: float
    high: float
    effective_n: float


class LikeForLikeResponse(ResponseSchema):
    """What to expect of a group with all else as usual; low-high holds it in 90 %."""

    rate: float
    low: float
    high: float


class GroupRateResponse(BaseModel):
    """`drawn` is what to expect of the group: its own record and the house's together.

    `like_for_like` is the same with all else as usual, null where that is not worked out;
    `together` names groups that hold the very same clutches.
    """

    name: str
    rate: RateResponse
    drawn: float | None
    like_for_like: LikeForLikeResponse | None
    together: list[str]


class SpellResponse(BaseModel):
    """Under a name from a day after lay on."""

    from_day: int
    name: str


class PlaceChangeResponse(BaseModel):
    """Eggs of a clutch that changed while they developed; they are counted under `counted`."""

    code: str
    numbers: list[int]
    spells: list[SpellResponse]
    counted: str


class DimensionResponse(BaseModel):
    dimension: Dimension
    groups: list[GroupRateResponse]
    changes: list[PlaceChangeResponse]


class DamSlugsResponse(ResponseSchema):
    dam: str
    year: int
    rate: RateResponse
    counts: list[str]


class NamedRateResponse(BaseModel):
    name: str
    rate: RateResponse


class SlugRatesResponse(BaseModel):
    """Slugs of laid eggs in all, by dam over the years, and by month of laying."""

    in_all: RateResponse
    by_dam: list[NamedRateResponse]
    by_month: list[NamedRateResponse]


class CauseCostResponse(ResponseSchema):
    """Eggs a cause likely cost, by its shares; `code` is the clutch it cost most."""

    cause: str
    eggs: float
    code: str
    change: str


class StandingBinResponse(ResponseSchema):
    """Of `eggs` told so: the mean chance of hatching said, and how many did."""

    standing: Standing
    eggs: int
    said: float
    hatched: int


class ReliabilityBinResponse(ResponseSchema):
    """Of `eggs` told about `said` it came for `came`; low-high holds the share in 90 %."""

    eggs: int
    said: float
    came: int
    low: float
    high: float


class ReliabilityResponse(ResponseSchema):
    """Chances that were told against what came, of so many eggs, bin by bin."""

    eggs: int
    came: int
    brier: float
    brier_of_always: float
    bins: list[ReliabilityBinResponse]


class StandingScoreResponse(ResponseSchema):
    """Standings of one day against what came; Brier scores are the better the smaller."""

    day: int
    eggs: int
    hatched: int
    brier: float
    brier_of_always: float
    words: str
    bins: list[StandingBinResponse]
    will_hatch: ReliabilityResponse | None
    alive: ReliabilityResponse | None


class SeasonFindingResponse(ResponseSchema):
    text: str
    number: str
    about: str


class SeasonsResponse(BaseModel):
    """`year` null is all years. `intraclass_correlation` is how alike eggs of one clutch are,
    0-1, and `interval_level` the share that intervals of rates hold.

    `past` of the clutches are of before Sandboa: only counts of them are known. How `uncounted`
    clutches ended, of whatever year, is not worked out yet, nor why eggs of `waiting` clutches
    were lost: ask again.
    """

    year: int | None
    years: list[int]
    clutches: int
    past: int
    hatched: RateResponse
    intraclass_correlation: float
    interval_level: float
    dimensions: list[DimensionResponse]
    slugs: list[DamSlugsResponse]
    slug_rates: SlugRatesResponse
    lost: int
    opened: int
    costs: list[CauseCostResponse]
    scores: list[ScoreResponse]
    standings: list[StandingScoreResponse]
    uncounted: int
    waiting: int
    findings: list[SeasonFindingResponse]


class ComparisonResponse(ResponseSchema):
    """`better` is the chance that the first group's rate is the higher one."""

    words: str
    better: float
    called: bool
    difference_low: float
    difference_high: float
