"""Hatch watch: pips, cuts, emergences, hatchlings, fates, and a clutch closed or reopened."""

from typing import Annotated

from fastapi import APIRouter, Path, Response

from sandboa.services.acts.revisions import saved_over
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.clutches.issued_forecasts import scores
from sandboa.services.forms.clutch import hatchling_form
from sandboa.services.hatching import egg_events, fates, hatchlings, overview
from sandboa.services.hatching.overview import HatchingClutch
from sandboa.services.moment.as_of import at_hand
from sandboa.services.snapshot.kept import Same
from sandboa.web.hatching.schemas import (
    CutRequest,
    FatesRequest,
    HatchingClutchResponse,
    HatchOverviewResponse,
    LastWeekTickRequest,
    ScoreResponse,
    SeveralRequest,
    hatching_clutch_told,
)
from sandboa.web.hatchlings.schemas import HatchlingRequest, MomentRequest
from sandboa.web.house import MomentS, NowS, TheHouse
from sandboa.web.requests.reader import reader_now
from sandboa.web.requests.revisions import Seen
from sandboa.web.responses.parts import joined
from sandboa.web.schemas.common import ActResponse, seconds_or_now
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["hatching"])


Code = Annotated[str, Path(max_length=20)]


EggNumber = Annotated[int, Path(ge=1, le=1000)]


@router.get("/hatch-watch", dependencies=[LOOK], response_model=HatchOverviewResponse)
def get_hatch_overview(house: TheHouse, now_s: MomentS) -> Response:
    """Clutches in their last week, pipping, or with hatchlings not settled yet."""
    at, reader = at_hand(house.snapshot(), now_s), reader_now()

    def told(clutch: HatchingClutch) -> bytes:
        own = clutch.now.clutch.entity_id
        return at.of_clutch(own).held(
            ("at hatch", own, reader),
            Same(clutch),
            lambda: hatching_clutch_told(clutch).model_dump_json().encode(),
        )

    whole = HatchOverviewResponse(as_of=now_s, clutches=[])  # type: ignore[arg-type]
    clutches = overview.hatch_overview(house.snapshot(), now_s)
    return joined(whole, "clutches", map(told, clutches))


@router.get("/clutches/{code}/hatch", dependencies=[LOOK])
def get_hatching_clutch(code: Code, house: TheHouse, now_s: MomentS) -> HatchingClutchResponse:
    """One clutch at hatch."""
    return hatching_clutch_told(overview.hatching_clutch(house.snapshot(), code, now_s))


@router.post("/clutches/{code}/eggs/{number}/pip", dependencies=[RECORD], status_code=201)
def see_pip(code: Code, number: EggNumber, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Record that an egg has pipped."""
    return ActResponse.of(egg_events.see_pip(code, number, seconds_or_now(asked.at, now_s), now_s))


@router.post("/clutches/{code}/eggs/{number}/emergence", dependencies=[RECORD], status_code=201)
def see_emergence(code: Code, number: EggNumber, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Record that a hatchling is out of its egg."""
    return ActResponse.of(
        egg_events.see_emergence(code, number, seconds_or_now(asked.at, now_s), now_s)
    )


@router.post("/clutches/{code}/seen-hatching", dependencies=[RECORD], status_code=201)
def see_several(code: Code, asked: SeveralRequest, now_s: NowS) -> ActResponse:
    """Record that several eggs have pipped, or are out, in one act."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(egg_events.see_several(code, asked.eggs, at_s, now_s, out=asked.out))


@router.post("/clutches/{code}/pip-is-right", dependencies=[RECORD], status_code=201)
def confirm_pip(code: Code, now_s: NowS) -> ActResponse:
    """Say that a first pip which cannot be by heat is right, and so is the lay date."""
    return ActResponse.of(egg_events.confirm_pip(code, now_s))


@router.post("/clutches/{code}/eggs/{number}/cut", dependencies=[RECORD], status_code=201)
def cut_egg(code: Code, number: EggNumber, asked: CutRequest, now_s: NowS) -> ActResponse:
    """Record that an egg was cut open, and why."""
    at_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(
        egg_events.cut_egg(code, number, asked.reason, at_s, now_s, bled=asked.bled)
    )


@router.put("/clutches/{code}/eggs/{number}/hatchling", dependencies=[RECORD])
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


@router.post("/clutches/{code}/fates", dependencies=[RECORD], status_code=201)
def declare_fates(code: Code, asked: FatesRequest, now_s: NowS) -> ActResponse:
    """Declare what became of eggs, all of them or none."""
    said = [fates.FateCommand(f.number, f.fate, f.stage) for f in asked.fates]
    return ActResponse.of(fates.declare_fates(code, said, seconds_or_now(asked.at, now_s), now_s))


@router.post("/clutches/{code}/finished", dependencies=[RECORD], status_code=201)
def finish(code: Code, asked: MomentRequest, now_s: NowS) -> ActResponse:
    """Close a clutch: every egg has its fate."""
    return ActResponse.of(fates.finish(code, seconds_or_now(asked.at, now_s), now_s))


@router.delete("/clutches/{code}/finished", dependencies=[RECORD])
def reopen(code: Code, now_s: NowS) -> ActResponse:
    """Open a closed clutch again."""
    return ActResponse.of(fates.reopen(code, now_s))


@router.post("/clutches/{code}/last-week", dependencies=[RECORD], status_code=201)
def tick_last_week(code: Code, asked: LastWeekTickRequest, now_s: NowS) -> ActResponse:
    """Tick a line of a clutch's last-week list, or take the tick back."""
    done_s = seconds_or_now(asked.at, now_s)
    return ActResponse.of(egg_events.tick_last_week(code, asked.task, asked.done, now_s, done_s))


@router.get("/forecast-scores", dependencies=[LOOK])
def get_scores(house: TheHouse) -> list[ScoreResponse]:
    """How good the forecasts of finished clutches were."""
    return [ScoreResponse.model_validate(s) for s in scores(house.snapshot())]
