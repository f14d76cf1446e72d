"""A season's plan of visits: each pair again after the keeper's interval, one place at a time."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.units import SECONDS_PER_DAY, require_range

#: Days from one visit to the next of the same pair (rules P1 and G: "3-4 weeks apart").
VISIT_INTERVAL_DAYS: Final = 25.0
VISIT_INTERVAL_RANGE_DAYS: Final = (5.0, 90.0)
#: Days a visit lasts, when planning (assumption).
VISIT_DAYS: Final = 3.0
#: Dams per sire above which a warning is due (rules P1 and G: "3-4").
MOST_DAMS_PER_SIRE: Final = 4
#: g below which many keepers do not breed a dam (rule P1).
LIGHTEST_DAM_G: Final = 1500.0


@dataclass(frozen=True, slots=True)
class Pair:
    """A dam and a sire meant for each other this season, with the visits there were.

    `visits` are (start, end) in s; end None while they are together.
    """

    dam: int
    sire: int
    visits: tuple[tuple[float, float | None], ...] = ()


@dataclass(frozen=True, slots=True)
class PlannedVisit:
    """The sire to the dam at `from_s`; `due_s` is when the interval alone would have it."""

    dam: int
    sire: int
    from_s: float
    due_s: float
    together: bool


def plan_visits(
    pairs: Sequence[Pair], now_s: float, interval_days: float = VISIT_INTERVAL_DAYS
) -> tuple[PlannedVisit, ...]:
    """The next visit of each pair, in order of time.

    A pair is due `interval_days` (5-90) after its last visit began, at once
    when there was none. An animal is with one other at a time: a visit waits
    until both are free, those due longest first. Pairs that are together now
    are listed as they are, from the start of that visit. The order of `pairs`
    plays no part. Raises NotPlausible for an interval out of range.
    """
    require_range("interval", interval_days, VISIT_INTERVAL_RANGE_DAYS, "days")
    busy_until: dict[int, float] = {}
    planned: list[PlannedVisit] = []
    waiting: list[tuple[float, int, int]] = []
    for pair in pairs:
        last = max(pair.visits, key=lambda v: v[0], default=None)
        if last is not None and last[1] is None:
            planned.append(PlannedVisit(pair.dam, pair.sire, last[0], last[0], together=True))
            until = max(now_s, last[0] + VISIT_DAYS * SECONDS_PER_DAY)
            for animal in (pair.dam, pair.sire):
                busy_until[animal] = max(busy_until.get(animal, now_s), until)
            continue
        due_s = last[0] + interval_days * SECONDS_PER_DAY if last else now_s
        waiting.append((due_s, pair.dam, pair.sire))
    for due_s, dam, sire in sorted(waiting):
        free_s = max(now_s, busy_until.get(dam, now_s), busy_until.get(sire, now_s))
        from_s = max(due_s, free_s)
        planned.append(PlannedVisit(dam, sire, from_s, due_s, together=False))
        busy_until[dam] = busy_until[sire] = from_s + VISIT_DAYS * SECONDS_PER_DAY
    return tuple(sorted(planned, key=lambda v: (v.from_s, v.dam, v.sire)))


def many_dams(sire: str, dams: int, most: int = MOST_DAMS_PER_SIRE) -> str | None:
    """What to say when a sire is meant for more than `most` dams; None when he is not."""
    if dams <= most:
        return None
    return (
        f"{sire} is planned for {dams} dams. Above {most}, fewer locks each "
        "and more slugs are common."
    )


def too_light(dam: str, mass_g: float | None, lightest_g: float = LIGHTEST_DAM_G) -> str | None:
    """What to say of a dam below the keeper's minimum weight, or never weighed; else None."""
    if mass_g is None:
        return f"{dam} has no weight recorded: weigh her before pairing."
    if mass_g >= lightest_g:
        return None
    return f"{dam} weighs {mass_g:g} g, below your minimum of {lightest_g:g} g."
