"""How often a passphrase may be tried: guesses are slow, a keeper's slip is forgiven."""

from dataclasses import dataclass, field
from typing import Final

from limits import RateLimitItem, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

#: Tries in five minutes from one address, and at one name (assumptions).
_FROM_ONE_ADDRESS: Final = RateLimitItemPerMinute(10, 5)
_AT_ONE_NAME: Final = RateLimitItemPerMinute(30, 5)
#: Seconds after which it is worth trying again.
RETRY_AFTER_S: Final = 300


class TooManyTries(Exception):
    """Passphrases were tried too often; the text is a sentence."""


@dataclass
class Attempts:
    """What was tried lately; forgotten when the application stops."""

    _limiter: MovingWindowRateLimiter = field(
        default_factory=lambda: MovingWindowRateLimiter(MemoryStorage())
    )

    def count(self, address: str, name: str) -> None:
        """Count a try before its passphrase is looked at; TooManyTries when there were too many."""
        asked: tuple[tuple[RateLimitItem, str], ...] = (
            (_FROM_ONE_ADDRESS, f"address {address}"),
            (_AT_ONE_NAME, f"name {name.casefold()[:60]}"),
        )
        # Both are counted, whatever the first one says.
        passed = [self._limiter.hit(limit, key) for limit, key in asked]
        if not all(passed):
            raise TooManyTries("too many tries: wait five minutes")

    def forgive(self, address: str, name: str) -> None:
        """Forget the tries of somebody who got in."""
        self._limiter.clear(_FROM_ONE_ADDRESS, f"address {address}")
        self._limiter.clear(_AT_ONE_NAME, f"name {name.casefold()[:60]}")
