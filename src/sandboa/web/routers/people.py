"""People of the house, and signing in."""

from typing import Annotated

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, Field

from sandboa.core.people import Role
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.journal import people, signing_in
from sandboa.web.doors import COOKIE, NOT_OPEN, is_elsewhere
from sandboa.web.house import Asking, NowS, TheHouse
from sandboa.web.problems import NotForYou
from sandboa.web.shapes import ActTold, Asked, Id, Moment, at_or_none

router = APIRouter(prefix="/api", tags=["people"])


class SignInAsked(Asked):
    name: Annotated[str, Field(max_length=200)]
    passphrase: Annotated[str, Field(max_length=400)]


class SessionTold(BaseModel):
    """Who is asking. Without people nobody signs in: `sign_in` is false, `name` null."""

    sign_in: bool
    name: str | None
    role: Role | None


class PersonAsked(Asked):
    name: Annotated[str, Field(max_length=200)]
    role: Role


class PassphraseAsked(Asked):
    passphrase: Annotated[str, Field(max_length=400)]


class OwnPassphraseAsked(PassphraseAsked):
    """A new passphrase of one's own, and the one before."""

    before: Annotated[str, Field(max_length=400)]


class PersonTold(BaseModel):
    """Somebody of the house, and how many browsers they are signed in with."""

    id: int
    name: str
    role: Role
    can_sign_in: bool
    sessions: int
    last_seen_at: Moment | None


@router.get("/session")
def get_session(request: Request, now_s: NowS) -> SessionTold:
    """Who is signed in here, and whether anybody has to."""
    asked = signing_in.someone_signs_in()
    if not asked and is_elsewhere(request):
        raise NotForYou(NOT_OPEN)
    person = signing_in.whose(request.cookies.get(COOKIE), now_s)
    return SessionTold(
        sign_in=asked,
        name=person.name if person else None,
        role=person.role if person else None,
    )


@router.post("/session", status_code=204)
def sign_in(
    asked: SignInAsked, request: Request, response: Response, house: TheHouse, now_s: NowS
) -> None:
    """Sign in with name and passphrase; tries are counted."""
    address = request.client.host if request.client else "here"
    house.attempts.count(address, asked.name)
    device = request.headers.get("user-agent", "")
    token = signing_in.sign_in(asked.name, asked.passphrase, device, now_s)
    house.attempts.forgive(address, asked.name)
    response.set_cookie(
        COOKIE,
        token,
        max_age=int(signing_in.SESSION_DAYS * SECONDS_PER_DAY),
        httponly=True,
        samesite="strict",
        secure=request.url.scheme == "https",
    )


@router.delete("/session", status_code=204)
def sign_out(request: Request, response: Response) -> None:
    """End this browser's session."""
    signing_in.sign_out(request.cookies.get(COOKIE, ""))
    response.delete_cookie(COOKIE)


@router.put("/session/passphrase", status_code=204)
def change_own_passphrase(
    asked: OwnPassphraseAsked, person: Asking, house: TheHouse, now_s: NowS
) -> None:
    """Change one's own passphrase, knowing the one before; signs out everywhere, here too."""
    if person is None:
        raise NotForYou("nobody is signed in here")
    house.attempts.count(f"of {person.entity}", person.name)
    signing_in.change_passphrase(person, asked.before, asked.passphrase, now_s)


@router.delete("/sessions", status_code=204)
def sign_out_everywhere(person: Asking, response: Response) -> None:
    """End every session of whoever asks, on every device."""
    if person is not None:
        signing_in.sign_out_everywhere(person.entity)
    response.delete_cookie(COOKIE)


@router.get("/people")
def get_people() -> list[PersonTold]:
    """Everyone of the house, by name."""
    return [
        PersonTold(
            id=now.person.entity,
            name=now.person.name,
            role=Role(now.person.role),
            can_sign_in=now.can_sign_in,
            sessions=now.sessions,
            last_seen_at=at_or_none(now.used_s),
        )
        for now in people.people_now()
    ]


@router.post("/people", status_code=201)
def add_person(asked: PersonAsked, now_s: NowS) -> ActTold:
    """Add a person; they sign in once they have a passphrase."""
    return ActTold.of(people.add_person(asked.name, asked.role, now_s)[1])


@router.put("/people/{person}")
def change_person(person: Id, asked: PersonAsked, now_s: NowS) -> ActTold:
    """Rename a person, or give another role."""
    return ActTold.of(people.change_person(person, asked.name, asked.role, now_s))


@router.delete("/people/{person}")
def remove_person(person: Id, now_s: NowS) -> ActTold:
    """Let a person in no more; what they recorded stays."""
    return ActTold.of(people.remove_person(person, now_s))


@router.put("/people/{person}/passphrase", status_code=204)
def set_passphrase(person: Id, asked: PassphraseAsked, now_s: NowS) -> None:
    """Give a person a passphrase; whoever was signed in with the one before is signed out."""
    signing_in.set_passphrase(person, asked.passphrase, now_s)


@router.delete("/people/{person}/sessions", status_code=204)
def sign_person_out(person: Id) -> None:
    """Sign a person out on every device."""
    signing_in.sign_out_everywhere(people.find_person(person).entity)
