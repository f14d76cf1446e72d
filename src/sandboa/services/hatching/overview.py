"""Hatch watch: who has pipped, who is out, who is closed and since when, and what to do."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.development import Window
from sandboa.core.hatching import EggAtHatch, Fate, HatchAdvice, advise
from sandboa.core.hatching.fates import EggRecord, fitting_fates, following_fate
from sandboa.core.hatching.hatchlings import still_to_come
from sandboa.core.hatching.last_week import LastWeekLine, LastWeekTask, last_week
from sandboa.core.methods import CuttingSchool, Method
from sandboa.core.rounds.due import LAST_WEEK_DAYS
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch
from sandboa.services.clutches.clutch_view import ClutchNow, clutch_at
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.clutches.methods import method_of, was_chosen
from sandboa.services.hatching.hatchling_views import HatchlingView, hatchlings_of_eggs
from sandboa.services.moment.as_of import AsOf, at_hand
from sandboa.services.snapshot.snapshot import Snapshot

#: days after it came out from which a hatchling is not followed here any more (assumption).
FOLLOWED_DAYS: Final = 90.0


@dataclass(frozen=True)
class HatchingEgg:
    """An egg (slugs too) at hatch. `fate` is declared or follows from the record, `fitting_fates`
    are those the record does not rule out. `emergence` is still to come, of an egg that pipped."""

    view: EggView
    advice: HatchAdvice | None
    emergence: Window | None
    fate: Fate | None
    stage: str | None
    declared: bool
    fitting_fates: tuple[Fate, ...]
    hatchlings: tuple[HatchlingView, ...]


@dataclass(frozen=True)
class HatchingClutch:
    """A clutch at hatch; `closed` are the eggs still waited for, `to_say` those without a fate."""

    now: ClutchNow
    school: CuttingSchool
    eggs: tuple[HatchingEgg, ...]
    preparations: tuple[tuple[LastWeekLine, float | None], ...]

    @property
    def closed(self) -> tuple[int, ...]:
        return tuple(e.view.number for e in self.eggs if e.view.live and e.view.pipped_s is None)

    @property
    def to_say(self) -> tuple[int, ...]:
        return tuple(e.view.number for e in self.eggs if e.fate is None)


def hatch_overview(snapshot: Snapshot, as_of_s: float) -> tuple[HatchingClutch, ...]:
    """Clutches in their last week, pipping, or with hatchlings that are not settled yet."""
    at = at_hand(snapshot, as_of_s)
    may_be = [
        clutch
        for clutch in snapshot.clutches
        if clutch.laid_s <= as_of_s and _may_be_hatching(snapshot, clutch, as_of_s)
    ]
    hatched: dict[int, list[HatchlingView]] = {clutch.entity_id: [] for clutch in may_be}
    rows = [(c, egg) for c in may_be for egg in snapshot.eggs.get(c.entity_id, [])]
    for hatchling in hatchlings_of_eggs(snapshot, rows, as_of_s):
        hatched[hatchling.clutch.entity_id].append(hatchling)
    standing = (_standing(at, clutch, tuple(hatched[clutch.entity_id])) for clutch in may_be)
    return tuple(sorted((one for one in standing if _belongs(one, as_of_s)), key=_order))


def hatching_clutch(snapshot: Snapshot, code: str, as_of_s: float) -> HatchingClutch:
    """One clutch at hatch, whatever its stage; NotFound for an unknown code."""
    clutch = snapshot.clutch_called(code)
    rows = [(clutch, egg) for egg in snapshot.eggs[clutch.entity_id]]
    hatchlings = tuple(hatchlings_of_eggs(snapshot, rows, as_of_s))
    return _standing(at_hand(snapshot, as_of_s), clutch, hatchlings)


def _standing(at: AsOf, clutch: Clutch, hatchlings: tuple[HatchlingView, ...]) -> HatchingClutch:
    """What is recorded of hatchlings is no part of what a clutch is judged by."""
    own = clutch.entity_id
    return at.of_clutch(own).held(
        ("hatching", own),
        hatchlings,
        lambda: _hatching(at.snapshot, clutch_at(at, clutch), hatchlings, at.at_s),
    )


def egg_record(view: EggView) -> EggRecord:
    """An egg's end as the fates of the core read it."""
    return EggRecord(
        view.number,
        view.slug,
        pipped_s=view.pipped_s,
        emerged_s=view.emerged_s,
        removed_s=view.removed_s,
    )


def _may_be_hatching(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> bool:
    """Quick, before anything is worked out: under way, or with hatchlings of late."""
    if snapshot.under_way(clutch, as_of_s):
        return True
    out = [
        emergence.seen_s
        for egg in snapshot.eggs.get(clutch.entity_id, [])
        if (emergence := snapshot.egg(egg.entity_id).emergence) is not None
    ]
    return bool(out) and as_of_s - max(out) <= FOLLOWED_DAYS * SECONDS_PER_DAY


def _belongs(standing: HatchingClutch, as_of_s: float) -> bool:
    now = standing.now
    if any(e.view.emerged_s is not None for e in standing.eggs):
        hatchlings = [h for e in standing.eggs for h in e.hatchlings]
        unsettled = any(h.here and not h.settled for h in hatchlings)
        return now.finished_s is None or unsettled
    if now.finished_s is not None:
        return False
    if any(e.view.pipped_s is not None for e in standing.eggs):
        return True
    forecast = now.forecast
    if forecast is None:
        return False
    soon = forecast.first_pip
    ahead_s = LAST_WEEK_DAYS * SECONDS_PER_DAY
    return forecast.overdue or (soon is not None and soon.p10 - as_of_s <= ahead_s)


def _order(standing: HatchingClutch) -> tuple[int, float]:
    """Those with eggs to wait for first, the furthest along first."""
    waiting = standing.now.finished_s is None and bool(standing.closed or standing.to_say)
    return (0 if waiting else 1, -standing.now.fraction)


def _hatching(
    snapshot: Snapshot, now: ClutchNow, hatchlings: tuple[HatchlingView, ...], as_of_s: float
) -> HatchingClutch:
    own = snapshot.clutch(now.clutch.entity_id).method
    method = method_of(own) if own else Method("")
    views = now.eggs
    chosen = own is not None and was_chosen(own)
    advices = _advices(now, method, chosen, views, as_of_s)
    eggs = tuple(
        _egg(
            snapshot,
            now,
            view,
            advices.get(view.number),
            tuple(h for h in hatchlings if h.number == view.number),
            as_of_s,
        )
        for view in views
    )
    done = snapshot.ticked(now.clutch.entity_id)
    lines = last_week(
        method.last_days, on_grid=any(box.on_grid for box in now.boxes) or LastWeekTask.GRID in done
    )
    return HatchingClutch(
        now, method.cutting, eggs, tuple((line, done.get(line.task.value)) for line in lines)
    )


def _advices(
    now: ClutchNow, method: Method, chosen: bool, views: tuple[EggView, ...], as_of_s: float
) -> dict[int, HatchAdvice]:
    if now.finished_s is not None or now.maternal:
        return {}
    live = tuple(
        EggAtHatch(v.number, v.pipped_s, v.cut_s, v.emerged_s, v.grade) for v in views if v.live
    )
    told = advise(
        live,
        school=method.cutting if chosen else None,
        set_day=method.set_day,
        share=now.fraction,
        laid_s=now.clutch.laid_s,
        now_s=as_of_s,
    )
    return {advice.number: advice for advice in told}


def _egg(
    snapshot: Snapshot,
    now: ClutchNow,
    view: EggView,
    advice: HatchAdvice | None,
    hatchlings: tuple[HatchlingView, ...],
    as_of_s: float,
) -> HatchingEgg:
    entity = next(
        e.entity_id for e in snapshot.eggs[now.clutch.entity_id] if e.number == view.number
    )
    record = egg_record(view)
    declared = snapshot.egg(entity).fate
    emergence = None
    if view.pipped_s is not None and view.emerged_s is None and view.live:
        emergence = still_to_come(
            snapshot.settings.rules.forecast.emergence, view.pipped_s, as_of_s
        )
    return HatchingEgg(
        view,
        advice,
        emergence,
        fate=Fate(declared.fate) if declared else following_fate(record),
        stage=declared.stage if declared else None,
        declared=declared is not None,
        fitting_fates=fitting_fates(record),
        hatchlings=hatchlings,
    )
