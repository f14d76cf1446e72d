"""Causes held to account: simulated seasons with known causes, told through the use cases."""

import tempfile
from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

from sandboa.core.causes import Cause
from sandboa.demo.replay import Told, tell
from sandboa.devices.simulation.season import SEASON_DAYS, Habits, season
from sandboa.records.database import database, open_database
from sandboa.services.losses.why import losses_of
from sandboa.services.snapshot.cache import SnapshotCache

_DAY_S = 86_400.0
_BEGAN_S = 1_743_465_600.0
_SEASONS = 20
#: Seeds from here on were never looked at before the scores were done.
_SCORED = 640_000


@dataclass(frozen=True)
class Withheld:
    """What a keeper did not do, in words, and how the season is told then."""

    words: str
    habits: Habits
    told: Told


FULL = Withheld("full records", Habits(), Told())
NOTHING = Withheld(
    "nothing but who laid, where, and what hatched",
    Habits(),
    Told(readings=False, openings=False, anything=False),
)
VARIANTS = (
    FULL,
    Withheld("no weighings", Habits(weighs=False), Told()),
    Withheld("no candling after lay day", Habits(candles=False), Told()),
    Withheld("no egg opened", Habits(), Told(openings=False)),
    Withheld("no probe", Habits(), Told(readings=False)),
    Withheld(
        "none of these", Habits(weighs=False, candles=False), Told(readings=False, openings=False)
    ),
    NOTHING,
)


@dataclass(frozen=True)
class Scored:
    """One loss: what really killed it, and the causes as they were ranked with their shares."""

    truth: str
    ranked: tuple[tuple[Cause, float], ...]

    @property
    def place(self) -> int:
        """0 when the true cause leads."""
        return [cause.value for cause, _ in self.ranked].index(self.truth)


def losses(seeds: Iterator[int] | range, variant: Withheld) -> list[Scored]:
    """Every loss of those seasons, ranked by the house from what was recorded."""
    return [scored for seed in seeds for scored in _season(seed, variant)]


def _season(seed: int, variant: Withheld) -> list[Scored]:
    story = season(seed, _BEGAN_S, habits=variant.habits)
    events = sorted(tell(story, _BEGAN_S, variant.told), key=lambda event: event[0])
    now_s = _BEGAN_S + (SEASON_DAYS + 30) * _DAY_S
    with tempfile.TemporaryDirectory() as folder:
        opened = open_database(Path(folder) / "house.sqlite")
        with database.atomic():
            for _, happen in events:
                happen()
        house = SnapshotCache()
        facts = house.current()
        by_place = sorted(story.clutches, key=lambda c: c.laid_day)
        found = []
        for truth, clutch in zip(
            by_place, sorted(facts.clutches, key=lambda c: c.laid_s), strict=True
        ):
            causes = {egg.number: egg.cause for egg in truth.eggs}
            for lost in losses_of(facts, clutch, now_s).lost:
                cause = causes[lost.end.egg.number]
                assert cause is not None, "only eggs that died are lost"
                found.append(Scored(cause, tuple((c.cause, c.share) for c in lost.causes)))
        opened.close()
    return found


def report(seasons: int = _SEASONS) -> str:
    """The report as text."""
    lines = []
    for variant in VARIANTS:
        scored = losses(range(_SCORED, _SCORED + seasons), variant)
        first = sum(s.place == 0 for s in scored) / len(scored)
        third = sum(s.place < 3 for s in scored) / len(scored)
        aim = ""
        if variant is FULL:
            met = first >= 0.70 and third >= 0.92
            aim = f"  (aim: 70 %, 92 %)  {'met' if met else 'MISSED'}"
        lines.append(
            f"  {variant.words}: {len(scored)} losses, true cause first in {first:.0%}, "
            f"among the first three in {third:.0%}{aim}"
        )
        if variant is NOTHING:
            unknown = sum(s.ranked[0][0] is Cause.UNKNOWN for s in scored) / len(scored)
            met = "met" if unknown > 0.5 else "MISSED"
            lines.append(f"    unknown leads in {unknown:.0%}  (aim: more often than not)  {met}")
        if variant is FULL:
            lines += _by_cause(scored) + _reliability(scored)
    return "\n".join(["Causes of loss, simulated seasons told through the use cases", *lines])


def _by_cause(scored: list[Scored]) -> list[str]:
    lines = []
    for cause, count in Counter(s.truth for s in scored).most_common():
        own = [s for s in scored if s.truth == cause]
        mistaken = Counter(s.ranked[0][0].value for s in own if s.place > 0).most_common(2)
        taken = ", ".join(f"{name} {n}" for name, n in mistaken)
        first, third = sum(s.place == 0 for s in own), sum(s.place < 3 for s in own)
        lines.append(
            f"    {cause:30} {count:4}  first {first / count:4.0%}  first three "
            f"{third / count:4.0%}{f'  taken for {taken}' if taken else ''}"
        )
    return lines


def _reliability(scored: list[Scored]) -> list[str]:
    """Where a share of so much was given to what leads, how often it was right."""
    lines = ["    where the leading cause has a share of"]
    for low, high in ((0.0, 0.4), (0.4, 0.6), (0.6, 0.8), (0.8, 0.95), (0.95, 1.01)):
        held = [s for s in scored if low <= s.ranked[0][1] < high]
        if held:
            right = sum(s.place == 0 for s in held) / len(held)
            lines.append(
                f"      {low:.0%} to {min(high, 1.0):.0%}: right in {right:.0%} of {len(held)}"
            )
    return lines
