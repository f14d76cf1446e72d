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
from sandboa.web.routers.hatching import ScoreTold
from sandboa.web.shapes import Told

#: s after which a page is answered with what is worked out by then.
_PATIENCE_S = 2.0

router = APIRouter(prefix="/api/seasons", tags=["seasons"])

Year = Annotated[int | None, Query(ge=1980, le=2200)]
_GroupName = Annotated[str, Query(max_length=200)]


class RateTold(Told):
    """`k` of `n` eggs in `clutches`; low-high holds the rate behind them in 90 %."""

    k: int
    n: int
    clutches: int
    share: float | None
    low: float
    high: float
    effective_n: float


class GroupRateTold(Told):
    """`drawn` is what to expect of the group: its own record and the house's together."""

    name: str
    rate: RateTold
    drawn: float | None


class DimensionTold(BaseModel):
    dimension: Dimension
    groups: list[GroupRateTold]


class DamSlugsTold(Told):
    dam: str
    year: int
    rate: RateTold
    counts: list[str]


class CauseCostTold(Told):
    """Eggs a cause likely cost, by its shares; `code` is the clutch it cost most."""

    cause: str
    eggs: float
    code: str
    change: str


class StandingBinTold(Told):
    """Of `eggs` told so: the mean chance said, and how many pipped later."""

    standing: Standing
    eggs: int
    said: float
    pipped: int


class StandingScoreTold(Told):
    """Standings of one day against what came; Brier scores are the better the smaller."""

    day: int
    eggs: int
    pipped: int
    brier: float
    brier_of_always: float
    words: str
    bins: list[StandingBinTold]


class TaughtTold(Told):
    text: str
    number: str
    about: str


class SeasonsTold(BaseModel):
    """`year` null is all years. `likeness` is how alike eggs of one clutch are, 0-1.

    Of `waiting` clutches it is not worked out yet why eggs were lost: ask again.
    """

    year: int | None
    years: list[int]
    clutches: int
    hatched: RateTold
    likeness: float
    dimensions: list[DimensionTold]
    slugs: list[DamSlugsTold]
    lost: int
    opened: int
    costs: list[CauseCostTold]
    scores: list[ScoreTold]
    standings: list[StandingScoreTold]
    waiting: int
    taught: list[TaughtTold]


class ComparisonTold(Told):
    """`better` is the chance that the first group's rate is the higher one."""

    words: str
    better: float
    called: bool
    difference_low: float
    difference_high: float


@router.get("")
def get_seasons(house: TheHouse, now_s: NowS, year: Year = None) -> SeasonsTold:
    """A season's numbers (by year of laying), or those of all."""
    page = season_page(house.snapshot(), year, now_s, for_seconds(_PATIENCE_S))
    return SeasonsTold(
        year=page.year,
        years=list(page.years),
        clutches=len(page.clutches),
        hatched=RateTold.model_validate(page.hatched),
        likeness=page.likeness,
        dimensions=[
            DimensionTold(dimension=dimension, groups=[_group(group) for group in groups])
            for dimension, groups in page.dimensions.items()
        ],
        slugs=[DamSlugsTold.model_validate(slugs) for slugs in page.slugs],
        lost=page.lost,
        opened=page.opened,
        costs=[CauseCostTold.model_validate(cost) for cost in page.costs],
        scores=[ScoreTold.model_validate(score) for score in page.scores],
        standings=[StandingScoreTold.model_validate(score) for score in page.standings],
        waiting=page.waiting,
        taught=[TaughtTold.model_validate(sentence) for sentence in page.taught],
    )


@router.get("/comparison")
def get_comparison(
    house: TheHouse,
    now_s: NowS,
    by: Dimension,
    first: _GroupName,
    second: _GroupName,
    year: Year = None,
) -> ComparisonTold:
    """Two groups in one sentence, which knows when it is too few."""
    told = compare_groups(house.snapshot(), by, first, second, year, now_s)
    return ComparisonTold.model_validate(told)


def _group(group: GroupRate) -> GroupRateTold:
    return GroupRateTold.model_validate(group)
