"""A clutch as it stands: development, forecast, eggs, what the forecast rests on, its log."""

import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.development import (
    ColdSpell,
    DevelopmentCurve,
    EggGroup,
    Forecast,
    Learned,
    SetPoints,
    Stretch,
    cold_spells,
    forecast_clutch,
)
from sandboa.core.development.basis import rests_on
from sandboa.core.development.impossible_pip import ImpossiblePip, impossible_pip
from sandboa.core.development.learned_words import learned_words
from sandboa.core.development.ribbon import RibbonPiece, ribbon
from sandboa.core.messages import Words
from sandboa.core.methods import Difference, Method
from sandboa.core.standing import (
    HatchExpectation,
    after_silence,
    expected_hatch,
    nothing_alive,
    still_hopeful,
)
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.house import Probe
from sandboa.services.acts.log import LogEntry, log_about
from sandboa.services.boxes.climate import probes_of, set_points_of
from sandboa.services.boxes.egg_paths import EggPath, groups_by_path
from sandboa.services.clutches.box_view import BoxNow, box_now, may_hatch
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.clutches.methods import departures, method_of_clutch
from sandboa.services.clutches.origin_words import origin_words
from sandboa.services.moment.as_of import AsOf, at_hand
from sandboa.services.moment.lessons import Lessons
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.services.standings.learned import learned_standing


@dataclass(frozen=True)
class ClutchNow:
    """What every screen needs of one clutch.

    `boxes` are those its eggs lie in, by name, `box` that of most of them; `curve` and
    `set_points` are those of most of the eggs that are waited for. `learned_days` is by how many
    days what the house's clutches taught moves the forecast (negative: earlier). `impossible_pip`
    is a first pip that cannot be by heat, until the keeper says that it is right. `expected` is
    how many of its eggs hatch; None once it is closed.
    """

    clutch: Clutch
    boxes: tuple[BoxNow, ...]
    box: BoxNow
    dam: str
    sire: str | None
    set_points: SetPoints
    count: ClutchCount
    eggs: tuple[EggView, ...]
    live_eggs: int
    curve: DevelopmentCurve
    forecast: Forecast | None
    cold_spells: tuple[ColdSpell, ...]
    maternal: bool
    learned: Learned
    learned_days: float
    impossible_pip: ImpossiblePip | None
    expected: HatchExpectation | None
    finished_s: float | None

    @property
    def as_of_s(self) -> float:
        """The moment it is told of."""
        return self.curve.temperature.as_of_s

    @property
    def day(self) -> int:
        """Whole days since lay."""
        return int((self.as_of_s - self.clutch.laid_s) // SECONDS_PER_DAY)

    @property
    def set_point_c(self) -> float:
        """°C its main box's cabinet is set to now."""
        return self.set_points.at(self.as_of_s)

    @property
    def at_pip(self) -> float:
        """D at which the typical egg of this house pips: 1, as far as nothing was learned."""
        return math.exp(self.learned.prior.mean)

    @property
    def fraction(self) -> float:
        """Share developed, p = D / at_pip."""
        return self.curve.now / self.at_pip


#: The line under which a keeper says that a pip is right that cannot be by heat.
PIP_IS_RIGHT: Final = "first pip and its lay date are right"
#: Acts shown of a clutch at most (assumption: a clutch visited twice a day).
LOG_OF_CLUTCH: Final = 200


@dataclass(frozen=True)
class ClutchPage:
    """The Clutch place: everything of `now`, the ribbon, the gaps in words, probes and the log.

    `differences` are the lines on which `method` departs from `house_method`.
    """

    at: AsOf
    now: ClutchNow
    method: Method
    house_method: str
    differences: tuple[Difference, ...]
    ribbon: tuple[RibbonPiece, ...]
    rests_on: str
    learned_words: tuple[Words, ...]
    origin_words: tuple[Words, ...]
    gaps: tuple[Stretch, ...]
    probes: tuple[Probe, ...]
    log: tuple[LogEntry, ...]


def clutch_now(snapshot: Snapshot, clutch: Clutch, as_of_s: float, known: Lessons) -> ClutchNow:
    """Work out where a clutch stands at `as_of_s`, with what finished clutches taught.

    `forecast` is None when no egg is left that could pip, or when the clutch
    is done. `live_eggs` are neither slugs nor taken out.
    """
    return clutch_at(AsOf(snapshot, known, as_of_s), clutch)


def clutch_at(at: AsOf, clutch: Clutch) -> ClutchNow:
    """As `clutch_now`, among others that are asked for at the same moment."""
    own = clutch.entity_id
    return at.of_clutch(own).once(("clutch", own), lambda: _clutch_at(at, clutch))


def _clutch_at(at: AsOf, clutch: Clutch) -> ClutchNow:
    snapshot, as_of_s, own = at.snapshot, at.at_s, clutch.entity_id
    boxes = tuple(box_now(at, box) for box in snapshot.boxes_of(clutch, as_of_s))
    eggs = snapshot.eggs.get(own, [])
    live = [egg for egg in eggs if may_hatch(snapshot, egg, as_of_s)]
    groups = groups_by_path(snapshot, clutch, live or eggs, as_of_s)
    main = next(iter(groups))
    curve, set_points = at.curve(main), set_points_of(snapshot, main, as_of_s)
    maternal = snapshot.clutch(own).kept_by_dam
    learned = at.learned(clutch)
    finished = snapshot.clutch(own).finished
    views = {egg.entity: egg for box in boxes for egg in box.eggs}
    told = tuple(views[egg.entity_id] for egg in eggs if egg.entity_id in views)
    hatching = [group for path, held in groups.items() for group in _groups(at, path, held)]
    forecast, still = None, 1.0
    if hatching and live and finished is None:
        before = _nothing_alive(at, told, curve.now / math.exp(learned.prior.mean))
        forecast = forecast_clutch(
            hatching, maternal=maternal, prior=learned.prior, none_alive_before=before
        )
        if forecast.first_pipped_s is None:
            still = still_hopeful(before, forecast.none_alive)
    after = tuple(_after_silence(at, egg, still) for egg in told)
    return ClutchNow(
        clutch=clutch,
        boxes=tuple(_with_eggs(box, after) for box in boxes),
        box=_with_eggs(box_now(at, snapshot.box_of(clutch, as_of_s)), after),
        dam=snapshot.animals[clutch.dam_id].name,
        sire=snapshot.animals[clutch.sire_id].name if clutch.sire_id else None,
        set_points=set_points,
        count=ClutchCount(len(eggs), sum(egg.slug for egg in eggs)),
        eggs=after,
        live_eggs=len(live),
        curve=curve,
        forecast=forecast,
        cold_spells=cold_spells(curve, set_points),
        maternal=maternal,
        learned=learned,
        learned_days=_moved_days(curve, learned),
        impossible_pip=_impossible_pip(at, clutch, eggs, learned),
        expected=_expected(told, still) if finished is None else None,
        finished_s=float(finished.at_s) if finished else None,
    )


def _groups(at: AsOf, path: EggPath, eggs: Sequence[Egg]) -> Iterator[EggGroup]:
    """Eggs that went one way, with the pips seen of them by then; none where all were cut open.

    An egg cut open before it pipped is neither closed nor pipped: when it would have, nobody will
    know.
    """
    histories = [at.snapshot.egg(egg.entity_id) for egg in eggs]
    own = [held for held in histories if not held.cut_closed_by(at.at_s)]
    pipped = [held for held in own if held.pip_s is not None and held.pip_s <= at.at_s]
    if own:
        yield EggGroup(
            at.curve(path),
            len(own),
            tuple(float(held.pip_s or 0.0) for held in pipped),
            tuple(float(held.pip_s or 0.0) for held in pipped if held.inside_at(at.at_s)),
        )


def _nothing_alive(at: AsOf, eggs: Sequence[EggView], share: float) -> float:
    """Chance that nothing is alive in a clutch, by the standing of its closed eggs."""
    standings = [egg.standing for egg in eggs if egg.standing is not None]
    return nothing_alive(
        [standing.alive for standing in standings],
        [standing.will_pip for standing in standings],
        share,
        learned_standing(at.snapshot).rules,
    )


def _expected(eggs: Sequence[EggView], still: float) -> HatchExpectation | None:
    chances = [egg.will_hatch for egg in eggs]
    return expected_hatch([chance for chance in chances if chance is not None], still)


def _after_silence(at: AsOf, egg: EggView, still: float) -> EggView:
    if egg.standing is None:
        return egg
    rules = learned_standing(at.snapshot).rules
    return replace(egg, standing=after_silence(egg.standing, still, rules))


def told_box(at: AsOf, box: BoxNow) -> BoxNow:
    """A box whose eggs are told as their clutches tell them, of however many they are."""
    own = box.box.entity_id
    return at.of_box(own).once(
        ("told box", own),
        lambda: _with_eggs(box, [egg for of in box.clutches for egg in clutch_at(at, of).eggs]),
    )


def _with_eggs(box: BoxNow, told: Iterable[EggView]) -> BoxNow:
    by_id = {egg.entity: egg for egg in told}
    eggs = tuple(by_id.get(egg.entity, egg) for egg in box.eggs)
    return replace(box, judged=replace(box.judged, eggs=eggs))


def _impossible_pip(
    at: AsOf, clutch: Clutch, eggs: Sequence[Egg], learned: Learned
) -> ImpossiblePip | None:
    """Whether its first pip cannot be by the heat that was recorded on its egg's own way."""
    seen = [
        (float(pip.seen_s), egg)
        for egg in eggs
        if (pip := at.snapshot.egg(egg.entity_id).pip) is not None and pip.seen_s <= at.at_s
    ]
    if not seen:
        return None
    first_s, egg = min(seen, key=lambda one: one[0])
    found = impossible_pip(
        at.curve(at.path(egg)),
        learned.prior,
        first_s,
        maternal=at.snapshot.clutch(clutch.entity_id).kept_by_dam,
    )
    said_right = found is not None and PIP_IS_RIGHT in at.snapshot.ticked(clutch.entity_id)
    return None if said_right else found


def clutches_standing(at: AsOf) -> list[ClutchNow]:
    """Every clutch under way, by cabinet, shelf and code: the order that keeps doors shut."""
    standing = [
        clutch_at(at, clutch)
        for clutch in at.snapshot.clutches
        if at.snapshot.under_way(clutch, at.at_s)
    ]
    return sorted(
        standing, key=lambda now: (now.box.cabinet, now.box.shelf.position, now.clutch.code)
    )


def boxes_standing(at: AsOf) -> list[BoxNow]:
    """Every box with eggs of a clutch under way, by cabinet, shelf and name."""
    boxes = {
        box.entity_id: box
        for clutch in at.snapshot.clutches
        if at.snapshot.under_way(clutch, at.at_s)
        for box in at.snapshot.boxes_of(clutch, at.at_s)
    }
    standing = [told_box(at, box_now(at, box)) for box in boxes.values()]
    return sorted(standing, key=lambda now: (now.cabinet, now.shelf.position, now.box.name))


def _moved_days(curve: DevelopmentCurve, learned: Learned) -> float:
    with_it = curve.time_of(math.exp(learned.prior.mean))
    without = curve.time_of(1.0)
    return 0.0 if with_it is None or without is None else (with_it - without) / SECONDS_PER_DAY


def clutch_page(snapshot: Snapshot, code: str, as_of_s: float) -> ClutchPage:
    """The Clutch place for a code (upper and lower case alike); NotFound when there is none."""
    clutch = snapshot.clutch_called(code)
    at = at_hand(snapshot, as_of_s)
    now = clutch_at(at, clutch)
    method = method_of_clutch(clutch.entity_id)
    house_method, different = departures(method)
    return ClutchPage(
        at=at,
        now=now,
        method=method,
        house_method=house_method,
        differences=different,
        ribbon=ribbon(now.curve, now.set_points),
        rests_on=rests_on(now.curve),
        learned_words=learned_words(now.learned, now.curve, now.dam),
        origin_words=origin_words(snapshot, clutch),
        gaps=now.curve.temperature.gaps,
        probes=tuple(probes_of(snapshot, [box.box for box in now.boxes], as_of_s)),
        log=tuple(log_about(clutch.entity_id, LOG_OF_CLUTCH)),
    )
