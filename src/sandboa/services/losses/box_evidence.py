"""What the box and its cabinet say of a lost egg: water, dents, heat, air, pests, faults."""

from dataclasses import dataclass, replace
from functools import cached_property

from sandboa.core.box import Closing
from sandboa.core.causes.evidence import Air, FaultThen, Heat, Water
from sandboa.core.causes.heat_record import heat_record
from sandboa.core.climate.faults import Fault
from sandboa.core.dimples import excess_grade
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.core.water.kinds import WaterSignKind
from sandboa.records.clutches import Box, Egg
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.egg_paths import path_of_box
from sandboa.services.boxes.mass_ledger import account_in
from sandboa.services.boxes.water import BoxEggs, BoxWater, box_water, on_grid_now
from sandboa.services.climate.faults import faults_of_term
from sandboa.services.clutches.box_view import may_hatch
from sandboa.services.losses.outcomes import ClutchOutcomes, EggOutcome
from sandboa.services.moment.as_of import AsOf
from sandboa.services.moment.lessons import lessons
from sandboa.services.rounds.visit_checks import PESTS_KIND
from sandboa.services.snapshot.snapshot import Snapshot

#: Share developed from which the air of a box is worked out at all.
_AIR_FROM = 0.6


def water_of(snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome) -> Water | None:
    """Water, medium, lid and dents of the box it died in, up to its death; None without a box."""
    box = box_of_death(snapshot, end)
    if box is None or not box.medium or not box.closing or end.window is None:
        return None
    signs = snapshot.box(box.entity_id).signs

    def looks(kind: WaterSignKind) -> tuple[tuple[float, str], ...]:
        return tuple((end.way.share(s.seen_s), s.value) for s in signs if s.kind == kind)

    dented, plump = _dents(snapshot, outcomes, end, box)
    weighed = sum(w.at_s <= end.died_by_s for w in snapshot.box(box.entity_id).weighings)
    return Water(
        lowest=_lowest(snapshot, outcomes, end, box),
        weighed=weighed,
        medium=looks(WaterSignKind.MEDIUM),
        lid=looks(WaterSignKind.LID),
        dented_early=dented,
        plump_until=plump,
        on_grid=on_grid_now(snapshot, box, end.died_by_s),
        sealed=account_in(snapshot, box, end.died_by_s).closing is Closing.SEALED_FILM,
    )


def box_of_death(snapshot: Snapshot, end: EggOutcome) -> Box | None:
    """The box in which an egg lay when it died."""
    stay = snapshot.egg(end.egg.entity_id).stay_at(end.died_s)
    return None if stay is None else snapshot.boxes.get(stay.box_id)


def _lowest(
    snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome, box: Box
) -> tuple[float, float, float] | None:
    """The smallest share of set-up water by the egg's death: just before each pour, and then."""
    begun_s = max(outcomes.clutch.laid_s, box.from_s)
    pours = [w.poured_s - 1.0 for w in snapshot.box(box.entity_id).waterings]
    moments = [s for s in pours if begun_s < s < end.died_by_s]
    found = []
    for at_s in (*moments, end.died_by_s):
        water = _water_at(snapshot, outcomes, box, at_s)
        if water is not None and water.left is not None:
            found.append((water.left.share_low, water.left.share, water.left.share_high))
    return min(found, key=lambda share: share[1], default=None)


def _water_at(
    snapshot: Snapshot, outcomes: ClutchOutcomes, box: Box, at_s: float
) -> BoxWater | None:
    when_s = max(at_s, box.from_s + 60.0)
    lying = _Lying(snapshot, outcomes, when_s)
    live = [egg for egg in snapshot.eggs_in(box.entity_id, when_s) if lying.lives(egg)]
    main = max(outcomes.eggs, key=lambda end: end.way.path.last == box.entity_id)
    curve = development_curve(snapshot, path_of_box(box), when_s)
    eggs = BoxEggs(curve, [lying.share(egg) for egg in live], main.way.share)
    return box_water(snapshot, box, eggs, when_s)


@dataclass(frozen=True)
class _Lying:
    """The eggs of a box at a time: those of the clutch by their outcomes, others as they stood."""

    snapshot: Snapshot
    outcomes: ClutchOutcomes
    at_s: float

    @cached_property
    def _own(self) -> dict[int, EggOutcome]:
        return {end.egg.entity_id: end for end in self.outcomes.eggs}

    @cached_property
    def _as_of(self) -> AsOf:
        return AsOf(self.snapshot, lessons(self.snapshot), self.at_s)

    def lives(self, egg: Egg) -> bool:
        """Whether it was an egg to wait for, or a hatchling in the box."""
        own = self._own.get(egg.entity_id)
        if own is None:
            return may_hatch(self.snapshot, egg, self.at_s)
        return not egg.slug and own.ended_s > self.at_s

    def share(self, egg: Egg) -> float:
        """Share it had developed."""
        own = self._own.get(egg.entity_id)
        return self._as_of.stage(egg).share if own is None else own.way.share(self.at_s)


def air_of(snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome) -> Air | None:
    """The box's air around a late death: the worst moment between visits; None before that."""
    window, box = end.window, box_of_death(snapshot, end)
    if window is None or window.end < _AIR_FROM or box is None:
        return None
    from_s = max(end.died_from_s, end.way.moment(_AIR_FROM), box.from_s)
    middle_s = (from_s + end.died_by_s) / 2.0
    visits = [v.closed_s - 60.0 for v in snapshot.box(box.entity_id).visits]
    moments = [s for s in visits if from_s < s < end.died_by_s]
    worst: Air | None = None
    for at_s in (*moments, middle_s):
        water = _water_at(snapshot, outcomes, box, at_s)
        if water is None:
            return None
        days = (at_s - water.opened_s) / SECONDS_PER_DAY
        oxygen = (water.air.low, water.air.share, water.air.high) if water.air else None
        air = Air(oxygen, water.closing is Closing.SEALED_FILM, days)
        if worst is None or (oxygen or (1.0,))[0] < (worst.oxygen or (1.0,))[0]:
            worst = air
    return worst


def heat_of(
    snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome, as_of_s: float
) -> Heat | None:
    """Temperature at the box up to the egg's death, with the cabinet's faults then."""
    curve, way = end.way.curve, end.way
    temperature = curve.temperature
    if not any(s.measured for s in temperature.stretches):
        return None
    times, values, _ = curve.samples()
    faults = [
        FaultThen(
            fault.kind.value,
            way.share(fault.start_s),
            way.share(_end_of(fault, as_of_s)),
            abs(fault.largest_c),
            (_end_of(fault, as_of_s) - fault.start_s) / SECONDS_PER_HOUR,
        )
        for fault in faults_of_term(snapshot, outcomes.clutch, outcomes.until_s)
        if fault.start_s <= end.died_by_s
    ]
    climate = snapshot.settings.rules.climate
    heat = heat_record(times, values, end.died_by_s, temperature.measured_share, way.share, climate)
    return None if heat is None else replace(heat, faults=tuple(faults))


def _end_of(fault: Fault, as_of_s: float) -> float:
    return fault.end_s if fault.end_s is not None else as_of_s


def pests_of(snapshot: Snapshot, end: EggOutcome) -> bool | None:
    """Whether pests were seen in a box it lay in; None where nobody looked."""
    seen = [
        sign.value
        for _, box in end.way.path.boxes
        for sign in snapshot.box(box).signs
        if sign.kind == PESTS_KIND
    ]
    return any(value != "none" for value in seen) if seen else None


def _dents(
    snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome, box: Box
) -> tuple[tuple[tuple[float, int, int], ...], float | None]:
    """Looks that found the box dented early, by the egg's own share then, and its share at the
    last look that found most firm."""
    dents = snapshot.settings.rules.dents
    own = {egg.egg.entity_id: egg for egg in outcomes.eggs}
    looks = sorted(
        {
            look.seen_s
            for egg in snapshot.eggs_of_box.get(box.entity_id, [])
            for look in snapshot.egg(egg.entity_id).turgor
        }
    )
    dented, plump = [], None
    for at_s in looks:
        lying = _Lying(snapshot, outcomes, at_s)
        graded = [
            (seen[-1].grade, lying.share(egg))
            for egg in snapshot.eggs_in(box.entity_id, at_s)
            if not egg.slug
            and (own[egg.entity_id].ended_s > at_s if egg.entity_id in own else lying.lives(egg))
            and (seen := [t for t in snapshot.egg(egg.entity_id).turgor if t.seen_s <= at_s])
        ]
        share = min(end.way.share(at_s), 2.0)
        early = sum(excess_grade(min(p, 2.0), grade, rules=dents) >= 1 for grade, p in graded)
        if len(graded) > 1 and dents.box_wide(early, len(graded)):
            dented.append((share, early, len(graded)))
        if graded and 2 * sum(grade == 0 for grade, _ in graded) > len(graded):
            plump = share
    return tuple(dented), None if dented else plump


def own_dents_early(snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome) -> float | None:
    """The share at which this egg was dented early and the box was not; None where it never was."""
    dents = snapshot.settings.rules.dents
    box = box_of_death(snapshot, end)
    wide = _dents(snapshot, outcomes, end, box)[0] if box is not None else ()
    for look in snapshot.egg(end.egg.entity_id).turgor:
        share = min(end.way.share(look.seen_s), 2.0)
        box_wide = any(abs(share - s) < 1e-9 for s, _, _ in wide)
        if not box_wide and excess_grade(share, look.grade, rules=dents) >= 1:
            return share
    return None
