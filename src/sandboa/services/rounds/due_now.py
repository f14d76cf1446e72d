"""What is due today, in the order that keeps the doors shut: by cabinet, shelf and box."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.dimples import BoxDents, Scope, Urgency
from sandboa.core.dimples.dry_box import dry_box_advice
from sandboa.core.messages import Words
from sandboa.core.methods import LastDays, Visits
from sandboa.core.rounds import BoxActKind, BoxState, Due, DueKind, due_at_box
from sandboa.core.rounds.due import LAST_WEEK_DAYS, MID_TERM, next_due
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.top_up import rest_of_split
from sandboa.services.clutches.clutch_view import ClutchNow, clutches_standing
from sandboa.services.clutches.issued_forecasts import Lessons
from sandboa.services.snapshot.snapshot import Snapshot

#: Days ahead in which a next visit is sought (assumption: the longest rhythm and a week).
AHEAD_DAYS: Final = 21

KIND_WORDS: Final = {
    DueKind.DENTS: "dents",
    DueKind.WATER: "water",
    DueKind.WATCH: "eggs on watch",
    DueKind.CANDLE: "candling",
    DueKind.AIR: "airing",
    DueKind.LAST_DAYS: "last-week preparations",
    DueKind.RHYTHM: "the usual visit",
}


@dataclass(frozen=True)
class BoxDue:
    """A box with the reasons to open it today, and those put off with until when (s)."""

    now: ClutchNow
    due: tuple[Due, ...]
    postponed: tuple[tuple[Due, float], ...]

    @property
    def urgency(self) -> Urgency:
        """Of the most pressing reason."""
        return max((d.urgency for d in self.due), key=lambda u: u.rank, default=Urgency.NONE)


def boxes_of_round(snapshot: Snapshot, known: Lessons, as_of_s: float) -> tuple[BoxDue, ...]:
    """Every box with live eggs in it, due or not, by cabinet, shelf and code."""
    standing = clutches_standing(snapshot, as_of_s, known)
    return tuple(box_due(snapshot, now, as_of_s) for now in standing if now.water and now.live_eggs)


def box_due(snapshot: Snapshot, now: ClutchNow, as_of_s: float) -> BoxDue:
    """The reasons to open one box at `as_of_s`."""
    until = {
        DueKind(p.kind): float(p.until_s)
        for p in snapshot.clutch(now.clutch.entity_id).postponements
        if p.at_s <= as_of_s < p.until_s
    }
    reasons = due_at_box(_state(snapshot, now, as_of_s), as_of_s) if now.water else ()
    return BoxDue(
        now,
        tuple(due for due in reasons if due.kind not in until),
        tuple((due, until[due.kind]) for due in reasons if due.kind in until),
    )


def next_visit(snapshot: Snapshot, now: ClutchNow, as_of_s: float) -> tuple[float, str] | None:
    """When the box is next to be opened (s) and what for, in words; None for no reason in sight.

    Reasons that are put off count from the day they come back.
    """
    if now.water is None or not now.live_eggs:
        return None
    until = {
        DueKind(p.kind): float(p.until_s)
        for p in snapshot.clutch(now.clutch.entity_id).postponements
    }
    state = _state(snapshot, now, as_of_s)
    at_s = as_of_s
    while found := next_due(state, at_s, AHEAD_DAYS):
        at_s, reasons = found
        kinds = [due.kind for due in reasons if until.get(due.kind, 0.0) <= at_s]
        if kinds:
            return at_s, ", ".join(dict.fromkeys(KIND_WORDS[kind] for kind in kinds))
        # All of that day's reasons are put off: the day after it, then.
        at_s += SECONDS_PER_DAY
    return None


def last_visit_s(snapshot: Snapshot, now: ClutchNow, as_of_s: float) -> float:
    """When the box was last visited; lay day stands for the first visit."""
    visits = [
        v.closed_s for v in snapshot.clutch(now.clutch.entity_id).visits if v.closed_s <= as_of_s
    ]
    return float(max([now.clutch.laid_s, *visits]))


def _state(snapshot: Snapshot, now: ClutchNow, as_of_s: float) -> BoxState:
    own = snapshot.clutch(now.clutch.entity_id).method
    live = [egg for egg in now.eggs.eggs if egg.live and egg.pipped_s is None]
    water = now.water
    left = water.left if water else None
    forecast = now.forecast
    pip = forecast.first_pip if forecast and not forecast.overdue else None
    mid_s = now.curve.time_of(MID_TERM[0] * now.at_pip)
    box = now.eggs.box
    dented = box.early_eggs or tuple(
        egg.number for egg in live if egg.urgency in (Urgency.TODAY, Urgency.URGENT)
    )
    pours = [w.poured_s for w in snapshot.box(now.box.entity_id).waterings if w.poured_s <= as_of_s]
    return BoxState(
        laid_s=now.clutch.laid_s,
        last_visit_s=last_visit_s(snapshot, now, as_of_s),
        visits=Visits(own.visits) if own else Visits.EVERY_7_DAYS,
        last_days=LastDays(own.last_days) if own else LastDays.LEAVE,
        on_grid=now.on_grid,
        development=now.fraction,
        dents=(box.scope, box.urgency, dented if box.scope is not Scope.NONE else ()),
        dents_words=dents_words(now),
        live_eggs=box.live_eggs,
        watched=tuple(
            (egg.number, egg.looked_s or now.clutch.laid_s)
            for egg in live
            if egg.settles is not None
        ),
        candle_again=tuple(
            (egg.number, egg.torchlight.again_from_s)
            for egg in live
            if egg.torchlight.again_from_s is not None
        ),
        candled_s=tuple((egg.number, egg.torchlight.seen_s) for egg in live),
        water_soon_s=left.top_up_soon.middle_s if left else None,
        water_dry_s=left.dry.middle_s if left else None,
        water_share=left.share if left else None,
        oxygen=(water.air.share, water.air.advise_airing) if water and water.air else None,
        first_pip_s=pip.p50 if pip and not (forecast and forecast.pipped) else None,
        mid_term_s=mid_s if mid_s is not None and mid_s <= as_of_s else None,
        watered_s=float(max(pours)) if pours else None,
        looked_s=max((egg.looked_s or 0.0 for egg in live), default=0.0),
        last_days_done=pip is not None
        and _last_days_done(snapshot, now, pip.p50 - LAST_WEEK_DAYS * SECONDS_PER_DAY),
        watch_every_days=snapshot.settings.rules.watch_every_days,
        look_now=tuple(
            egg.number
            for egg in live
            if egg.settles is not None
            and egg.settles.from_s <= as_of_s
            and egg.scope == Scope.EGG
            and (egg.looked_s or 0.0) > (egg.torchlight.seen_s or 0.0)
        ),
        rest_due=_rest_of_water(now, as_of_s),
    )


def _rest_of_water(now: ClutchNow, as_of_s: float) -> tuple[float, float] | None:
    """When the second half of a top-up that was too much at once is due (s), and its grams."""
    water = now.water
    if water is None or water.left is None or water.poured is None:
        return None
    poured_s, poured_g = water.poured
    days = (as_of_s - poured_s) / SECONDS_PER_DAY
    return rest_of_split(
        poured_s, poured_g, water.add, water.full_g, water.left.loss_g_day * days, as_of_s
    )


def dents_words(now: ClutchNow) -> Words:
    """What the early dents of a clutch mean and ask for: of the box, else of its worst egg."""
    box, water = now.eggs.box, now.water
    if box.scope is Scope.BOX:
        return dry_box_advice(
            BoxDents(box.live_eggs, len(box.early_eggs)),
            water.left if water else None,
            water.add if water else None,
            now.curve.temperature.future_c,
            no_answer=bool(now.eggs.no_answer),
            felt=water.felt if water else None,
        )
    worst = max(
        (egg for egg in now.eggs.eggs if egg.urgency and egg.advice),
        key=lambda egg: Urgency(egg.urgency or Urgency.NONE).rank,
        default=None,
    )
    return f"Egg {worst.number}: {worst.advice}" if worst else ""


def _last_days_done(snapshot: Snapshot, now: ClutchNow, from_s: float) -> bool:
    """Whether what the method asks for in the last week was done in it."""
    acts = snapshot.box(now.box.entity_id).done
    if any(a.kind == BoxActKind.MOVED_TO_PAPER and a.at_s >= from_s for a in acts):
        return True
    return any(s.at_s >= from_s for s in snapshot.box(now.box.entity_id).set_ups)
