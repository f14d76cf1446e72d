"""Who may do what in a house, and what makes a passphrase."""

import unicodedata
from enum import StrEnum
from typing import Final

from sandboa.core.errors import NotPlausible

#: Characters a passphrase has at least (assumption: four short words; guesses are slowed as well).
SHORTEST_PASSPHRASE: Final = 12
#: Characters it has at most (assumption: hashing anything longer only costs time).
LONGEST_PASSPHRASE: Final = 200
#: Different characters it has at least (assumption: "aaaaaaaaaaaa" is no secret).
_DIFFERENT_CHARACTERS: Final = 5
#: Guesses after which it is found, at least (zxcvbn's highest score; Wheeler 2016).
_FEWEST_GUESSES: Final = 1e10
#: Characters its guesses are counted for: beyond them counting takes long, and all is well.
_COUNTED: Final = 72
#: What belongs to every house.
_NO_SECRETS: Final = ("sandboa", "python", "ball python", "clutch", "hatchling")


class Role(StrEnum):
    """What a person is to the house.

    The keeper decides everything; a helper records what happens at boxes,
    eggs and animals; a visitor looks.
    """

    KEEPER = "keeper"
    HELPER = "helper"
    VISITOR = "visitor"


class Deed(StrEnum):
    """What a request wants to do to the house."""

    LOOK = "look"
    RECORD = "record"
    RUN = "run"


_ALLOWED: Final = {
    Role.KEEPER: frozenset(Deed),
    Role.HELPER: frozenset({Deed.LOOK, Deed.RECORD}),
    Role.VISITOR: frozenset({Deed.LOOK}),
}

_REFUSALS: Final = {
    Deed.LOOK: "this is not for you to see",
    Deed.RECORD: "a visitor may look; recording is for keepers and helpers",
    Deed.RUN: "only a keeper may change how the house is run",
}


def may(role: Role, deed: Deed) -> bool:
    """Whether someone of that role may do that; every role may do what the next lower one may."""
    return deed in _ALLOWED[role]


def refusal(deed: Deed) -> str:
    """Why someone who may not do that cannot, as a sentence."""
    return _REFUSALS[deed]


def as_typed(text: str) -> str:
    """The text in composed Unicode form: two keyboards may write one letter in two ways."""
    return unicodedata.normalize("NFC", text)


def clean_passphrase(text: str, name: str) -> str:
    """The passphrase as it is hashed; spaces are kept.

    Raises NotPlausible when it is too short, too long, of a few characters, or
    would be guessed soon: common, one word over and over, a row of keys, or the
    person's own name.
    """
    if len(text) > LONGEST_PASSPHRASE:
        raise NotPlausible("passphrase", f"more than {LONGEST_PASSPHRASE} characters do not fit")
    phrase = as_typed(text)
    if len(phrase.strip()) < SHORTEST_PASSPHRASE:
        raise NotPlausible(
            "passphrase",
            f"a passphrase has at least {SHORTEST_PASSPHRASE} characters: "
            "four words that do not belong together are easy to type",
        )
    if len(set(phrase)) < _DIFFERENT_CHARACTERS:
        raise NotPlausible("passphrase", "the same few characters over and over are no secret")
    if _guesses(phrase, name) < _FEWEST_GUESSES:
        raise NotPlausible(
            "passphrase",
            "that would be guessed soon: use four words that do not belong together, "
            "and none of them your name",
        )
    return phrase


def _guesses(phrase: str, name: str) -> float:
    """How many guesses find it, by somebody who knows the house."""
    # Its lists of common words take a while to read: only who sets a passphrase needs them.
    from zxcvbn import zxcvbn

    own = [word.casefold() for word in (name, *name.split(), *_NO_SECRETS)]
    return float(zxcvbn(phrase[:_COUNTED], user_inputs=own)["guesses"])
