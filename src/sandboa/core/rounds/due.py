"""What is due at a box today, and why (rule P7).

To change a rhythm, change `VISIT_EVERY_DAYS`; the test that guards it is
tests/core/test_due_and_air.py.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.dimples.judgement import Scope, Urgency
from sandboa.core.messages import Words
from sandboa.core.methods import LastDays, Visits
from sandboa.core.units import SECONDS_PER_DAY, whole_days

#: Days between visits by the method's rhythm; None: only looked at through the lid (rule P7).
VISIT_EVERY_DAYS: Final = {
    Visits.SET_AND_FORGET: None,
    Visits.EVERY_14_DAYS: 14.0,
    Visits.EVERY_7_DAYS: 7.0,
    Visits.EVERY_2_3_DAYS: 2.5,
}
#: Days after the last look on which an egg in doubt is looked at again (assumption).
WATCH_EVERY_DAYS: Final = 3.0
#: Days after watering on which dented eggs are looked at again; they have 5 to answer (rule B).
ANSWER_LOOK_DAYS: Final = 3.0
#: Share developed around which every egg is candled once, mid-term (rule P7; assumption).
MID_TERM: Final = (0.45, 0.60)
#: Days before it in which a candling counts for it (assumption).
CANDLED_BEFORE_DAYS: Final = 3.0
#: Days before the first pip in which every egg is candled once more, and last things are done.
LAST_WEEK_DAYS: Final = 7.0
#: Days a damp cloth lies on the eggs: from the first on it may come off, by the second it is off
#: (keeper practice).
CLOTH_DAYS: Final = (1.0, 2.0)
#: Days a reason may be put off (assumption).
POSTPONE_DAYS: Final = (1.0, 14.0)
#: Days ahead in which a top-up is announced: so that it can wait for the next round (assumption).
TOP_UP_AHEAD_DAYS: Final = 2.0


class DueKind(StrEnum):
    """Why a box is opened; the order is that in which reasons are told."""

    DENTS = "dents"
    WATER = "water"
    WATCH = "watch"
    CANDLE = "candle"
    AIR = "air"
    CLOTH = "cloth"
    LAST_DAYS = "last days"
    RHYTHM = "rhythm"


@dataclass(frozen=True, slots=True)
class Due:
    """One reason to open a box: since when (s), how pressing, in words, about which eggs."""

    kind: DueKind
    since_s: float
    urgency: Urgency
    text: Words
    eggs: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class BoxState:
    """What is known of a box when the list is made; eggs by their names in it, in their order.

    Attributes
    ----------
    laid_s, last_visit_s: s; the last visit is lay day's when there was none since.
    development: share developed now, 0-2.
    dents: what the dents point at, how pressing, and the early eggs;
        `dents_words` says it, with the grams.
    watched: (egg, last look s) of eggs in doubt: on watch or worse, or with signs against them.
    candle_again: (egg, from s) of eggs unsure on lay day.
    candled_s: last time each live egg was candled (None: never).
    water_soon_s, water_dry_s: when 50 % and 25 % are likely reached; None beyond term or unknown.
    water_share: share left now, None unknown.
    oxygen: (share, advise airing), None where it is not estimated.
    first_pip_s: likely first pip, None when unknown.
    watered_s, looked_s: last pour, and last look at any egg (s).
    moved_in_s: when its early eggs came from another box, if all did and were not seen since (s).
    mid_term_s: when it reached mid-term, None before that.
    watch_every_days: days after which an egg in doubt is looked at again.
    last_days_done: eggs were moved, or the grid taken out.
    look_now: eggs whose own dents ask for the torch at once, not candled since they were seen.
    rest_due: when the second half of a split top-up is due (s), and its grams.
    cloth_since_s: since when a damp cloth lies on the eggs; None for none (s).
    """

    laid_s: float
    last_visit_s: float
    visits: Visits
    last_days: LastDays
    on_grid: bool
    development: float
    dents: tuple[Scope, Urgency, tuple[str, ...]]
    live_eggs: int
    dents_words: Words = ""
    watched: tuple[tuple[str, float], ...] = ()
    candle_again: tuple[tuple[str, float], ...] = ()
    candled_s: tuple[tuple[str, float | None], ...] = ()
    water_soon_s: float | None = None
    water_dry_s: float | None = None
    water_share: float | None = None
    oxygen: tuple[float, bool] | None = None
    first_pip_s: float | None = None
    mid_term_s: float | None = None
    watered_s: float | None = None
    looked_s: float = 0.0
    moved_in_s: float | None = None
    last_days_done: bool = False
    watch_every_days: float = WATCH_EVERY_DAYS
    look_now: tuple[str, ...] = ()
    rest_due: tuple[float, float] | None = None
    cloth_since_s: float | None = None


def due_at_box(box: BoxState, now_s: float) -> tuple[Due, ...]:
    """The reasons to open a box at `now_s`, most pressing kind first; empty when it stays shut."""
    reasons = [
        *_dents(box, now_s),
        *_water(box, now_s),
        *_watched(box, now_s),
        *_candling(box, now_s),
        *_air(box, now_s),
        *_cloth(box, now_s),
        *_last_days(box, now_s),
        *_rhythm(box, now_s),
    ]
    order = list(DueKind)
    return tuple(sorted(reasons, key=lambda d: (-d.urgency.rank, order.index(d.kind))))


def next_due(box: BoxState, now_s: float, ahead_days: int) -> tuple[float, tuple[Due, ...]] | None:
    """The first day on which there is a reason to open the box, if nothing is done until then.

    Returns its moment (s; now, or whole days from now) with the reasons of that
    day, None when the box stays shut for `ahead_days`. What the eggs will show
    by then nobody knows: the reasons are those that time alone brings.
    """
    for day in range(ahead_days + 1):
        at_s = now_s + day * SECONDS_PER_DAY
        if reasons := due_at_box(box, at_s):
            return at_s, reasons
    return None


def _dents(box: BoxState, now_s: float) -> Iterator[Due]:
    scope, urgency, eggs = box.dents
    if scope is Scope.BOX and (given := _other_water(box)) is not None:
        # Given water since they were seen: what is left is to see whether they answered.
        given_s, how = given
        due_s = given_s + ANSWER_LOOK_DAYS * SECONDS_PER_DAY
        if due_s <= now_s:
            words = (
                f"{how} {whole_days(now_s - given_s)} days ago: look whether the eggs rounded out."
            )
            yield Due(DueKind.DENTS, due_s, Urgency.WATCH, words, eggs)
        return
    if scope is Scope.BOX or urgency.rank >= Urgency.TODAY.rank:
        yield Due(DueKind.DENTS, box.last_visit_s, urgency, box.dents_words, eggs)
    elif box.look_now:
        words = f"Candle {which_eggs(box.look_now)}: dented early, and not by a dry box."
        yield Due(DueKind.DENTS, box.looked_s, Urgency.TODAY, words, box.look_now)


def _other_water(box: BoxState) -> tuple[float, str] | None:
    """When and how dented eggs came to other water, if that was after they were last looked at."""
    watered_s = box.watered_s
    if watered_s is not None and watered_s >= box.looked_s:
        return watered_s, "Watered"
    # What dried them is the box they came from.
    return None if box.moved_in_s is None else (box.moved_in_s, "Put here dented")


def _dents_ask_for_water(box: BoxState) -> bool:
    """Whether the box is to be watered today for its dents: half of its water is no news then."""
    return box.dents[0] is Scope.BOX and _other_water(box) is None


def _water(box: BoxState, now_s: float) -> Iterator[Due]:
    if box.rest_due is not None:
        due_s, grams = box.rest_due
        words = f"The rest of its water: add {grams:g} ml, warmed, along the side."
        yield Due(DueKind.WATER, due_s, Urgency.TODAY, words)
        return
    left = "" if box.water_share is None else f" About {100 * box.water_share:.0f} % is left."
    if box.water_dry_s is not None and box.water_dry_s <= now_s:
        yield Due(DueKind.WATER, box.water_dry_s, Urgency.TODAY, f"Likely dry: top up.{left}")
    elif box.water_soon_s is not None and not _dents_ask_for_water(box):
        due_s = box.water_soon_s - TOP_UP_AHEAD_DAYS * SECONDS_PER_DAY
        if due_s <= now_s:
            gone = "is" if box.water_soon_s <= now_s else "will soon be"
            yield Due(DueKind.WATER, due_s, Urgency.WATCH, f"Half of its water {gone} gone.{left}")


def _cloth(box: BoxState, now_s: float) -> Iterator[Due]:
    if box.cloth_since_s is None:
        return
    due_s, late_s = (box.cloth_since_s + days * SECONDS_PER_DAY for days in CLOTH_DAYS)
    if due_s <= now_s:
        lain = whole_days(now_s - box.cloth_since_s)
        lasted = "a day" if lain == 1 else f"{lain} days"
        words = f"Take the damp cloth off: it has lain on the eggs for {lasted}."
        urgency = Urgency.TODAY if late_s <= now_s else Urgency.WATCH
        yield Due(DueKind.CLOTH, due_s, urgency, words)


def _watched(box: BoxState, now_s: float) -> Iterator[Due]:
    due = [
        (number, seen_s + box.watch_every_days * SECONDS_PER_DAY)
        for number, seen_s in box.watched
        if seen_s + box.watch_every_days * SECONDS_PER_DAY <= now_s
    ]
    if due:
        numbers = tuple(n for n, _ in due)
        yield Due(
            DueKind.WATCH,
            min(s for _, s in due),
            Urgency.WATCH,
            f"Look at {which_eggs(numbers)} again, with the torch.",
            numbers,
        )


def _candling(box: BoxState, now_s: float) -> Iterator[Due]:
    again = tuple(n for n, from_s in box.candle_again if from_s <= now_s)
    if again:
        since_s = min(from_s for _, from_s in box.candle_again)
        yield Due(
            DueKind.CANDLE,
            since_s,
            Urgency.WATCH,
            candle_again_words(again),
            again,
        )
    if box.visits is Visits.SET_AND_FORGET:
        return
    if box.mid_term_s is not None and box.development < MID_TERM[1]:
        done_since_s = box.mid_term_s - CANDLED_BEFORE_DAYS * SECONDS_PER_DAY
        yield from _all_candled(box, done_since_s, box.mid_term_s, "Mid-term")
    if box.first_pip_s is not None:
        start_s = box.first_pip_s - LAST_WEEK_DAYS * SECONDS_PER_DAY
        if start_s <= now_s:
            yield from _all_candled(box, start_s, start_s, "Last week")


def _all_candled(box: BoxState, done_since_s: float, since_s: float, when: str) -> Iterator[Due]:
    left = tuple(n for n, seen_s in box.candled_s if seen_s is None or seen_s < done_since_s)
    if left and len(left) == len(box.candled_s):
        yield Due(DueKind.CANDLE, since_s, Urgency.NONE, f"{when}: candle the eggs once.", left)
    elif left:
        words = f"{when}: candle {which_eggs(left)} too."
        yield Due(DueKind.CANDLE, since_s, Urgency.NONE, words, left)


def _air(box: BoxState, now_s: float) -> Iterator[Due]:
    if box.oxygen is None:
        return
    share, advise = box.oxygen
    # Said only when it is needed: what may be less is on the box's own page.
    if advise:
        words = f"Air it: oxygen likely about {100 * share:.0f} %, by a rough estimate."
        yield Due(DueKind.AIR, now_s, Urgency.TODAY, words)


def _last_days(box: BoxState, now_s: float) -> Iterator[Due]:
    if box.first_pip_s is None or box.last_days_done:
        return
    start_s = box.first_pip_s - LAST_WEEK_DAYS * SECONDS_PER_DAY
    if start_s > now_s:
        return
    if box.last_days is LastDays.MOVE:
        words = "Last week: get a fresh box with damp warm paper ready; move full-term eggs to it."
        yield Due(DueKind.LAST_DAYS, start_s, Urgency.WATCH, words)
    elif box.on_grid:
        words = "Last week: hatchlings catch on the grid's edges; take it out if you mean to."
        yield Due(DueKind.LAST_DAYS, start_s, Urgency.NONE, words)


def _rhythm(box: BoxState, now_s: float) -> Iterator[Due]:
    every = VISIT_EVERY_DAYS[box.visits]
    if every is None:
        return
    due_s = box.last_visit_s + every * SECONDS_PER_DAY
    if due_s <= now_s:
        days = whole_days(now_s - box.last_visit_s)
        yield Due(
            DueKind.RHYTHM,
            due_s,
            Urgency.NONE,
            f"Last opened {days} days ago; its method is {box.visits}.",
        )


def candle_again_words(eggs: Sequence[int | str]) -> str:
    """What is asked for on day 5-7 of eggs whose vessels were weak or unsure at lay."""
    return f"Candle {which_eggs(eggs)} again (day 5-7): unsure at the last look."


def which_eggs(numbers: Sequence[int | str]) -> str:
    """ "egg 3", "eggs 1, 2, 5"."""
    return f"egg {numbers[0]}" if len(numbers) == 1 else f"eggs {', '.join(map(str, numbers))}"
