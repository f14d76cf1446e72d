"""Seasons: hatch rates with intervals, losses by cause, and what the season taught."""

from typing import Annotated

from fastapi import APIRouter, Query

from sandboa.services.seasons.changes import PlaceChange
from sandboa.services.seasons.dimensions import Dimension
from sandboa.services.seasons.views import (
    GroupShown,
    SlugRates,
    compare_groups,
    go_on_with_season,
    season_page,
)
from sandboa.web.hatching.schemas import ScoreResponse
from sandboa.web.house import NowS, TheHouse
from sandboa.web.seasons.schemas import (
    CauseCostResponse,
    ComparisonResponse,
    DamSlugsResponse,
    DimensionResponse,
    GroupRateResponse,
    LikeForLikeResponse,
    NamedRateResponse,
    PlaceChangeResponse,
    RateResponse,
    SeasonFindingResponse,
    SeasonsResponse,
    SlugRatesResponse,
    SpellResponse,
    StandingScoreResponse,
)
from sandboa.web.security.permissions import LOOK

router = APIRouter(prefix="/api/seasons", tags=["seasons"])


Year = Annotated[int | None, Query(ge=1980, le=2200)]


_GroupName = Annotated[str, Query(max_length=200)]


@router.get("", dependencies=[LOOK])
def get_seasons(house: TheHouse, now_s: NowS, year: Year = None) -> SeasonsResponse:
    """A season's numbers (by year of laying), or those of all."""
    work = f"season {year}"
    page = season_page(house.snapshot(), year, now_s, house.long_work.patience(work))
    if page.uncounted or page.waiting:
        house.long_work.go_on_with(
            work,
            lambda goes_on: go_on_with_season(house.snapshot(), year, house.clock.now_s(), goes_on),
        )
    return SeasonsResponse(
        year=page.year,
        years=list(page.years),
        clutches=len(page.clutches),
        past=page.past,
        hatched=RateResponse.model_validate(page.hatched),
        intraclass_correlation=page.correlation,
        interval_level=page.level,
        dimensions=[
            DimensionResponse(
                dimension=dimension,
                groups=[_group(group) for group in groups],
                changes=[_change(change) for change in page.changes[dimension]],
            )
            for dimension, groups in page.dimensions.items()
        ],
        slugs=[DamSlugsResponse.model_validate(slugs) for slugs in page.slugs],
        slug_rates=_slug_rates(page.slug_rates),
        lost=page.lost,
        opened=page.opened,
        costs=[CauseCostResponse.model_validate(cost) for cost in page.costs],
        scores=[ScoreResponse.model_validate(score) for score in page.scores],
        standings=[StandingScoreResponse.model_validate(score) for score in page.standings],
        uncounted=page.uncounted,
        waiting=page.waiting,
        findings=[SeasonFindingResponse.model_validate(sentence) for sentence in page.findings],
    )


@router.get("/comparison", dependencies=[LOOK])
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


def _change(change: PlaceChange) -> PlaceChangeResponse:
    return PlaceChangeResponse(
        code=change.code,
        numbers=list(change.numbers),
        spells=[SpellResponse(from_day=day, name=name) for day, name in change.spells],
        counted=change.counted,
    )


def _group(group: GroupShown) -> GroupRateResponse:
    return GroupRateResponse(
        name=group.told.name,
        rate=RateResponse.model_validate(group.told.rate),
        drawn=group.told.drawn,
        like_for_like=LikeForLikeResponse.model_validate(group.like_for_like)
        if group.like_for_like
        else None,
        together=list(group.together),
    )


def _slug_rates(told: SlugRates) -> SlugRatesResponse:
    by_dam, by_month = (
        [NamedRateResponse(name=n, rate=RateResponse.model_validate(r)) for n, r in held]
        for held in (told.by_dam, told.by_month)
    )
    return SlugRatesResponse(
        in_all=RateResponse.model_validate(told.in_all), by_dam=by_dam, by_month=by_month
    )
