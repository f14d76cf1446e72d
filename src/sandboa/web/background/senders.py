"""What hinders readings on their way in: a broker that is not there, a message that is refused."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.messages import Words

#: Letters of a refusal that are kept.
_LONGEST: Final = 300


@dataclass(frozen=True, slots=True)
class Refusal:
    """Why what a device sent last was not taken, and when (s)."""

    reason: Words
    at_s: float


def _no_broker() -> str | None:
    return None


@dataclass
class Senders:
    """Held while the application runs; safe to share between threads.

    `broker_problem` says in words why nothing can come by MQTT; None where all is well, or where
    no broker was asked for.
    """

    broker_problem: Callable[[], str | None] = _no_broker
    _refused: dict[int, Refusal] = field(default_factory=dict)

    def refuse(self, device: int, reason: Words, at_s: float) -> None:
        """A message of a device was not taken."""
        short = reason[:_LONGEST] if isinstance(reason, str) else reason
        self._refused[device] = Refusal(short, at_s)

    def take(self, device: int) -> None:
        """A message of a device was taken: what was refused before is mended."""
        self._refused.pop(device, None)

    def refused(self, device: int) -> Refusal | None:
        """The last refusal, while nothing was taken since."""
        return self._refused.get(device)

    def stamp(self) -> tuple[object, ...]:
        """Changes whenever what is told of senders does."""
        return (self.broker_problem(), *sorted(self._refused.items(), key=lambda held: held[0]))
