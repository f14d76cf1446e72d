"""How much may be under way at a time: what comes beyond it is refused before it is read."""

import asyncio
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from typing import Final

from fastapi import Request

from sandboa.services.people.signing_in import SignedIn

#: s after which whoever was refused may try again.
RETRY_AFTER_S: Final = 1
#: Deliveries that are written at a time; SQLite has one writer, the others validate meanwhile.
WRITING: Final = 4


class TooMany(Exception):
    """Nothing of what came was looked at; the text says why, as the beginning of a sentence."""


@dataclass
class Bounded:
    """So much at a time, of one and in all.

    Used from the event loop only, so its counts need no lock.
    """

    most: int
    most_of_one: int
    #: Why one is refused that has so many already, and one that comes when all have.
    one_has_enough: str
    all_have_enough: str
    _open: Counter[str] = field(default_factory=Counter)

    @contextmanager
    def enter(self, who: str) -> Iterator[None]:
        """Count one of `who` for as long as it goes on; TooMany where it is one too many."""
        if self._open[who] >= self.most_of_one:
            raise TooMany(self.one_has_enough)
        if self._open.total() >= self.most:
            raise TooMany(self.all_have_enough)
        self._open[who] += 1
        try:
            yield
        finally:
            self._open[who] -= 1
            if self._open[who] <= 0:
                del self._open[who]

    @property
    def open(self) -> int:
        """How much is under way."""
        return self._open.total()


def deliveries() -> Bounded:
    """Deliveries of devices, each in memory until it is written (assumptions)."""
    return Bounded(
        most=32,
        most_of_one=8,
        one_has_enough="this device sends faster than its readings can be stored",
        all_have_enough="more devices send at once than can be answered",
    )


def pages_that_listen() -> Bounded:
    """Pages that are told what changes (assumptions: a tab has one)."""
    enough = "too many pages are open already: close some"
    return Bounded(most=120, most_of_one=24, one_has_enough=enough, all_have_enough=enough)


def photos_that_come() -> Bounded:
    """Photos, each in memory and with a thread of its own until it is made new (assumptions)."""
    enough = "too many photos come at once"
    return Bounded(most=6, most_of_one=4, one_has_enough=enough, all_have_enough=enough)


def writing() -> asyncio.Semaphore:
    """To be held while a delivery is written, once its body is here: a slow sender holds nobody."""
    return asyncio.Semaphore(WRITING)


def who(request: Request, person: SignedIn | None) -> str:
    """Whose it is: a person's, wherever they are, or an address's."""
    if person is not None:
        return f"person {person.entity}"
    return request.client.host if request.client else "here"
