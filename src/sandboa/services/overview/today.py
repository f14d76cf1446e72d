"""Today: every clutch by cabinet and shelf, and what needs the keeper, with its reason."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from sandboa.core.development.none_alive import late_words
from sandboa.core.development.sources import LOGGER_GAP_S
from sandboa.core.dimples import Scope, Urgency
from sandboa.core.messages import Message, Temperature, Words
from sandboa.core.rounds.due import candle_again_words, which_eggs
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.core.water.rain import rain_advice
from sandboa.records import readings
from sandboa.services.clutches.clutch_view import ClutchNow, clutches_standing
from sandboa.services.clutches.issued_forecasts import lessons
from sandboa.services.rounds.due_now import BoxDue, box_due, dents_words
from sandboa.services.snapshot.snapshot import Snapshot

#: days ahead in which a first pip is announced (product requirement: "last week").
PIP_SOON_DAYS: Final = 7.0
#: days for which a cold spell stays news (assumption).
COLD_NEWS_DAYS: Final = 10.0
#: days of delay below which a cold spell is not worth a line (assumption).
COLD_NEWS_DELAY: Final = 0.25


@dataclass(frozen=True, slots=True)
class Attention:
    """One thing to know or do, and why. `eggs` are the numbers it is about.

    `at_box` when it is a reason to open the box: then the list of what is due has it too;
    `at_hatch` when Hatch watch has more of it.
    """

    urgency: Urgency
    text: Words
    eggs: tuple[int, ...] = ()
    at_box: bool = False
    at_hatch: bool = False


@dataclass(frozen=True, slots=True)
class TodayClutch:
    """A clutch with what needs the keeper; `box` is None where the dam keeps her eggs."""

    now: ClutchNow
    attention: tuple[Attention, ...]
    box: BoxDue | None = None

    @property
    def urgency(self) -> Urgency:
        return max((a.urgency for a in self.attention), key=lambda u: u.rank, default=Urgency.NONE)


@dataclass(frozen=True, slots=True)
class SilentProbe:
    name: str
    last_s: float | None


@dataclass(frozen=True, slots=True)
class Today:
    """The clutches ordered by cabinet, shelf and code, and the probes that fell silent."""

    as_of_s: float
    clutches: tuple[TodayClutch, ...]
    silent: tuple[SilentProbe, ...]


def today(snapshot: Snapshot, as_of_s: float) -> Today:
    """What to know and do at `as_of_s`."""
    known = lessons(snapshot)
    standing = clutches_standing(snapshot, as_of_s, known)
    return Today(
        as_of_s,
        tuple(
            TodayClutch(
                now,
                tuple(attention(now, as_of_s)),
                box_due(snapshot, now, as_of_s) if now.water else None,
            )
            for now in standing
        ),
        tuple(_silent(snapshot, as_of_s)),
    )


def attention(now: ClutchNow, as_of_s: float) -> Iterator[Attention]:
    """What needs the keeper at this clutch, with the reason; what to do first comes first."""
    yield from _dents(now)
    yield from _candling(now, as_of_s)
    forecast = now.forecast
    if forecast is None:
        if now.finished_s is None:
            what = "No egg is left in it" if now.count.fertile else "Slugs only"
            yield Attention(Urgency.NONE, f"{what}: nothing will pip here.")
        return
    if forecast.pipped:
        yield Attention(Urgency.WATCH, _pips_words(now, as_of_s), at_hatch=True)
        return
    late = late_words(forecast.none_alive)
    if late is not None:
        yield Attention(Urgency.TODAY if forecast.overdue else Urgency.WATCH, late, at_hatch=True)
    if forecast.overdue:
        pass
    elif forecast.first_pip is None:
        yield Attention(Urgency.TODAY, "Too cold to develop: at this temperature they never pip.")
    elif forecast.first_pip.p10 - as_of_s <= PIP_SOON_DAYS * SECONDS_PER_DAY:
        days = max(0.0, (forecast.first_pip.p50 - as_of_s) / SECONDS_PER_DAY)
        words = f"First pip likely in {_days(days)}: look daily."
        yield Attention(Urgency.WATCH, words, at_hatch=True)
    rains = rain_advice(now.lid, forecast.fraction)
    if rains:
        yield Attention(Urgency.WATCH, rains)
    for spell in now.cold_spells:
        recent = as_of_s - spell.end_s <= COLD_NEWS_DAYS * SECONDS_PER_DAY
        if recent and spell.delay_days >= COLD_NEWS_DELAY:
            yield Attention(
                Urgency.WATCH,
                Message(
                    "Ran cold, down to {lowest}: pips about {days} later.",
                    lowest=Temperature(spell.lowest_c),
                    days=_days(spell.delay_days),
                ),
            )


def _pips_words(now: ClutchNow, as_of_s: float) -> str:
    """How many have pipped, and who is still closed how long after the first."""
    forecast = now.forecast
    if forecast is None or forecast.first_pipped_s is None:
        return "None has pipped yet."
    closed = tuple(e.number for e in now.eggs.eggs if e.live and e.pipped_s is None)
    if not closed:
        return "Every egg has pipped."
    hours = (as_of_s - forecast.first_pipped_s) / SECONDS_PER_HOUR
    still = "is" if len(closed) == 1 else "are"
    return (
        f"{forecast.pipped} of {now.live_eggs} pipped: {which_eggs(closed)} {still} closed "
        f"{hours:.0f} h after the first pip. Look in often."
    )


def _dents(now: ClutchNow) -> Iterator[Attention]:
    box = now.eggs.box
    if box.scope is Scope.BOX:
        yield Attention(box.urgency, dents_words(now), box.early_eggs, at_box=True)
        return
    for egg in now.eggs.eggs:
        if egg.scope == Scope.EGG and egg.advice and egg.urgency:
            words = f"Egg {egg.number}: {egg.advice}"
            yield Attention(Urgency(egg.urgency), words, (egg.number,), at_box=True)
    if now.eggs.answered_water:
        numbers = now.eggs.answered_water
        it = "it" if len(numbers) == 1 else "they"
        words = f"After watering, {which_eggs(numbers)} rounded out: {it} had been short of water."
        yield Attention(Urgency.NONE, words, numbers)


def _candling(now: ClutchNow, as_of_s: float) -> Iterator[Attention]:
    """Eggs whose vessels were weak or unsure at lay are looked at again on day 5-7."""
    due = tuple(
        egg.number
        for egg in now.eggs.eggs
        if egg.torchlight.again_from_s is not None and as_of_s >= egg.torchlight.again_from_s
    )
    if due and not now.maternal:
        yield Attention(
            Urgency.WATCH,
            candle_again_words(due),
            due,
            at_box=True,
        )


def _silent(snapshot: Snapshot, as_of_s: float) -> Iterator[SilentProbe]:
    tips = readings.tips()
    for probe in snapshot.probes.values():
        if probe.by_hand or snapshot.probe(probe.entity_id).locations.last is None:
            continue
        tip = tips.get(probe.entity_id)
        last_s = tip.last_s if tip else None
        if last_s is None or as_of_s - last_s > LOGGER_GAP_S:
            yield SilentProbe(probe.name, last_s)


def _days(days: float) -> str:
    if days < 1.0:
        hours = max(1, round(days * 24))
        return f"{hours} hour" if hours == 1 else f"{hours} hours"
    return f"{days:.0f} days" if days >= 1.95 else f"{days:.1f} days"
