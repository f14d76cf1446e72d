"""How often a passphrase may be tried: guesses are slow, a keeper's slip is forgiven.

Tries are counted by address and by person, over minutes, hours and days, so
that waiting grows with trying. A device that was signed in before as the same
person is counted by itself: whoever guesses elsewhere shuts nobody out.
"""

import ipaddress
import time
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Final

from limits import (
    RateLimitItem,
    RateLimitItemPerDay,
    RateLimitItemPerHour,
    RateLimitItemPerMinute,
)
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

#: Wrong tries from one address, at one person, and on a device that person was signed in with
#: before (assumptions). One address alone does not use up what a person has.
FROM_ONE_ADDRESS: Final = (
    RateLimitItemPerMinute(10, 5), RateLimitItemPerHour(30), RateLimitItemPerDay(80),
)  # fmt: skip
AT_ONE_PERSON: Final = (
    RateLimitItemPerMinute(30, 5), RateLimitItemPerHour(60), RateLimitItemPerDay(150),
)  # fmt: skip
_ON_A_KNOWN_DEVICE: Final = (RateLimitItemPerMinute(10, 5), RateLimitItemPerDay(100))


class TooManyTries(Exception):
    """Passphrases were tried too often; the text is a sentence, `wait_s` how long to wait."""

    def __init__(self, wait_s: float) -> None:
        self.wait_s = max(1, round(wait_s))
        super().__init__(f"too many tries: wait {_span(self.wait_s)}")


@dataclass(frozen=True, slots=True)
class Try:
    """Who tries to come in as whom.

    `person` is the person's id where that name is known, else the name as it is
    compared; `device` the mark of a device that was signed in as that person.
    """

    address: str
    person: str
    device: str | None = None

    def counted(self) -> tuple[tuple[RateLimitItem, str], ...]:
        """The limits a wrong try counts towards."""
        if self.device is not None:
            return _each(_ON_A_KNOWN_DEVICE, f"device {self.device}")
        return (
            *_each(FROM_ONE_ADDRESS, f"address {_network(self.address)}"),
            *_each(AT_ONE_PERSON, f"person {self.person[:60]}"),
        )


@dataclass
class Attempts:
    """What was tried lately; forgotten when the application stops."""

    _limiter: MovingWindowRateLimiter = field(
        default_factory=lambda: MovingWindowRateLimiter(MemoryStorage())
    )

    def require(self, asked: Try) -> None:
        """TooManyTries when there were too many; asking counts nothing."""
        waits = [
            self._limiter.get_window_stats(limit, key).reset_time
            for limit, key in asked.counted()
            if not self._limiter.test(limit, key)
        ]
        if waits:
            raise TooManyTries(max(waits) - time.time())

    def count(self, asked: Try) -> None:
        """A passphrase was wrong."""
        for limit, key in asked.counted():
            self._limiter.hit(limit, key)

    def forgive(self, asked: Try) -> None:
        """That person came in: what was tried as them, or on their device, is forgotten.

        What was tried from the address is not: it may be others'.
        """
        for limit, key in asked.counted():
            if not key.startswith("address "):
                self._limiter.clear(limit, key)


def _each(limits: Iterable[RateLimitItem], key: str) -> tuple[tuple[RateLimitItem, str], ...]:
    return tuple((limit, key) for limit in limits)


def _network(address: str) -> str:
    """The address, or the network a household has of its own where it is one of IPv6."""
    try:
        known = ipaddress.ip_address(address)
    except ValueError:
        return address[:60]
    if known.version == 6 and not known.is_loopback:
        return str(ipaddress.ip_network((known, 64), strict=False))
    return str(known)


def _span(seconds: int) -> str:
    if seconds < 90:
        return f"{seconds} s"
    minutes = round(seconds / 60)
    return f"{minutes} minutes" if minutes < 90 else f"{round(minutes / 60)} hours"
