"""Hatch watch: pips, cuts, emergences, hatchlings, fates, and a clutch closed or reopened."""

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import Field

from sandboa.core.hatching import DeathStage, Defect, Fate, Sex, Size, YolkLeft
from sandboa.core.hatching.last_week import LastWeekTask
from sandboa.services.acts.revisions import saved_over
from sandboa.services.animals.meals import MealCommand
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.cabinets import commands as cabinets
from sandboa.services.clutches.told_forecasts import scores
from sandboa.services.forms.clutch import hatchling_form
from sandboa.services.hatching import (
    at_the_egg,
    fates,
    hatchlings,
    watch,
)
from sandboa.web.hatch_shapes import (
    HatchingClutchResponse,
    HatchWatchResponse,
    hatching_clutch_told,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.revisions import Seen
from sandboa.web.shapes import (
    ActResponse,
    AskedMoment,
    Id,
    RequestSchema,
    ResponseSchema,
    TraitRequest,
)

router = APIRouter(prefix="/api", tags=["hatching"])

Code = Annotated[str, Path(max_length=20)]
EggNumber = Annotated[int, Path(ge=1, le=1000)]
HatchlingId = Annotated[Id, Path()]
_SHORT_NAME = Annotated[str, Field(max_length=200)]


class MoveRequest(RequestSchema):
    cabinet: _SHORT_NAME
    shelf: _SHORT_NAME
    at: AskedMoment | None = None


class MomentRequest(RequestSchema):
    """When it was; now when left out."""

    at: AskedMoment | None = None


class CutRequest(MomentRequest):
    """An egg opened by hand: why, and whether it bled."""

    reason: _SHORT_NAME
    bled: bool = False


class HatchlingRequest(RequestSchema):
    """What came out of an egg; `part` 2 is the second of twins, `twins` the word that it is one,
    `plain` the word that it shows no trait."""

    part: Annotated[int, Field(ge=1, le=9)] = 1
    mass_g: float | None = None
    sex: Sex = Sex.NOT_SEXED
    size: Size | None = None
    yolk: YolkLeft | None = None
    traits: list[TraitRequest] = Field(max_length=200, default_factory=list)
    defects: list[Defect] = Field(max_length=10, default_factory=list)
    note: Annotated[str, Field(max_length=2000)] = ""
    plain: bool = False
    twins: bool = False


class HatchlingWeightRequest(MomentRequest):
    mass_g: float


class FirstMealRequest(MomentRequest):
    taken: bool
    prey: _SHORT_NAME = ""
    mass_g: float | None = None


class FateRequest(RequestSchema):
    """What became of an egg; `stage` where it died inside."""

    number: Annotated[int, Field(ge=1, le=1000)]
    fate: Fate
    stage: DeathStage | None = None


class FatesRequest(MomentRequest):
    fates: list[FateRequest] = Field(max_length=100)


class LastWeekTickRequest(RequestSchema):
    task: LastWeekTask
    done: bool


class ScoreResponse(ResponseSchema):
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


@router.get("/hatch-watch")
def get_hatch_watch(house: TheHouse, now_s: NowS) -> HatchWatchResponse:
    """Clutches in their last week, pipping, or with hatchlings not settled yet."""
    return HatchWatchResponse(
        as_of=now_s,  # type: ignore[arg-type]
        clutches=[hatching_clutch_told(c) for c in watch.hatch_watch(house.snapshot(), now_s)],
    )


@router.get("/clutches/{code}/hatch")
def get_hatching_clutch(code: Code, house: TheHouse, now_s: NowS) -> HatchingClutchResponse:
    """One clutch at hatch."""
    return hatching_clutch_told(watch.hatching_clutch(house.snapshot(), code, now_s))


@router.post("/clutches/{code}/moves", status_code=201)
def move_box(code: Code, asked: MoveRequest, now_s: NowS) -> ActResponse:
    """Record that a clutch's box was put on another shelf."""
    return ActResponse.of(
        cabinets.move_box(code, asked.cabinet, asked.shelf, _when(asked.at, now_s), now_s)
    )


@router.post("/clutches/{code}/eggs/{number}/pip", status_code=201)
def see_pip(code: Code, number: EggNumber, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Record that an egg has pipped."""
    return ActResponse.of(at_the_egg.see_pip(code, number, _when(asked.at, now_s), now_s))


@router.post("/clutches/{code}/eggs/{number}/emergence", status_code=201)
def see_emergence(code: Code, number: EggNumber, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Record that a hatchling is out of its egg."""
    return ActResponse.of(at_the_egg.see_emergence(code, number, _when(asked.at, now_s), now_s))


@router.post("/clutches/{code}/eggs/{number}/cut", status_code=201)
def cut_egg(code: Code, number: EggNumber, asked: CutRequest, now_s: NowS) -> ActResponse:
    """Record that an egg was cut open, and why."""
    at_s = _when(asked.at, now_s)
    return ActResponse.of(
        at_the_egg.cut_egg(code, number, asked.reason, at_s, now_s, bled=asked.bled)
    )


@router.put("/clutches/{code}/eggs/{number}/hatchling")
def record_hatchling(
    code: Code, number: EggNumber, asked: HatchlingRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Record, or correct, what came out of an egg; the first time over the revision "new"."""
    said = hatchlings.HatchlingCommand(
        number,
        part=asked.part,
        mass_g=asked.mass_g,
        sex=asked.sex,
        size=asked.size,
        yolk=asked.yolk,
        traits=[TraitCommand(t.name, t.form) for t in asked.traits],
        defects=tuple(asked.defects),
        note=asked.note,
        plain=asked.plain,
    )
    with saved_over(seen, lambda: hatchling_form(code, number, asked.part)):
        _, act = hatchlings.record_hatchling(code, said, now_s, twins=asked.twins)
    return ActResponse.of(act)


@router.post("/hatchlings/{hatchling}/weights", status_code=201)
def weigh_hatchling(
    hatchling: HatchlingId, asked: HatchlingWeightRequest, now_s: NowS
) -> ActResponse:
    """Record a hatchling's weight."""
    at_s = _when(asked.at, now_s)
    return ActResponse.of(hatchlings.weigh_hatchling(hatchling, asked.mass_g, at_s, now_s))


@router.post("/hatchlings/{hatchling}/shed", status_code=201)
def see_shed(hatchling: HatchlingId, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Record a hatchling's first shed."""
    return ActResponse.of(hatchlings.see_shed(hatchling, _when(asked.at, now_s), now_s))


@router.post("/hatchlings/{hatchling}/meals", status_code=201)
def offer_first_meal(hatchling: HatchlingId, asked: FirstMealRequest, now_s: NowS) -> ActResponse:
    """Record a meal offered to a hatchling, taken or refused."""
    meal = MealCommand(asked.taken, asked.prey, asked.mass_g)
    at_s = _when(asked.at, now_s)
    return ActResponse.of(hatchlings.offer_first_meal(hatchling, meal, at_s, now_s))


@router.post("/clutches/{code}/fates", status_code=201)
def declare_fates(code: Code, asked: FatesRequest, now_s: NowS) -> ActResponse:
    """Declare what became of eggs, all of them or none."""
    said = [fates.FateCommand(f.number, f.fate, f.stage) for f in asked.fates]
    return ActResponse.of(fates.declare_fates(code, said, _when(asked.at, now_s), now_s))


@router.post("/clutches/{code}/finished", status_code=201)
def finish(code: Code, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Close a clutch: every egg has its fate."""
    return ActResponse.of(fates.finish(code, _when(asked.at, now_s), now_s))


@router.delete("/clutches/{code}/finished")
def reopen(code: Code, now_s: NowS) -> ActResponse:
    """Open a closed clutch again."""
    return ActResponse.of(fates.reopen(code, now_s))


@router.post("/clutches/{code}/last-week", status_code=201)
def tick_last_week(code: Code, asked: LastWeekTickRequest, now_s: NowS) -> ActResponse:
    """Tick a line of a clutch's last-week list, or take the tick back."""
    return ActResponse.of(watch.tick_last_week(code, asked.task, asked.done, now_s))


@router.get("/forecast-scores")
def get_scores(house: TheHouse) -> list[ScoreResponse]:
    """How good the forecasts of finished clutches were."""
    return [ScoreResponse.model_validate(s) for s in scores(house.snapshot())]


def _when(asked: AskedMoment | None, now_s: float) -> float:
    return asked.timestamp() if asked else now_s
