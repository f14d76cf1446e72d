"""Lay day: what can be chosen, a suggestion from the count, and the record itself."""

from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.core.animals import DAM, SIRE
from sandboa.core.box import Closing, Shell, usual_places
from sandboa.core.clutch_count import parse_clutch_count
from sandboa.services import lay_day
from sandboa.services.acts.revisions import saved_over
from sandboa.services.forms.clutch import clutch_form
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.house import NowS, TheHouse
from sandboa.web.lay_day.schemas import (
    CabinetChoiceResponse,
    ChoicesResponse,
    EggPlace,
    LaidResponse,
    LayDayRequest,
    SuggestionResponse,
)
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse
from sandboa.web.schemas.water import MediumResponse
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["lay day"])


@router.get("/lay-day/choices", dependencies=[LOOK])
def get_choices(house: TheHouse, now_s: NowS) -> ChoicesResponse:
    """Names known already and the schools of medium and closing."""
    snapshot = house.snapshot()
    return ChoicesResponse(
        media=[
            MediumResponse.model_validate(medium)
            for medium in snapshot.settings.rules.media
            if not medium.for_hatching
        ],
        closings=[c.value for c in Closing],
        shells=[s.value for s in Shell if s is not Shell.SMOOTH],
        cabinets=list(_cabinets(snapshot, now_s)),
        dams=sorted(a.name for a in snapshot.animals.values() if a.role == DAM),
        sires=sorted(a.name for a in snapshot.animals.values() if a.role == SIRE),
        next_code=lay_day.suggested_code(datetime.fromtimestamp(now_s, UTC).year),
        most_further_boxes=lay_day.MOST_FURTHER,
    )


@router.get("/lay-day/suggestion", dependencies=[LOOK])
def get_suggestion(count: Annotated[str, Query(max_length=20)]) -> SuggestionResponse:
    """Read a count and suggest where the eggs lie."""
    parsed = parse_clutch_count(count)
    places = usual_places(parsed.laid)
    return SuggestionResponse(
        laid=parsed.laid,
        slugs=parsed.slugs,
        eggs=[
            EggPlace(x=x, y=y, slug=number >= parsed.fertile)
            for number, (x, y) in enumerate(places)
        ],
    )


@router.post("/clutches", dependencies=[RECORD], status_code=201)
def lay_clutch(asked: LayDayRequest, now_s: NowS) -> LaidResponse:
    """Record a clutch."""
    code, act = lay_day.lay_clutch(_lay_day(asked), now_s)
    return LaidResponse(code=code, act=ActResponse.of(act))


@router.put("/clutches/{code}", dependencies=[RECORD])
def correct_clutch(
    code: Annotated[str, Path(max_length=20)], asked: LayDayRequest, seen: Seen, now_s: NowS
) -> LaidResponse:
    """Correct a clutch; the earlier values stay in the log."""
    with saved_over(seen, lambda: clutch_form(code)):
        new_code, act = lay_day.correct_clutch(code, _lay_day(asked), now_s)
    return LaidResponse(code=new_code, act=ActResponse.of(act))


def _lay_day(asked: LayDayRequest) -> lay_day.LayDay:
    return lay_day.LayDay(
        dam=asked.dam,
        sire=asked.sire,
        code=asked.code,
        laid_at=asked.laid_at,
        eggs=tuple(lay_day.EggLaid(e.x, e.y, e.slug, tuple(e.shells)) for e in asked.eggs),
        medium=asked.medium,
        dry_mass_g=asked.dry_mass_g,
        water_g=asked.water_g,
        closing=asked.closing,
        cabinet=asked.cabinet,
        shelf=asked.shelf,
        set_point_c=asked.set_point_c,
        second_clutch=asked.second_clutch,
    )


def _cabinets(snapshot: Snapshot, now_s: float) -> Iterable[CabinetChoiceResponse]:
    for cabinet in sorted(snapshot.cabinets.values(), key=lambda c: c.name):
        shelves = sorted(
            (s for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id),
            key=lambda s: s.position,
        )
        set_points = snapshot.cabinet(cabinet.entity_id).set_points
        yield CabinetChoiceResponse(
            name=cabinet.name,
            shelves=[s.name for s in shelves],
            set_point_c=set_points.at(now_s) if set_points else None,
        )
