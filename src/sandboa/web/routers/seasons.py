"""Seasons: hatch rates with intervals, losses by cause, and what the season taught."""

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel

from sandboa.core.rates import GroupRate
from sandboa.core.standing import Standing
from sandboa.services.seasons.counted import Dimension
from sandboa.services.seasons.page import compare_groups, season_page
from sandboa.web.house import NowS, TheHouse
from sandboa.web.patience import for_seconds
from sandboa.web.routers.hatching import ScoreResponse
from sandboa.web.shapes import ResponseSchema

#: s after which a page is answered with what is worked out by then.
_PATIENCE_S = 2.0

router = APIRouter(prefix="/api/seasons", tags=["seasons"])

Year = Annotated[int | None, Query(ge=1980, le=2200)]
_GroupName = Annotated[str, Query(max_length=200)]


class RateResponse(ResponseSchema):
    """`k` of `n` eggs in `clutches`; low-high holds the rate behind them in 90 %."""

    k: int
    n: int
    clutches: int
    share: float | None
    low: float
    high: float
    effective_n: float


class GroupRateResponse(ResponseSchema):
    """`drawn` is what to expect of the group: its own record and the house's together."""

    name: str
    rate: RateResponse
    drawn: float | None


class DimensionResponse(BaseModel):
    dimension: Dimension
    groups: list[GroupRateResponse]


class DamSlugsResponse(ResponseSchema):
    dam: str
    year: int
    rate: RateResponse
    counts: list[str]


class CauseCostResponse(ResponseSchema):
    """Eggs a cause likely cost, by its shares; `code` is the clutch it cost most."""

    cause: str
    eggs: float
    code: str
    change: str


class StandingBinResponse(ResponseSchema):
    """Of `eggs` told so: the mean chance said, and how many pipped later."""

    standing: Standing
    eggs: int
    said: float
    pipped: int


class StandingScoreResponse(ResponseSchema):
    """Standings of one day against what came; Brier scores are the better the smaller."""

    day: int
    eggs: int
    pipped: int
    brier: float
    brier_of_always: float
    words: str
    bins: list[StandingBinResponse]


class SeasonFindingResponse(ResponseSchema):
    text: str
    number: str
    about: str


class SeasonsResponse(BaseModel):
    """`year` null is all years. `likeness` is how alike eggs of one clutch are, 0-1.

    Of `waiting` clutches it is not worked out yet why eggs were lost: ask again.
    """

    year: int | None
    years: list[int]
    clutches: int
    hatched: RateResponse
    likeness: float
    dimensions: list[DimensionResponse]
    slugs: list[DamSlugsResponse]
    lost: int
    opened: int
    costs: list[CauseCostResponse]
    scores: list[ScoreResponse]
    standings: list[StandingScoreResponse]
    waiting: int
    taught: list[SeasonFindingResponse]


class ComparisonResponse(ResponseSchema):
    """`better` is the chance that the first group's rate is the higher one."""

    words: str
    better: float
    called: bool
    difference_low: float
    difference_high: float


@router.get("")
def get_seasons(house: TheHouse, now_s: NowS, year: Year = None) -> SeasonsResponse:
    """A season's numbers (by year of laying), or those of all."""
    page = season_page(house.snapshot(), year, now_s, for_seconds(_PATIENCE_S))
    return SeasonsResponse(
        year=page.year,
        years=list(page.years),
        clutches=len(page.clutches),
        hatched=RateResponse.model_validate(page.hatched),
        likeness=page.likeness,
        dimensions=[
            DimensionResponse(dimension=dimension, groups=[_group(group) for group in groups])
            for dimension, groups in page.dimensions.items()
        ],
        slugs=[DamSlugsResponse.model_validate(slugs) for slugs in page.slugs],
        lost=page.lost,
        opened=page.opened,
        costs=[CauseCostResponse.model_validate(cost) for cost in page.costs],
        scores=[ScoreResponse.model_validate(score) for score in page.scores],
        standings=[StandingScoreResponse.model_validate(score) for score in page.standings],
        waiting=page.waiting,
        taught=[SeasonFindingResponse.model_validate(sentence) for sentence in page.taught],
    )


@router.get("/comparison")
def get_comparison(
    house: TheHouse,
    now_s: NowS,
    by: Dimension,
    first: _GroupName,
    second: _GroupName,
    year: Year = None,
) -> ComparisonResponse:
    """Two groups in one sentence, which knows when it is too few."""
    told = compare_groups(house.snapshot(), by, first, second, year, now_s)
    return ComparisonResponse.model_validate(told)


def _group(group: GroupRate) -> GroupRateResponse:
    return GroupRateResponse.model_validate(group)
