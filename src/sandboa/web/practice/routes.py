"""Practice: decks, sessions of single eggs, their pictures, judgements, progress."""

from typing import Annotated, Any

from fastapi import APIRouter, Path, Query
from starlette.responses import JSONResponse, Response

from sandboa.core.practice import Answer, by_sign, by_week, calibration, mistaken, tally
from sandboa.core.practice.scores import require_chance
from sandboa.devices.simulation.cases import ACTS, DECKS, Case
from sandboa.devices.simulation.torchlight import sprite
from sandboa.practice.files import delete_all, exported
from sandboa.practice.looks import sessions as looks
from sandboa.practice.looks.choosing import due
from sandboa.practice.looks.truths import truth, what_came
from sandboa.practice.seasons import sessions as seasons
from sandboa.services.safekeeping.house_file import house_path
from sandboa.web.house import Asking, NowS
from sandboa.web.practice.own import Own
from sandboa.web.practice.schemas import (
    CalibrationBinResponse,
    CaseBoxResponse,
    CaseResponse,
    DeckResponse,
    EarlierLookResponse,
    JudgedResponse,
    JudgementRequest,
    LookBeginRequest,
    LookListedResponse,
    LookResponse,
    NextActResponse,
    OpinionResponse,
    PracticeResponse,
    ProgressResponse,
    PushResponse,
    SeasonListedResponse,
    SignScoreResponse,
    TallyResponse,
    ToldResponse,
    WeekResponse,
)
from sandboa.web.schemas.common import Id
from sandboa.web.security.permissions import LOOK, OWN

router = APIRouter(prefix="/api/practice", tags=["practice"])

#: Sessions listed: the newest that are not done (assumption).
_LISTED = 12


Egg = Annotated[int, Path(ge=1, le=looks.EGGS_RANGE[1])]
DeckAsked = Annotated[str | None, Query(max_length=40)]


@router.get("", dependencies=[LOOK])
def get_practice(practice: Own, now_s: NowS) -> PracticeResponse:
    """What there is to practise, and what was begun."""
    reviews = practice.reviews()
    decks = []
    for deck in (*DECKS, looks.MIXED):
        kinds = looks.kinds_of(deck)
        unseen = sum(kind not in reviews for kind in kinds)
        waiting = len(due(reviews, kinds, now_s))
        decks.append(DeckResponse(deck=deck, kinds=len(kinds), due=waiting, unseen=unseen))
    begun = [s for s in looks.listed(practice) if s.done < s.eggs]
    return PracticeResponse(
        decks=decks,
        sessions=[
            LookListedResponse(id=s.id, deck=s.deck, began_at=s.began_s, eggs=s.eggs, done=s.done)  # type: ignore[arg-type]
            for s in begun[:_LISTED]
        ],
        seasons=[
            SeasonListedResponse.model_validate(s) for s in seasons.listed(practice)[:_LISTED]
        ],
        judged=len(practice.answers()),
    )


@router.post("/looks", dependencies=[OWN], status_code=201)
def begin_looks(asked: LookBeginRequest, practice: Own, now_s: NowS) -> LookResponse:
    """Begin a session of single eggs; what was misjudged before comes first."""
    return _look(looks.begin(practice, asked.deck, now_s, eggs=asked.eggs, seed=asked.seed))


@router.get("/looks/{id}", dependencies=[LOOK])
def get_looks(id: Id, practice: Own) -> LookResponse:
    """A session as it stands: every egg as it is shown, the truth of those judged."""
    return _look(looks.look_session(practice, id))


@router.delete("/looks/{id}", dependencies=[OWN], status_code=204, response_class=Response)
def delete_looks(id: Id, practice: Own) -> Response:
    """Delete a session, and what was judged in it."""
    looks.delete(practice, id)
    return Response(status_code=204)


@router.get("/looks/{id}/eggs/{egg}/torch.webp", dependencies=[LOOK], response_class=Response)
def get_torch(id: Id, egg: Egg, practice: Own) -> Response:
    """What a torch shows of an egg: three moments below one another, 360 by 900."""
    case = looks.case_of(looks.look_session(practice, id), egg)
    headers = {"Cache-Control": "private, max-age=86400, immutable"}
    return Response(sprite(case.torch), media_type="image/webp", headers=headers)


@router.post("/looks/{id}/eggs/{egg}/judgement", dependencies=[OWN])
def judge_egg(id: Id, egg: Egg, said: JudgementRequest, practice: Own, now_s: NowS) -> ToldResponse:
    """Judge an egg, once; its truth is the answer. The same said again changes nothing."""
    judgement = looks.Judgement(said.chance_percent, said.usual, said.act, said.candle_day)
    return _told(egg, looks.judge(practice, id, egg, judgement, now_s))


@router.get("/progress", dependencies=[LOOK])
def get_progress(practice: Own, now_s: NowS, deck: DeckAsked = None) -> ProgressResponse:
    """What judging was worth so far, of one deck or of all."""
    if deck is not None:
        looks.kinds_of(deck)
    answers: list[Answer] = [a for of, a in looks.answers(practice) if deck in (None, of)]
    curve = calibration(answers)
    return ProgressResponse(
        tally=TallyResponse.model_validate(tally(answers)),
        bins=[CalibrationBinResponse.model_validate(b) for b in curve.bins] if curve else [],
        signs=[SignScoreResponse.model_validate(s) for s in by_sign(answers)],
        weeks=[WeekResponse.model_validate(w) for w in by_week(answers, now_s)],
    )


@router.get("/export", dependencies=[LOOK], response_class=JSONResponse)
def export_practice(practice: Own) -> JSONResponse:
    """Everything this person practised, as JSON."""
    headers = {"Content-Disposition": 'attachment; filename="sandboa-practice.json"'}
    told: dict[str, Any] = exported(practice, {looks.KIND: looks.exportable})
    return JSONResponse(told, headers=headers)


@router.delete("", dependencies=[OWN], status_code=204, response_class=Response)
def delete_practice(asking: Asking) -> Response:
    """Forget everything this person practised."""
    delete_all(house_path(), asking.entity if asking else None)
    return Response(status_code=204)


def _look(session: looks.LookSession) -> LookResponse:
    eggs = range(1, len(session.cases) + 1)
    told = [(egg, looks.told(session, egg)) for egg in eggs]
    return LookResponse(
        id=session.id,
        deck=session.deck,
        seed=session.seed,
        began_at=session.began_s,  # type: ignore[arg-type]
        cases=[_case(egg, session.cases[egg - 1]) for egg in eggs],
        told=[_told(egg, of) for egg, of in told if of is not None],
    )


def _case(egg: int, case: Case) -> CaseResponse:
    seen, box = case.glance, case.box
    return CaseResponse(
        egg=egg,
        day=round(case.day),
        share=case.share,
        shell=case.shell,
        grade=seen.grade,
        mould=seen.mould,
        smell=seen.smell,
        wet=seen.wet,
        colour=seen.colour,
        feel=seen.feel,
        hangs=case.hangs,
        pipped_hours=None if case.pipped_hours is None else round(case.pipped_hours),
        first_pip_hours=None if case.first_pip_hours is None else round(case.first_pip_hours),
        box=CaseBoxResponse(
            medium=box.medium,
            closing=box.closing,
            lid=box.lid,
            feels=box.feels,
            short_g=max(box.short_g, 0.0),
            mean_temperature_c=box.temperature_c,
            neighbours=list(case.neighbours),
        ),
        earlier=[
            EarlierLookResponse(
                day=round(day), grade=of.grade, vessels=of.vessels, mould=of.mould, smell=of.smell
            )
            for day, of in case.earlier
        ],
    )


def _told(egg: int, told: looks.Told) -> ToldResponse:
    case, judged = told.case, told.opinion.judged
    return ToldResponse(
        egg=egg,
        judged=JudgedResponse.model_validate(told.judgement),
        alive=case.alive,
        mistaken=mistaken(require_chance(told.judgement.chance_percent), case.alive),
        usual=case.usual,
        truth=truth(case),
        came=what_came(case, told.judgement.act),
        worth=case.worth(told.judgement.act),
        best=max(case.worth(act) for act in ACTS),
        opinion=OpinionResponse(
            standing=judged.standing,
            alive=judged.alive,
            early=told.opinion.early,
            advice=[NextActResponse.model_validate(a) for a in told.opinion.advice],
            evidence=[
                PushResponse(words=e.words, push=e.push, void=e.void) for e in judged.evidence
            ],
        ),
    )
