"""What hinders readings on their way in: a broker that is not there, a message that is refused."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Final

from sandboa.core.messages import Words
from sandboa.services.probes.heard_values import Source

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
    _refused: dict[Source, Refusal] = field(default_factory=dict)

    def refuse(self, source: Source, reason: Words, at_s: float) -> None:
        """A message of a device, or of a topic, was not taken."""
        short = reason[:_LONGEST] if isinstance(reason, str) else reason
        self._refused[source] = Refusal(short, at_s)

    def take(self, source: Source) -> None:
        """A message was taken: what was refused before is mended."""
        self._refused.pop(source, None)

    def refused(self) -> dict[Source, Refusal]:
        """The last refusal of each, while nothing was taken since."""
        return dict(self._refused)

    def stamp(self) -> tuple[object, ...]:
        """Changes whenever what is told of senders does."""
        return (self.broker_problem(), tuple(self._refused.items()))
