"""People of the house, and signing in."""

from typing import Annotated

from fastapi import APIRouter, Path, Request, Response

from sandboa.core.people import Role
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.acts.recording import Act
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.forms.people_and_things import form_of_person
from sandboa.services.people import commands as people
from sandboa.services.people import signing_in
from sandboa.services.people.commands import person_called
from sandboa.services.people.preferences import choose_temperature_unit, temperature_unit_of
from sandboa.services.people.views import people_now
from sandboa.services.safekeeping.security_log import By, Kind, note
from sandboa.web.house import Asking, NowS, TheHouse
from sandboa.web.people.schemas import (
    OwnPassphraseRequest,
    OwnSessionResponse,
    PassphraseRequest,
    PersonRequest,
    PersonResponse,
    PreferencesRequest,
    SessionResponse,
    SignInRequest,
)
from sandboa.web.problems.handlers import NotForYou
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, Id, at, at_or_none
from sandboa.web.security.authorization import NOT_OPEN, is_elsewhere
from sandboa.web.security.known_device import known_device, mark_device
from sandboa.web.security.permissions import ANYONE, COOKIE, LOOK, OWN, RUN
from sandboa.web.security.requester import AskedBy
from sandboa.web.security.sign_in_attempts import Try

router = APIRouter(prefix="/api", tags=["people"])


@router.get("/session", dependencies=[ANYONE])
def get_session(request: Request, now_s: NowS) -> SessionResponse:
    """Who is signed in here, and whether anybody has to."""
    asked = signing_in.someone_signs_in()
    if not asked and is_elsewhere(request):
        raise NotForYou(NOT_OPEN)
    person = signing_in.whose(request.cookies.get(COOKIE), now_s)
    return SessionResponse(
        sign_in=asked,
        name=person.name if person else None,
        role=person.role if person else None,
        temperature_unit=temperature_unit_of(person.entity if person else None),
    )


@router.post("/session", dependencies=[ANYONE], status_code=204)
def sign_in(
    asked: SignInRequest, request: Request, response: Response, house: TheHouse, now_s: NowS
) -> None:
    """Sign in with name and passphrase; wrong ones are counted."""
    person = person_called(" ".join(asked.name.split()))
    tried = _try(request, person.entity_id if person else None, asked.name)
    by = By(
        person.entity_id if person else None, tried.address, request.headers.get("user-agent", "")
    )
    house.attempts.require(tried)
    try:
        token = signing_in.sign_in(asked.name, asked.passphrase, by.device, now_s)
    except signing_in.NotSignedIn:
        house.attempts.count(tried)
        named = "" if person else f" for {asked.name[:60]}, a name nobody has"
        note(Kind.REFUSED, f"wrong passphrase{named}", by, now_s)
        raise
    assert person is not None
    house.attempts.forgive(tried)
    note(Kind.SIGNED_IN, "signed in", by, now_s)
    secure = request.url.scheme == "https"
    mark_device(response, person.entity_id, secure=secure)
    response.set_cookie(
        COOKIE,
        token,
        max_age=int(signing_in.LONGEST_SESSION_DAYS * SECONDS_PER_DAY),
        httponly=True,
        samesite="strict",
        secure=secure,
    )


@router.delete("/session", dependencies=[ANYONE], status_code=204)
def sign_out(request: Request, response: Response, now_s: NowS) -> None:
    """End this browser's session."""
    token = request.cookies.get(COOKIE, "")
    person = signing_in.whose(token, now_s)
    if person is not None:
        signing_in.sign_out(token)
        by = By(person.entity, *_from(request))
        note(Kind.SIGNED_OUT, "signed out", by, now_s)
    response.delete_cookie(COOKIE)


@router.put("/session/preferences", dependencies=[OWN], status_code=204)
def choose_preferences(asked: PreferencesRequest, person: Asking) -> None:
    """Choose what temperatures are told in, on every device of whoever asks."""
    choose_temperature_unit(person.entity if person else None, asked.temperature_unit)


@router.put("/session/passphrase", dependencies=[OWN], status_code=204)
def change_own_passphrase(
    asked: OwnPassphraseRequest,
    request: Request,
    person: Asking,
    house: TheHouse,
    by: AskedBy,
    now_s: NowS,
) -> None:
    """Change one's own passphrase, knowing the one before; signs out everywhere, here too."""
    if person is None:
        raise NotForYou("nobody is signed in here")
    tried = _try(request, person.entity, person.name)
    house.attempts.require(tried)
    try:
        signing_in.change_passphrase(person, asked.before, asked.passphrase, now_s)
    except signing_in.NotSignedIn:
        house.attempts.count(tried)
        note(Kind.REFUSED, "the passphrase before was wrong", by, now_s)
        raise
    note(Kind.PASSPHRASE, "changed their own passphrase", by, now_s)


@router.get("/sessions", dependencies=[LOOK])
def get_own_sessions(request: Request, person: Asking) -> list[OwnSessionResponse]:
    """Where whoever asks is signed in, the session used last first."""
    if person is None:
        return []
    return [
        OwnSessionResponse(
            key=now.key,
            begun_at=at(now.begun_s),
            used_at=at(now.used_s),
            device=now.device,
            here=now.here,
        )
        for now in signing_in.sessions_of(person.entity, request.cookies.get(COOKIE))
    ]


@router.delete("/sessions", dependencies=[OWN], status_code=204)
def sign_out_everywhere(person: Asking, response: Response, by: AskedBy, now_s: NowS) -> None:
    """End every session of whoever asks, on every device, and their calendar link."""
    if person is not None:
        signing_in.sign_out_everywhere(person.entity)
        note(Kind.SIGNED_OUT, "signed out everywhere", by, now_s)
    response.delete_cookie(COOKIE)


@router.delete("/sessions/{key}", dependencies=[OWN], status_code=204)
def end_own_session(
    key: Annotated[str, Path(pattern="^[0-9a-f]{16}$")], person: Asking, by: AskedBy, now_s: NowS
) -> None:
    """End one session of whoever asks."""
    if person is None:
        raise NotForYou("nobody is signed in here")
    signing_in.end_session(person.entity, key)
    note(Kind.SIGNED_OUT, "ended a session of their own", by, now_s)


@router.get("/people", dependencies=[RUN])
def get_people() -> list[PersonResponse]:
    """Everyone of the house, by name."""
    return [
        PersonResponse(
            id=now.person.entity_id,
            name=now.person.name,
            role=Role(now.person.role),
            can_sign_in=now.can_sign_in,
            sessions=now.sessions,
            last_seen_at=at_or_none(now.used_s),
            revision=revision_of(form_of_person(now.person)),
        )
        for now in people_now()
    ]


@router.post("/people", dependencies=[RUN], status_code=201)
def add_person(asked: PersonRequest, by: AskedBy, now_s: NowS) -> ActResponse:
    """Add a person; they sign in once they have a passphrase."""
    return _noted(people.add_person(asked.name, asked.role, now_s)[1], by, now_s)


@router.put("/people/{person}", dependencies=[RUN])
def change_person(
    person: Id, asked: PersonRequest, seen: Seen, by: AskedBy, now_s: NowS
) -> ActResponse:
    """Rename a person, or give another role."""
    with saved_over(seen, lambda: form_of_person(people.find_person(person))):
        return _noted(people.change_person(person, asked.name, asked.role, now_s), by, now_s)


@router.delete("/people/{person}", dependencies=[RUN])
def remove_person(person: Id, by: AskedBy, now_s: NowS) -> ActResponse:
    """Let a person in no more; what they recorded stays."""
    return _noted(people.remove_person(person, now_s), by, now_s)


@router.put("/people/{person}/passphrase", dependencies=[RUN], status_code=204)
def set_passphrase(person: Id, asked: PassphraseRequest, by: AskedBy, now_s: NowS) -> None:
    """Give a person a passphrase; whoever was signed in with the one before is signed out."""
    signing_in.set_passphrase(person, asked.passphrase, now_s)
    note(Kind.PASSPHRASE, f"gave {people.find_person(person).name} a passphrase", by, now_s)


@router.delete("/people/{person}/sessions", dependencies=[RUN], status_code=204)
def sign_person_out(person: Id, by: AskedBy, now_s: NowS) -> None:
    """Sign a person out on every device; their calendar link ends too."""
    found = people.find_person(person)
    signing_in.sign_out_everywhere(found.entity_id)
    note(Kind.SIGNED_OUT, f"signed {found.name} out everywhere", by, now_s)


def _noted(act: Act, by: By, now_s: float) -> ActResponse:
    note(Kind.PEOPLE, act.summary, by, now_s)
    return ActResponse.of(act)


def _try(request: Request, person: int | None, name: str) -> Try:
    """What counts as a try at that name; spaces and capitals make no other name."""
    key = str(person) if person is not None else " ".join(name.split()).casefold()
    return Try(_from(request)[0], key, known_device(request, person))


def _from(request: Request) -> tuple[str, str]:
    return (
        request.client.host if request.client else "here",
        request.headers.get("user-agent", ""),
    )
