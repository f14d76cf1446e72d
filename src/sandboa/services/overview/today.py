"""Today: every box by cabinet and shelf, and what needs the keeper, with its reason."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Final

from sandboa.core.box import BoxKind
from sandboa.core.development.none_alive import late_words
from sandboa.core.development.sources import LOGGER_GAP_S
from sandboa.core.dimples import Scope, Urgency
from sandboa.core.messages import Message, Temperature, Words
from sandboa.core.rounds.due import candle_again_words, which_eggs
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.core.water.rain import rain_advice
from sandboa.records import readings
from sandboa.services.clutches.box_view import BoxNow
from sandboa.services.clutches.clutch_view import ClutchNow, boxes_standing, clutch_at, told_box
from sandboa.services.moment.as_of import AsOf, at_hand
from sandboa.services.probes.calibrated_readings import read_from_files
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
    """One thing to know or do, and why. `eggs` are those it is about, by their names in the box.

    `at_box` when it is a reason to open the box: then the list of what is due has it too;
    `at_hatch` when Hatch watch has more of it.
    """

    urgency: Urgency
    text: Words
    eggs: tuple[str, ...] = ()
    at_box: bool = False
    at_hatch: bool = False


@dataclass(frozen=True, slots=True)
class TodayBox:
    """A box with what needs the keeper; `due` is None where the dam keeps her eggs."""

    box: BoxNow
    clutches: tuple[ClutchNow, ...]
    attention: tuple[Attention, ...]
    due: BoxDue | None = None

    @property
    def urgency(self) -> Urgency:
        return max((a.urgency for a in self.attention), key=lambda u: u.rank, default=Urgency.NONE)


#: s after which a logger's file is asked for (assumption: a week between two visits).
FILE_DUE_S: Final = 7.0 * SECONDS_PER_DAY


@dataclass(frozen=True, slots=True)
class SilentProbe:
    """A probe nothing was heard of; `from_files`: its readings are waited for as files."""

    name: str
    last_s: float | None
    from_files: bool


@dataclass(frozen=True, slots=True)
class Today:
    """The boxes ordered by cabinet, shelf and name, and the probes that fell silent."""

    as_of_s: float
    boxes: tuple[TodayBox, ...]
    silent: tuple[SilentProbe, ...]


def today(snapshot: Snapshot, as_of_s: float) -> Today:
    """What to know and do at `as_of_s`."""
    at = at_hand(snapshot, as_of_s)
    return Today(
        as_of_s,
        tuple(today_box(at, box) for box in boxes_standing(at)),
        tuple(_silent(snapshot, as_of_s)),
    )


def today_box(at: AsOf, box: BoxNow) -> TodayBox:
    """A box with what needs the keeper at it, and at the clutches whose eggs lie in it."""
    own = box.box.entity_id
    return at.of_box(own).once(("today", own), lambda: _today_box(at, told_box(at, box)))


def _today_box(at: AsOf, box: BoxNow) -> TodayBox:
    clutches = tuple(clutch_at(at, clutch) for clutch in box.clutches)
    return TodayBox(
        box,
        clutches,
        (
            *_at_box(box, at.at_s),
            # What is expected of a clutch in several boxes is told once, where most of it lies.
            *(
                told
                for now in clutches
                if now.box.box.entity_id == box.box.entity_id
                for told in _of_clutch(now, at.at_s, of=box)
            ),
            *_lid(box),
        ),
        box_due(at, box) if box.water else None,
    )


def attention(now: ClutchNow, as_of_s: float) -> Iterator[Attention]:
    """What needs the keeper at this clutch, with the reason; what to do first comes first."""
    for box in now.boxes:
        yield from _at_box(box, as_of_s)
    yield from _of_clutch(now, as_of_s)
    for box in now.boxes:
        yield from _lid(box)


def _at_box(box: BoxNow, as_of_s: float) -> Iterator[Attention]:
    yield from _dents(box)
    yield from _candling(box, as_of_s)


def _of_clutch(now: ClutchNow, as_of_s: float, of: BoxNow | None = None) -> Iterator[Attention]:
    """What is expected of a clutch; its code is told where the box `of` is shared."""
    for told in _expected(now, as_of_s):
        if of is not None and of.shared:
            told = replace(
                told, text=Message("{code}: {words}", code=now.clutch.code, words=told.text)
            )
        yield told


def _expected(now: ClutchNow, as_of_s: float) -> Iterator[Attention]:
    forecast = now.forecast
    if now.impossible_pip is not None:
        yield Attention(Urgency.WATCH, now.impossible_pip.words, at_hatch=True)
    if forecast is None:
        if now.finished_s is None:
            what = "No egg is left in it" if now.count.fertile else "Slugs only"
            yield Attention(Urgency.NONE, f"{what}: nothing will pip here.")
        return
    if forecast.pipped:
        yield Attention(Urgency.WATCH, _pips_words(now, as_of_s), at_hatch=True)
        return
    late = late_words(forecast.none_alive, forecast.rules)
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


def _lid(box: BoxNow) -> Iterator[Attention]:
    """A lid that rains, while no egg in the box has pipped."""
    if box.stage is None or not box.live_eggs or any(egg.pipped_s for egg in box.eggs):
        return
    if rains := rain_advice(box.lid, box.stage.share, box.rules.water):
        yield Attention(Urgency.WATCH, rains)


def _pips_words(now: ClutchNow, as_of_s: float) -> str:
    """How many have pipped, and who is still closed how long after the first."""
    forecast = now.forecast
    if forecast is None or forecast.first_pipped_s is None:
        return "None has pipped yet."
    closed = tuple(e.number for e in now.eggs if e.live and e.pipped_s is None)
    if not closed:
        return "Every egg has pipped."
    hours = (as_of_s - forecast.first_pipped_s) / SECONDS_PER_HOUR
    still = "is" if len(closed) == 1 else "are"
    return (
        f"{forecast.pipped} of {now.live_eggs} pipped: {which_eggs(closed)} {still} closed "
        f"{hours:.0f} h after the first pip. Look in often."
    )


def _dents(now: BoxNow) -> Iterator[Attention]:
    box = now.judged.box
    if box.scope is Scope.BOX:
        came = now.judged.came_dented_s is not None
        urgency = Urgency.WATCH if came else box.urgency
        yield Attention(urgency, dents_words(now), box.early_eggs, at_box=True)
        return
    for egg in now.eggs:
        if egg.scope == Scope.EGG and egg.advice and egg.urgency:
            words = f"Egg {egg.name}: {egg.advice}"
            yield Attention(Urgency(egg.urgency), words, (egg.name,), at_box=True)
    if now.judged.answered_water:
        names = now.judged.answered_water
        it = "it" if len(names) == 1 else "they"
        words = f"After watering, {which_eggs(names)} rounded out: {it} had been short of water."
        yield Attention(Urgency.NONE, words, names)


def _candling(now: BoxNow, as_of_s: float) -> Iterator[Attention]:
    """Eggs whose vessels were weak or unsure at lay are looked at again on day 5-7."""
    due = tuple(
        egg.name
        for egg in now.eggs
        if egg.torchlight.again_from_s is not None and as_of_s >= egg.torchlight.again_from_s
    )
    if due and now.kind is not BoxKind.TUB:
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
        from_files = read_from_files(probe)
        patience_s = FILE_DUE_S if from_files else LOGGER_GAP_S
        if last_s is None or as_of_s - last_s > patience_s:
            yield SilentProbe(probe.name, last_s, from_files)


def _days(days: float) -> str:
    if days < 1.0:
        hours = max(1, round(days * 24))
        return f"{hours} hour" if hours == 1 else f"{hours} hours"
    return f"{days:.0f} days" if days >= 1.95 else f"{days:.1f} days"
