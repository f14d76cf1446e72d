"""What ends a clutch's time in the box: moves, pips, done; and how good the forecasts were."""

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import Field

from sandboa.journal import cabinets, hatching
from sandboa.journal.forecasts_told import scores
from sandboa.web.house import NowS, TheHouse
from sandboa.web.shapes import ActTold, Asked, AskedMoment, Told

router = APIRouter(prefix="/api", tags=["hatching"])

Code = Annotated[str, Path(max_length=20)]
_SHORT_NAME = Annotated[str, Field(max_length=200)]


class MoveAsked(Asked):
    cabinet: _SHORT_NAME
    shelf: _SHORT_NAME
    at: AskedMoment | None = None


class MomentAsked(Asked):
    """When it was; now when left out."""

    at: AskedMoment | None = None


class ScoreTold(Told):
    """Forecasts made on `day` after lay, held against the mean pip that came.

    Errors in days, positive when the forecast was too late; `in_half` and
    `in_eighty` are how many pips the 50 % and the 80 % window held.
    """

    day: int
    clutches: int
    bias_days: float
    error_days: float
    in_half: int
    in_eighty: int


@router.post("/clutches/{code}/moves", status_code=201)
def move_box(code: Code, asked: MoveAsked, now_s: NowS) -> ActTold:
    """Record that a clutch's box was put on another shelf."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActTold.of(cabinets.move_box(code, asked.cabinet, asked.shelf, at_s, now_s))


@router.post("/clutches/{code}/eggs/{number}/pip", status_code=201)
def see_pip(
    code: Code, number: Annotated[int, Path(ge=1, le=1000)], asked: MomentAsked, now_s: NowS
) -> ActTold:
    """Record that an egg has pipped."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActTold.of(hatching.see_pip(code, number, at_s, now_s))


@router.post("/clutches/{code}/finished", status_code=201)
def finish(code: Code, asked: MomentAsked, now_s: NowS) -> ActTold:
    """Record that no more eggs of the clutch will pip."""
    at_s = asked.at.timestamp() if asked.at else now_s
    return ActTold.of(hatching.finish(code, at_s, now_s))


@router.get("/forecast-scores")
def get_scores(house: TheHouse) -> list[ScoreTold]:
    """How good the forecasts of finished clutches were."""
    return [ScoreTold.model_validate(s) for s in scores(house.now.facts())]
