"""Somebody to sign in as, when the demo is opened to other machines."""

import secrets
from typing import Final

from sandboa.core.people import Role
from sandboa.services.people.commands import add_person
from sandboa.services.people.signing_in import set_passphrase

_NAME: Final = "Keeper"
_WORDS: Final = ("borage", "chert", "flint", "lovage", "marl", "slate", "sorrel", "tansy", "yarrow")


def let_in_a_keeper(now_s: float) -> tuple[str, str]:
    """Add a keeper to the open house; returns the name and a passphrase made for this run."""
    passphrase = " ".join([*(secrets.choice(_WORDS) for _ in range(3)), secrets.token_hex(4)])
    person, _ = add_person(_NAME, Role.KEEPER, now_s)
    set_passphrase(person.entity_id, passphrase, now_s)
    return _NAME, passphrase
