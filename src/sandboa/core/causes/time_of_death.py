"""When an egg died, as a window in share developed (rule G).

From the last sign of life to the first sign of death, narrowed by what was
found on opening. An event after death explains nothing.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.hatching.fates import DeathStage, span_of
from sandboa.core.standing.signs import SignKind

#: Signs that only a living egg gives. Weak vessels may be a dead egg's for some days.
_LIFE: Final = frozenset(
    {
        (SignKind.VESSELS, "strong"),
        (SignKind.MOVEMENT, "seen"),
        (SignKind.BODY, "dark"),
        (SignKind.TOUCH, "reacts"),
    }
)
#: Signs that only a dead egg gives, or nearly so.
_DEATH: Final = frozenset(
    {
        (SignKind.VESSELS, "none"),
        (SignKind.VESSELS, "broken"),
        (SignKind.MOULD, "furry"),
        (SignKind.SMELL, "foul"),
        (SignKind.WET, "leaking"),
        (SignKind.FEEL, "mushy"),
    }
)
#: Share of a term after death from which such a sign is seen at all: a few days (assumption).
_SHOWS_AFTER: Final = 0.03
#: Share developed before which no vessels are seen yet in a living egg: day 7 of 60 (rule C).
_VESSELS_FROM: Final = 7.0 / 60.0
#: Share of a term by which a stage found on opening may be misjudged (assumption).
_STAGE_SLACK: Final = 0.08


@dataclass(frozen=True, slots=True)
class Seen:
    """One sign of an egg at a share developed; `day` since lay for the words."""

    share: float
    day: float
    kind: SignKind
    value: str


@dataclass(frozen=True, slots=True)
class DeathWindow:
    """The egg died between two shares developed, `start` < `end`; `words` say from what."""

    start: float
    end: float
    words: str

    @property
    def middle(self) -> float:
        return (self.start + self.end) / 2.0

    def overlaps(self, other: "DeathWindow") -> bool:
        """Whether both may have died at one share."""
        return self.start < other.end and other.start < self.end

    def chance_after(self, share: float) -> float:
        """Chance (0-1) that the egg still lived at `share`: even within the window."""
        if share <= self.start:
            return 1.0
        if share >= self.end:
            return 0.0
        return (self.end - share) / (self.end - self.start)

    def chance_between(self, start: float, end: float) -> float:
        """Chance (0-1) that it died between two shares."""
        return self.chance_after(start) - self.chance_after(end)


def death_window(
    seen: Sequence[Seen],
    ended: float,
    *,
    stage: DeathStage | None = None,
    found: str | None = None,
    pipped: float | None = None,
) -> DeathWindow:
    """The window of an egg that was given up at `ended` (share developed, > 0).

    Parameters: `seen` in any order; `stage` as the keeper declared; `found`
    the stage on opening (a value of core.causes.findings, "yolk only" being
    the earliest); `pipped` the share at its pip.

    Where the stage contradicts the signs, the stage on opening wins: an egg
    that was opened was seen whole.
    """
    alive = [s.share for s in seen if (s.kind, s.value) in _LIFE]
    start = max([0.0, *alive, *([pipped] if pipped is not None else [])])
    dead = [
        max(s.share - _SHOWS_AFTER, 0.0)
        for s in seen
        if (s.kind, s.value) in _DEATH
        and s.share > start
        and not (s.value == "none" and s.share < _VESSELS_FROM)
    ]
    end = min([ended, *dead])
    words = [_life_words(seen, start, pipped), _death_words(end, ended)]
    span = _span(stage, found)
    if span is not None and pipped is None:
        low, high = max(start, span[0]), min(end, span[1])
        if low < high:
            start, end = low, high
        else:
            start, end = max(span[0], 0.0), min(span[1], max(ended, span[0] + _SHOWS_AFTER))
        words.append(f"found {found}" if found else f"declared {stage}")
    if end - start < _SHOWS_AFTER:
        middle = max((start + end) / 2.0, _SHOWS_AFTER / 2.0)
        start, end = middle - _SHOWS_AFTER / 2.0, middle + _SHOWS_AFTER / 2.0
    return DeathWindow(start, end, "; ".join(words))


def _span(stage: DeathStage | None, found: str | None) -> tuple[float, float] | None:
    if found == "yolk only":
        return 0.0, 0.15
    told = DeathStage(found) if found else stage
    if told is None:
        return None
    start, end = span_of(told)
    return max(0.0, start - _STAGE_SLACK), end + _STAGE_SLACK


def _life_words(seen: Sequence[Seen], start: float, pipped: float | None) -> str:
    if pipped is not None and start == pipped:
        return "it had pipped"
    last = [s for s in seen if s.share == start and (s.kind, s.value) in _LIFE]
    return f"last sign of life on day {last[-1].day:.0f}" if last else "no sign of life was seen"


def _death_words(end: float, ended: float) -> str:
    if end < ended:
        return f"signs of death at {end:.0%}".replace("%", " %")
    return f"given up at {ended:.0%}".replace("%", " %")
