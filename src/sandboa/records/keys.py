"""Keys that are no facts: tokens that were ended, secrets of messengers. Neither has an undo."""

from typing import Any

from peewee import AutoField, IntegerField, TextField

from sandboa.records import secret_box
from sandboa.records.database import house_file
from sandboa.records.facts import Sealed


class EndedToken(Sealed):
    """A device's token that lets nothing in any more, whatever is undone or restored."""

    token_hash = TextField(primary_key=True)
    ended_s = IntegerField()


class MessengerSecret(Sealed):
    """A messenger's password or the like, sealed with the key beside the house."""

    id = AutoField()
    messenger_id = IntegerField()
    name = TextField()
    sealed = TextField()


def end_token(token_hash: str, now_s: float) -> None:
    """Let a token in no more, for good."""
    if not is_ended(token_hash):
        EndedToken.create(token_hash=token_hash, ended_s=int(now_s))


def is_ended(token_hash: str) -> bool:
    """Whether that token was ended."""
    return EndedToken.get_or_none(EndedToken.token_hash == token_hash) is not None


def secrets_of(messenger: int) -> dict[str, str | None]:
    """A messenger's secrets by name; None for one whose key is not here any more."""
    rows = MessengerSecret.select().where(MessengerSecret.messenger_id == messenger)
    house = house_file()
    return {row.name: secret_box.opened(house, row.sealed) for row in rows}


def keep_secrets(messenger: int, secrets: dict[str, Any]) -> None:
    """Put a messenger's secrets in place of those it had; empty ones are none."""
    forget_secrets(messenger)
    house = house_file()
    for name, secret in secrets.items():
        if secret:
            sealed = secret_box.seal(house, str(secret))
            MessengerSecret.create(messenger_id=messenger, name=name, sealed=sealed)


def forget_secrets(messenger: int) -> None:
    """Delete a messenger's secrets; SQLite overwrites what was deleted."""
    MessengerSecret.delete().where(MessengerSecret.messenger_id == messenger).execute()
