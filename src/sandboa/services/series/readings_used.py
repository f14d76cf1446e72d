"""Which readings an answer was made of: as long as these are the same, so is the answer."""

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass

from sandboa.records.readings import Tip


@dataclass(frozen=True, slots=True)
class Used:
    """Readings of a probe: all of them, or those before `before_s` alone."""

    probe: int
    before_s: float | None = None

    def state(self, tips: Mapping[int, Tip]) -> tuple[int, ...]:
        """What changes whenever they do, by where records end."""
        tip = tips.get(self.probe)
        if tip is None:
            return ()
        if self.before_s is None or (tip.last_s or 0) < self.before_s:
            return (tip.revision,)
        # What comes behind the end of the record lies after them.
        return (tip.rewrites,)


_uses: ContextVar[set[Used] | None] = ContextVar("readings used", default=None)


def note(used: Used) -> None:
    """Say that readings are used, to whoever makes an answer of them."""
    uses = _uses.get()
    if uses is not None:
        uses.add(used)


@contextmanager
def noting(uses: set[Used]) -> Iterator[None]:
    """Add to `uses` what is used meanwhile, in this thread."""
    before = _uses.set(uses)
    try:
        yield
    finally:
        _uses.reset(before)


def same(uses: set[Used], before: Mapping[int, Tip], now: Mapping[int, Tip]) -> bool:
    """Whether readings have not changed from one state of the records to another."""
    return all(used.state(before) == used.state(now) for used in uses)
