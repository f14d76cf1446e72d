"""Causes held to account: simulated seasons with known causes, told through the use cases."""

import tempfile
from collections import Counter
from collections.abc import Iterable
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from benchmarks.report import met
from sandboa.core.causes import Cause
from sandboa.demo.replay import ReplayScope, tell
from sandboa.devices.simulation.season import SEASON_DAYS, Habits, season
from sandboa.devices.simulation.season_hazards import UNLISTED
from sandboa.records.database import database, open_database
from sandboa.services.losses.why import losses_of
from sandboa.services.snapshot.cache import SnapshotCache

_DAY_S = 86_400.0
_BEGAN_S = 1_743_465_600.0
_SEASONS = 20
#: How many times as many are told with full records: one loss in ten is unlisted, and 70 of those
#: say too little of one in ten.
_FULL_TIMES = 3
#: Seeds from here on were never looked at before the scores were done.
FIRST_SEED = 650_000
#: Share of what is found on opening that is noted wrong.
_MISREADS = 0.10
#: Shares of losses that lead, and are among the first three; the share a wrong cause of an
#: unlisted loss may have, and in how many of them it may be passed (product requirement).
_FIRST, _AMONG_THREE = 0.70, 0.92
_MOST_SHARE, _MOST_WRONG = 0.60, 0.10

#: What the simulation calls each hazard, and what the product does; what is on no list is unknown.
CALLED = {
    "heat wave": Cause.TOO_HOT,
    "cold snap": Cause.TOO_COLD,
    "see-saw": Cause.UNSTABLE,
    "blackout": Cause.EQUIPMENT,
    "fumes": Cause.POISONED_AIR,
    "parched": Cause.TOO_DRY,
    "soaked": Cause.TOO_WET,
    "stuffy": Cause.STALE_AIR,
    "spent mother": Cause.DAM,
    "double dose": Cause.LETHAL_GENES,
    "fly brood": Cause.PESTS,
    "blank": Cause.INFERTILE,
    "face down": Cause.UNDERNEATH,
    "bump": Cause.KNOCKED,
    "rot": Cause.INFECTION,
    "early blade": Cause.OPENED_EARLY,
    "locked in": Cause.COULD_NOT_GET_OUT,
    "tether": Cause.CORD,
    "twisted": Cause.MALFORMED,
    "poor wrap": Cause.SHELL,
    **dict.fromkeys(UNLISTED, Cause.UNKNOWN),
}


@dataclass(frozen=True)
class Withheld:
    """What a keeper did not do, in words, and how the season is told then."""

    words: str
    habits: Habits
    told: ReplayScope


FULL = Withheld("full records", Habits(misreads=_MISREADS), ReplayScope())
NOTHING = Withheld(
    "nothing but who laid, where, and what hatched",
    Habits(),
    ReplayScope(readings=False, openings=False, anything=False),
)
VARIANTS = (
    FULL,
    Withheld("no weighings", Habits(weighs=False, misreads=_MISREADS), ReplayScope()),
    Withheld("no candling after lay day", Habits(candles=False, misreads=_MISREADS), ReplayScope()),
    Withheld("no egg opened", Habits(), ReplayScope(openings=False)),
    Withheld("no probe", Habits(misreads=_MISREADS), ReplayScope(readings=False)),
    Withheld(
        "none of these",
        Habits(weighs=False, candles=False),
        ReplayScope(readings=False, openings=False),
    ),
    NOTHING,
)


@dataclass(frozen=True)
class Scored:
    """One loss: what really killed it, what helped, and the causes ranked with their shares."""

    truth: Cause
    ranked: tuple[tuple[Cause, float], ...]
    also: Cause | None = None

    @property
    def place(self) -> int:
        """0 when a true cause leads."""
        order = [cause for cause, _ in self.ranked]
        return min(order.index(true) for true in (self.truth, self.also) if true is not None)

    @property
    def both_among(self) -> bool:
        """Whether both of two causes are among the first three."""
        return {self.truth, self.also} <= {cause for cause, _ in self.ranked[:3]}

    @property
    def falsely_sure(self) -> bool:
        """Whether a named cause stands above 60 % that is none of the true ones."""
        return any(
            share > _MOST_SHARE and cause not in (Cause.UNKNOWN, self.truth, self.also)
            for cause, share in self.ranked
        )


def losses(seeds: Iterable[int], variant: Withheld) -> list[Scored]:
    """Every loss of those seasons, ranked by the house from what was recorded."""
    with ProcessPoolExecutor() as workers:
        jobs = [(seed, variant) for seed in seeds]
        return [scored for season in workers.map(_season, jobs) for scored in season]


def _season(job: tuple[int, Withheld]) -> list[Scored]:
    seed, variant = job
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
            eggs = {egg.number: egg for egg in truth.eggs}
            for lost in losses_of(facts, clutch, now_s).lost:
                egg = eggs[lost.end.egg.number]
                assert egg.cause is not None, "only eggs that died are lost"
                found.append(
                    Scored(
                        CALLED[egg.cause],
                        tuple((c.cause, c.share) for c in lost.causes),
                        CALLED[egg.also] if egg.also else None,
                    )
                )
        opened.close()
    return found


def report(seasons: int = _SEASONS, first_seed: int = FIRST_SEED) -> str:
    """The report as text."""
    lines = []
    for variant in VARIANTS:
        told = seasons * (_FULL_TIMES if variant is FULL else 1)
        scored = losses(range(first_seed, first_seed + told), variant)
        first = sum(s.place == 0 for s in scored) / len(scored)
        third = sum(s.place < 3 for s in scored) / len(scored)
        aim = ""
        if variant is FULL:
            aim = f"  (aim: 70 %, 92 %)  {met(first >= _FIRST and third >= _AMONG_THREE)}"
        lines.append(
            f"  {variant.words}: {len(scored)} losses, true cause first in {first:.0%}, "
            f"among the first three in {third:.0%}{aim}"
        )
        if variant is NOTHING:
            unknown = sum(s.ranked[0][0] is Cause.UNKNOWN for s in scored) / len(scored)
            lines.append(
                f"    unknown leads in {unknown:.0%}  (aim: more often than not)  "
                f"{met(unknown > 0.5)}"
            )
        if variant is FULL:
            lines += [*_hard_ones(scored), *_by_cause(scored), *_reliability(scored)]
    return "\n".join(["Causes of loss, simulated seasons told through the use cases", *lines])


def _hard_ones(scored: list[Scored]) -> list[str]:
    """Losses of what is on no list, and of two things at once."""
    unlisted = [s for s in scored if s.truth is Cause.UNKNOWN and s.also in (None, Cause.UNKNOWN)]
    two = [s for s in scored if s.also not in (None, s.truth)]
    wrong = sum(s.falsely_sure for s in unlisted) / max(len(unlisted), 1)
    lines = [
        f"    {len(unlisted)} of {len(scored)} were lost to what is on no list: a named cause "
        f"above 60 % in {wrong:.0%}  (aim: at most 10 %)  {met(wrong <= _MOST_WRONG)}"
    ]
    if two:
        either = sum(s.place == 0 for s in two) / len(two)
        both = sum(s.both_among for s in two) / len(two)
        lines.append(
            f"    {len(two)} were lost to two causes at once: one of them first in {either:.0%}, "
            f"both among the first three in {both:.0%}"
        )
    return lines


def _by_cause(scored: list[Scored]) -> list[str]:
    lines = []
    for cause, count in Counter(s.truth for s in scored).most_common():
        own = [s for s in scored if s.truth is cause]
        mistaken = Counter(s.ranked[0][0].value for s in own if s.place > 0).most_common(2)
        taken = ", ".join(f"{name} {n}" for name, n in mistaken)
        first, third = sum(s.place == 0 for s in own), sum(s.place < 3 for s in own)
        lines.append(
            f"    {cause.value:30} {count:4}  first {first / count:4.0%}  first three "
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
