"""Losses: each failed egg and clutch, what was found on opening, causes with their evidence."""

from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.core.causes import FINDINGS
from sandboa.core.causes.findings import ALONE, SEVERAL
from sandboa.services.acts.revisions import saved_over
from sandboa.services.forms.clutch import opening_form
from sandboa.services.losses.loss_list import (
    LossLine,
    go_on_with_year,
    loss_years,
    losses_of_year,
)
from sandboa.services.losses.openings import OpeningCommand, record_opening
from sandboa.services.losses.views import losses_page
from sandboa.services.losses.why import LostEgg
from sandboa.web.house import NowS, TheHouse
from sandboa.web.losses.schemas import (
    ClutchLossesResponse,
    FindingChoices,
    LossesResponse,
    LossLineResponse,
    LostEggResponse,
    LostLineResponse,
    OpeningRequest,
    counts,
    lost_egg_told,
)
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, PhotoResponse, at_or_none, seconds_or_now
from sandboa.web.schemas.eggs import egg_told
from sandboa.web.security.permissions import LOOK, RECORD
from sandboa.web.today.schemas import small_egg

router = APIRouter(prefix="/api", tags=["losses"])


Code = Annotated[str, Path(max_length=20)]


EggNumber = Annotated[int, Path(ge=1, le=1000)]


@router.get("/losses", dependencies=[LOOK])
def get_losses(
    house: TheHouse, now_s: NowS, year: Annotated[int | None, Query(ge=1980, le=2200)] = None
) -> LossesResponse:
    """The losses of a year, as far as they are worked out; of the latest with any when none is
    asked for."""
    snapshot = house.snapshot()
    years = loss_years(snapshot)
    chosen = year if year is not None else (years[0] if years else None)
    if chosen is None:
        return LossesResponse(year=None, years=years, clutches=[], worked_out=0, laid=0)
    work = f"losses of {chosen}"
    found = losses_of_year(snapshot, chosen, now_s, house.long_work.patience(work))
    if found.worked_out < found.clutches:
        house.long_work.go_on_with(
            work,
            lambda goes_on: go_on_with_year(house.snapshot(), chosen, house.clock.now_s(), goes_on),
        )
    return LossesResponse(
        year=chosen,
        years=years,
        clutches=[_line(line) for line in found.lines],
        worked_out=found.worked_out,
        laid=found.clutches,
    )


@router.get("/findings", dependencies=[LOOK])
def get_findings() -> list[FindingChoices]:
    """What can be found in an opened egg, in the order of opening."""
    return [
        FindingChoices(
            kind=kind, several=kind in SEVERAL, alone=sorted(ALONE & values.keys()), values=values
        )
        for kind, values in FINDINGS.items()
    ]


@router.get("/clutches/{code}/losses", dependencies=[LOOK])
def get_clutch_losses(code: Code, house: TheHouse, now_s: NowS) -> ClutchLossesResponse:
    """One clutch's losses with their causes."""
    page = losses_page(house.snapshot(), code, now_s)
    now, losses = page.now, page.losses
    views = {view.number: view for view in now.eggs}

    def told(lost: LostEgg) -> LostEggResponse:
        number = lost.end.egg.number
        photos = [PhotoResponse.model_validate(p) for p in page.photos if p.egg_number == number]
        return lost_egg_told(lost, egg_told(views[number]), photos)

    return ClutchLossesResponse(
        id=now.clutch.entity_id,
        code=now.clutch.code,
        dam=now.dam,
        sire=now.sire,
        laid_at=now.clutch.laid_s,  # type: ignore[arg-type]
        finished_at=at_or_none(now.finished_s),
        day=now.day,
        **counts(losses),
        lost=[told(lost) for lost in losses.lost],
        slugs=[told(slug) for slug in losses.slugs],
    )


@router.put("/clutches/{code}/eggs/{number}/opening", dependencies=[RECORD])
def put_opening(
    code: Code, number: EggNumber, asked: OpeningRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Record, or correct, what was found in a failed egg; the first time over "new"."""
    findings = {kind: frozenset(values) for kind, values in asked.findings.items()}
    said = OpeningCommand(number, asked.opened, findings, asked.note)
    at_s = seconds_or_now(asked.at, now_s)
    with saved_over(seen, lambda: opening_form(code, number)):
        return ActResponse.of(record_opening(code, said, at_s, now_s))


def _line(line: LossLine) -> LossLineResponse:
    return LossLineResponse(
        code=line.losses.clutch.code,
        dam=line.dam,
        sire=line.sire,
        laid_at=datetime.fromtimestamp(line.losses.clutch.laid_s, UTC),
        closed=line.closed,
        count=line.count,
        **counts(line.losses),
        lost=[
            LostLineResponse(
                egg=small_egg(line.views[lost.end.egg.number]),
                fate=lost.evidence.fate,
                opened=lost.end.opened,
                cause=lost.causes[0].cause,
                share=lost.causes[0].share,
            )
            for lost in line.losses.lost
        ],
    )
