"""Seasons of practice: begun, kept day by day, told."""

from fastapi import APIRouter
from starlette.responses import Response

from sandboa.devices.simulation.kept import BoxSeen, Deed, EggSeen
from sandboa.devices.simulation.kept.plan import SHELVES
from sandboa.devices.simulation.torchlight import sprite
from sandboa.practice.errors import NoSuchSession
from sandboa.practice.seasons import sessions as seasons
from sandboa.practice.seasons.set_up import set_up_g
from sandboa.practice.seasons.telling import TROUBLES
from sandboa.web.house import NowS
from sandboa.web.practice.own import Own
from sandboa.web.practice_seasons.schemas import (
    ChoiceResponse,
    DaysRequest,
    DeedRequest,
    HiddenResponse,
    KeptBoxResponse,
    KeptEggResponse,
    KeptResponse,
    KeptSeasonResponse,
    KeptShelfResponse,
    LessonResponse,
    SeasonBeginRequest,
    TellingResponse,
)
from sandboa.web.schemas.common import Id
from sandboa.web.security.permissions import LOOK, OWN

router = APIRouter(prefix="/api/practice/seasons", tags=["practice"])


@router.post("", dependencies=[OWN], status_code=201)
def begin_season(asked: SeasonBeginRequest, practice: Own, now_s: NowS) -> KeptSeasonResponse:
    """Begin a season of simulated boxes."""
    begun = seasons.begin(
        practice,
        now_s,
        boxes=asked.boxes,
        difficulty=asked.difficulty,
        school=asked.school,
        seed=asked.seed,
    )
    return _season(begun)


@router.get("/{id}", dependencies=[LOOK])
def get_kept_season(id: Id, practice: Own) -> KeptSeasonResponse:
    """A season as it stands: nothing of what is hidden."""
    return _season(seasons.season_session(practice, id))


@router.post("/{id}/deeds", dependencies=[OWN])
def do_in_season(id: Id, asked: DeedRequest, practice: Own) -> KeptSeasonResponse:
    """Do something on the season's day."""
    deed = Deed(asked.what, asked.box, asked.egg, asked.water_g)
    return _season(seasons.do(practice, id, asked.revision, asked.day, deed))


@router.post("/{id}/days", dependencies=[OWN])
def pass_days(id: Id, asked: DaysRequest, practice: Own) -> KeptSeasonResponse:
    """Let days pass."""
    return _season(seasons.pass_days(practice, id, asked.revision, asked.days))


@router.get("/{id}/boxes/{box}/eggs/{egg}/torch.webp", dependencies=[LOOK], response_class=Response)
def get_kept_torch(id: Id, box: int, egg: int, practice: Own) -> Response:
    """What a torch shows of an egg that was candled today."""
    seen = seasons.season_session(practice, id).now.seen.get(box)
    shown = next((e.torch for e in seen.eggs if e.number == egg), None) if seen else None
    if shown is None:
        raise NoSuchSession("That egg was not candled today.")
    return Response(sprite(shown), media_type="image/webp", headers={"Cache-Control": "no-store"})


@router.get("/{id}/telling", dependencies=[LOOK])
def tell_season(id: Id, practice: Own) -> TellingResponse:
    """The season told, once it is over."""
    told = seasons.telling(practice, id)
    return TellingResponse(
        eggs=told.eggs,
        blanks=told.blanks,
        own=KeptResponse.model_validate(told.own),
        others=[KeptResponse.model_validate(kept) for kept in told.others],
        hidden=[
            HiddenResponse(day=trouble.start, box=box, text=TROUBLES[trouble.kind])
            for trouble, box in told.hidden
        ],
        choices=[ChoiceResponse.model_validate(choice) for choice in told.choices],
        lessons=[LessonResponse.model_validate(lesson) for lesson in told.lessons],
    )


def _season(session: seasons.SeasonSession) -> KeptSeasonResponse:
    season = session.now.season
    seen = season.cabinet()
    return KeptSeasonResponse(
        id=session.id,
        seed=session.seed,
        difficulty=session.difficulty,
        school=session.school,
        due=list(session.due),
        revision=session.revision,
        day=season.day,
        over=season.over,
        set_point_c=seen.set_point_c,
        humidity=seen.humidity,
        shelves=[
            KeptShelfResponse(
                name=name,
                mean_temperature_c=seen.mean_c[at],
                lowest_temperature_c=seen.lowest_c[at],
                highest_temperature_c=seen.highest_c[at],
            )
            for at, name in enumerate(SHELVES)
        ],
        boxes=[_box(session, place) for place in range(len(season.plan.boxes))],
        hatched=season.left().hatched,
    )


def _box(session: seasons.SeasonSession, place: int) -> KeptBoxResponse:
    season, seen = session.now.season, session.now.seen.get(place)
    plan, own = season.plan.boxes[place], season.plan.box_of == place
    full_g = set_up_g(season, place, seen)
    mass_g = seen.mass_g if seen else None
    return KeptBoxResponse(
        place=place,
        name=plan.name,
        shelf=SHELVES[plan.shelf],
        closing=plan.closing,
        holes=bool(season.holes[place]),
        medium=plan.medium,
        set_up_mass_g=full_g,
        day=round(season.day - float(season.plan.laid_day[own][0])),
        lid=season.lid(place),
        open=bool(season.opened[place]),
        seen_day=seen.day if seen else None,
        feels=seen.feels if seen else None,
        smell=seen.smell if seen else None,
        mass_g=mass_g,
        short_g=None if mass_g is None else full_g - mass_g,
        eggs=[_egg(egg, seen, season.day) for egg in seen.eggs] if seen else [],
    )


def _egg(egg: EggSeen, seen: BoxSeen, day: int) -> KeptEggResponse:
    return KeptEggResponse(
        number=egg.number,
        grade=egg.grade,
        mould=egg.mould,
        wet=egg.wet,
        colour=egg.colour,
        feel=egg.feel,
        hangs=egg.hangs,
        pipped=egg.pipped_hours is not None,
        out=egg.out,
        removed=egg.removed,
        isolated=egg.isolated,
        candled=egg.torch is not None and seen.day == day,
    )
