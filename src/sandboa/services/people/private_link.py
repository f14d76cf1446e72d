"""The private address of the calendar: whoever has it reads the calendar, nothing else."""

import secrets

from sandboa.records.database import transaction
from sandboa.records.people import (
    PrivateLink,
    end_private_link,
    private_link_of,
    private_link_with,
)
from sandboa.services.people.tokens import NotAllowed, hash_of


def make_link(person: int | None, now_s: float) -> str:
    """A new token for that person's link (None: the machine's); the one before holds no more."""
    token = secrets.token_urlsafe(32)
    with transaction():
        end_link(person)
        PrivateLink.create(token_hash=hash_of(token), person_id=person, made_s=int(now_s))
    return token


def end_link(person: int | None) -> None:
    """Let nobody read the calendar by that person's link any more."""
    end_private_link(person)


def link_of(person: int | None) -> PrivateLink | None:
    """The link that person has, None without one."""
    return private_link_of(person)


def owner_of(token: str) -> int | None:
    """Whose link has that token (None: the machine's); NotAllowed when it holds no more."""
    link = private_link_with(hash_of(token))
    if link is None:
        raise NotAllowed("this calendar link holds no more; make a new one at the house")
    return link.person_id
