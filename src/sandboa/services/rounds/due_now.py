"""What is due today, box by box, in the order that keeps the doors shut: by cabinet and shelf."""

from dataclasses import dataclass
from typing import Final

from sandboa.core.box import BoxKind
from sandboa.core.dimples import BoxDents, Scope, Urgency
from sandboa.core.dimples.dry_box import BoxFound, dry_box_advice
from sandboa.core.messages import Words
from sandboa.core.methods import LastDays, Visits
from sandboa.core.rounds import BoxActKind, BoxState, Due, DueKind, due_at_box
from sandboa.core.rounds.due import ANSWER_LOOK_DAYS, LAST_WEEK_DAYS, MID_TERM, next_due
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.top_up import rest_of_split
from sandboa.services.clutches.box_view import BoxNow
from sandboa.services.clutches.clutch_view import ClutchNow, boxes_standing, clutch_at, told_box
from sandboa.services.moment.as_of import AsOf, at_hand
from sandboa.services.snapshot.snapshot import Snapshot

#: Days ahead in which a next visit is sought (assumption: the longest rhythm and a week).
AHEAD_DAYS: Final = 21

KIND_WORDS: Final = {
    DueKind.DENTS: "dents",
    DueKind.WATER: "water",
    DueKind.WATCH: "eggs on watch",
    DueKind.CANDLE: "candling",
    DueKind.AIR: "airing",
    DueKind.CLOTH: "the damp cloth",
    DueKind.LAST_DAYS: "last-week preparations",
    DueKind.RHYTHM: "the usual visit",
}


@dataclass(frozen=True)
class BoxDue:
    """A box with the reasons to open it today, and those put off with until when (s).

    `clutches` are those whose eggs lie in it, that of most of them first.
    """

    box: BoxNow
    clutches: tuple[ClutchNow, ...]
    due: tuple[Due, ...]
    postponed: tuple[tuple[Due, float], ...]

    @property
    def urgency(self) -> Urgency:
        """Of the most pressing reason."""
        return max((d.urgency for d in self.due), key=lambda u: u.rank, default=Urgency.NONE)


def boxes_of_round(snapshot: Snapshot, as_of_s: float) -> tuple[BoxDue, ...]:
    """Every box with live eggs in it, due or not, by cabinet, shelf and name."""
    at = at_hand(snapshot, as_of_s)
    return tuple(box_due(at, box) for box in boxes_standing(at) if box.water and box.live_eggs)


def box_due(at: AsOf, box: BoxNow) -> BoxDue:
    """The reasons to open one box now."""
    own = box.box.entity_id
    return at.of_box(own).once(("due", own), lambda: _box_due(at, told_box(at, box)))


def _box_due(at: AsOf, box: BoxNow) -> BoxDue:
    until = {
        DueKind(p.kind): float(p.until_s)
        for p in at.snapshot.box(box.box.entity_id).postponements
        if p.at_s <= at.at_s < p.until_s
    }
    clutches = tuple(clutch_at(at, clutch) for clutch in box.clutches)
    reasons = due_at_box(_state(at, box, clutches), at.at_s) if box.water and box.eggs else ()
    return BoxDue(
        box,
        clutches,
        tuple(due for due in reasons if due.kind not in until),
        tuple((due, until[due.kind]) for due in reasons if due.kind in until),
    )


def next_visit(at: AsOf, box: BoxNow) -> tuple[float, str] | None:
    """When the box is next to be opened (s) and what for, in words; None for no reason in sight.

    Reasons that are put off count from the day they come back.
    """
    own = box.box.entity_id
    return at.of_box(own).once(("next visit", own), lambda: _next_visit(at, told_box(at, box)))


def _next_visit(at: AsOf, box: BoxNow) -> tuple[float, str] | None:
    if box.water is None or not box.live_eggs:
        return None
    until = {
        DueKind(p.kind): float(p.until_s) for p in at.snapshot.box(box.box.entity_id).postponements
    }
    state = _state(at, box, tuple(clutch_at(at, clutch) for clutch in box.clutches))
    at_s = at.at_s
    while found := next_due(state, at_s, AHEAD_DAYS):
        at_s, reasons = found
        kinds = [due.kind for due in reasons if until.get(due.kind, 0.0) <= at_s]
        if kinds:
            return at_s, ", ".join(dict.fromkeys(KIND_WORDS[kind] for kind in kinds))
        # All of that day's reasons are put off: the day after it, then.
        at_s += SECONDS_PER_DAY
    return None


def last_visit_s(snapshot: Snapshot, box: BoxNow, as_of_s: float) -> float:
    """When the box was last visited; setting it up, or laying into it, stands for the first."""
    visits = [v.closed_s for v in snapshot.box(box.box.entity_id).visits if v.closed_s <= as_of_s]
    begun = [c.laid_s for c in box.clutches if box.box.from_s <= c.laid_s <= as_of_s]
    return float(max([box.box.from_s, *begun, *visits]))


def _state(at: AsOf, box: BoxNow, clutches: tuple[ClutchNow, ...]) -> BoxState:
    """The box as the rules read it, by the method of the clutch with most eggs in it."""
    snapshot, as_of_s = at.snapshot, at.at_s
    main = clutches[0]
    own = snapshot.clutch(main.clutch.entity_id).method
    laid_s = {now.clutch.entity_id: float(now.clutch.laid_s) for now in clutches}
    live = [egg for egg in box.eggs if egg.live and egg.pipped_s is None]
    left = box.water.left if box.water else None
    pips = [
        now.forecast.first_pip
        for now in clutches
        if now.forecast and not now.forecast.overdue and now.forecast.first_pip
    ]
    pip_s = min((pip.p50 for pip in pips), default=None)
    pipped = any(now.forecast and now.forecast.pipped for now in clutches)
    stage = box.stage
    mid_s = stage.curve.time_of(MID_TERM[0] * stage.at_pip) if stage else None
    judged = box.judged.box
    dented = judged.early_eggs or tuple(
        egg.name for egg in live if egg.urgency in (Urgency.TODAY, Urgency.URGENT)
    )
    pours = [w.poured_s for w in snapshot.box(box.box.entity_id).waterings if w.poured_s <= as_of_s]
    air = box.water.air if box.water else None
    return BoxState(
        laid_s=laid_s[main.clutch.entity_id],
        last_visit_s=last_visit_s(snapshot, box, as_of_s),
        visits=Visits(own.visits) if own else Visits.EVERY_7_DAYS,
        last_days=_last_days(box, own.last_days if own else None),
        on_grid=box.on_grid,
        development=stage.share if stage else 0.0,
        dents=(judged.scope, judged.urgency, dented if judged.scope is not Scope.NONE else ()),
        dents_words=dents_words(box),
        live_eggs=judged.live_eggs,
        watched=tuple(
            (egg.name, egg.looked_s or laid_s[egg.clutch_id])
            for egg in live
            if egg.settles is not None
        ),
        candle_again=tuple(
            (egg.name, egg.torchlight.again_from_s)
            for egg in live
            if egg.torchlight.again_from_s is not None
        ),
        candled_s=tuple((egg.name, egg.torchlight.seen_s) for egg in live),
        water_soon_s=left.top_up_soon.middle_s if left else None,
        water_dry_s=left.dry.middle_s if left else None,
        water_share=left.share if left else None,
        oxygen=(air.share, air.advise_airing) if air else None,
        first_pip_s=None if pipped else pip_s,
        mid_term_s=mid_s if mid_s is not None and mid_s <= as_of_s else None,
        watered_s=float(max(pours)) if pours else None,
        looked_s=max((egg.looked_s or 0.0 for egg in live), default=0.0),
        moved_in_s=box.judged.came_dented_s,
        last_days_done=pip_s is not None
        and _last_days_done(snapshot, box, pip_s - LAST_WEEK_DAYS * SECONDS_PER_DAY),
        watch_every_days=snapshot.settings.rules.watch_every_days,
        look_now=tuple(
            egg.name
            for egg in live
            if egg.settles is not None
            and egg.settles.from_s <= as_of_s
            and egg.scope == Scope.EGG
            and (egg.looked_s or 0.0) > (egg.torchlight.seen_s or 0.0)
            and egg.came_s is None
        ),
        rest_due=_rest_of_water(box, as_of_s),
        cloth_since_s=cloth_since_s(snapshot, box.box.entity_id, as_of_s),
    )


def cloth_since_s(snapshot: Snapshot, box: int, as_of_s: float) -> float | None:
    """Since when a damp cloth lies on the eggs of a box (s); None for none."""
    cloths = [
        done
        for done in snapshot.box(box).done
        if done.at_s <= as_of_s and done.kind in (BoxActKind.DAMP_CLOTH, BoxActKind.CLOTH_OFF)
    ]
    if not cloths or cloths[-1].kind == BoxActKind.CLOTH_OFF:
        return None
    return float(cloths[-1].at_s)


def _last_days(box: BoxNow, school: str | None) -> LastDays:
    """What the method does in the last days; eggs in a hatching box were moved already."""
    if school is None or box.kind is BoxKind.HATCHING:
        return LastDays.LEAVE
    return LastDays(school)


def _rest_of_water(box: BoxNow, as_of_s: float) -> tuple[float, float] | None:
    """When the second half of a top-up that was too much at once is due (s), and its grams."""
    water = box.water
    if water is None or water.left is None or water.poured is None:
        return None
    lost_g = water.left.loss_g_day * (as_of_s - water.poured[0]) / SECONDS_PER_DAY
    return rest_of_split(water.poured, water.add, water.full_g, lost_g, as_of_s, water.left.rules)


def dents_words(box: BoxNow) -> Words:
    """What the early dents in a box mean and ask for: of the box, else of its worst egg."""
    judged, water = box.judged.box, box.water
    if judged.scope is Scope.BOX and box.judged.came_dented_s is not None:
        return (
            f"{len(judged.early_eggs)} of {judged.live_eggs} eggs came here dented: "
            f"look after {ANSWER_LOOK_DAYS:g} days whether they rounded out."
        )
    if judged.scope is Scope.BOX:
        return dry_box_advice(
            BoxDents(judged.live_eggs, len(judged.early_eggs)),
            water.left if water else None,
            water.add if water else None,
            BoxFound(box.box_c, bool(box.judged.no_answer), water.felt if water else None),
            box.rules.dents,
        )
    worst = max(
        (egg for egg in box.eggs if egg.urgency and egg.advice),
        key=lambda egg: Urgency(egg.urgency or Urgency.NONE).rank,
        default=None,
    )
    return f"Egg {worst.name}: {worst.advice}" if worst else ""


def _last_days_done(snapshot: Snapshot, box: BoxNow, from_s: float) -> bool:
    """Whether what the method asks for in the last week was done in it."""
    held = snapshot.box(box.box.entity_id)
    if any(a.kind == BoxActKind.MOVED_TO_PAPER and a.at_s >= from_s for a in held.done):
        return True
    return any(s.at_s >= from_s for s in held.set_ups)
