"""Egg: its standing with the evidence for it, its history and photos."""

from typing import Annotated

from fastapi import APIRouter, Path

from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.standing.learning import LearnedStanding
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.clutches.egg_view import EggPage, egg_page
from sandboa.services.forms.clutch import egg_as_laid_form
from sandboa.services.lay_day.egg_as_laid import EggAsLaid
from sandboa.services.lay_day.egg_as_laid import correct_egg_as_laid as correct
from sandboa.services.standings.learned import learned_standing
from sandboa.web.eggs.schemas import (
    EggAsLaidRequest,
    EggAsLaidResponse,
    EggMomentResponse,
    EggPageResponse,
    StandingResponse,
)
from sandboa.web.house import MomentS, NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, PhotoResponse
from sandboa.web.schemas.eggs import EvidenceResponse, egg_told
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api/clutches", tags=["egg"])


Code = Annotated[str, Path(max_length=20)]


EggNumber = Annotated[int, Path(ge=1, le=1000)]


@router.get("/{code}/eggs/{number}", dependencies=[LOOK])
def get_egg(code: Code, number: EggNumber, house: TheHouse, now_s: MomentS) -> EggPageResponse:
    """Everything of one egg."""
    page = egg_page(house.snapshot(), code, number, now_s)
    return _told(page, learned_standing(house.snapshot()), now_s)


@router.get("/{code}/eggs/{number}/as-laid", dependencies=[LOOK])
def get_egg_as_laid(code: Code, number: EggNumber) -> EggAsLaidResponse:
    """What lay day said of an egg."""
    form = egg_as_laid_form(code, number)
    return EggAsLaidResponse.model_validate({**form, "revision": revision_of(form)})


@router.put("/{code}/eggs/{number}/as-laid", dependencies=[RECORD])
def correct_egg_as_laid(
    code: Code, number: EggNumber, asked: EggAsLaidRequest, seen: Seen, now_s: NowS
) -> ActResponse:
    """Correct what lay day said of an egg; the earlier values stay in the log."""
    said = EggAsLaid(
        slug=asked.slug,
        shells=tuple(asked.shells),
        clump=asked.clump,
        mass_g=asked.mass_g,
        vessels=asked.vessels,
        disc=asked.disc,
        events=tuple(asked.events),
    )
    with saved_over(seen, lambda: egg_as_laid_form(code, number)):
        return ActResponse.of(correct(code, number, said, now_s))


def _told(page: EggPage, learned: LearnedStanding, now_s: float) -> EggPageResponse:
    now, egg = page.now, page.egg
    standing = egg.standing
    return EggPageResponse(
        as_of=now_s,  # type: ignore[arg-type]
        id=page.egg.entity,
        clutch_id=now.clutch.entity_id,
        code=now.clutch.code,
        dam=now.dam,
        day=now.day,
        fraction=egg.share,
        egg=egg_told(egg),
        allowed_words=GRADE_WORDS[egg.allowed_grade],
        box=page.box.box.name,
        box_scope=page.box.judged.box.scope,
        early_eggs=list(page.box.judged.box.early_eggs),
        live_eggs=page.box.judged.box.live_eggs,
        standing=StandingResponse(
            standing=standing.standing,
            alive=standing.alive,
            will_pip=standing.will_pip,
            will_hatch=standing.will_hatch,
            log_odds=standing.log_odds,
            prior=EvidenceResponse.model_validate(standing.prior),
            evidence=[EvidenceResponse.model_validate(e) for e in standing.evidence],
        )
        if standing
        else None,
        thresholds={str(s): start for s, start in learned.rules.standing_from.items()},
        dependence=learned.rules.dependence,
        closed_eggs=learned.eggs,
        taught_by=dict(learned.by_sign),
        history=[EggMomentResponse.model_validate(m) for m in page.history],
        photos=[PhotoResponse.model_validate(p) for p in page.photos],
    )
