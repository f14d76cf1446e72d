"""What the box and its cabinet say of a lost egg: water, dents, heat, air, pests, faults."""

from sandboa.core.box import Closing
from sandboa.core.causes.evidence import Air, FaultThen, Heat, Water
from sandboa.core.causes.heat_record import heat_record
from sandboa.core.climate.faults import Fault
from sandboa.core.dimples import excess_grade
from sandboa.core.dimples.judgement import BOX_SHARE
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.core.water.signs import WaterSignKind
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.water import BoxWater, box_water, on_grid_now
from sandboa.services.climate.faults import faults_of_term
from sandboa.services.losses.outcomes import ClutchOutcomes, EggOutcome
from sandboa.services.rounds.visit_checks import PESTS_KIND
from sandboa.services.snapshot.snapshot import Snapshot

#: Share developed from which the air of a box is worked out at all.
_AIR_FROM = 0.6


def water_of(snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome) -> Water | None:
    """Water, medium, lid and dents of the box up to the egg's death; None without a box."""
    box = snapshot.boxes[outcomes.clutch.entity_id]
    if not box.medium or not box.closing or end.window is None:
        return None
    signs = snapshot.box(box.entity_id).signs

    def looks(kind: WaterSignKind) -> tuple[tuple[float, str], ...]:
        return tuple((outcomes.share(s.seen_s), s.value) for s in signs if s.kind == kind)

    dented, plump = _dents(snapshot, outcomes)
    weighed = sum(w.at_s <= end.died_by_s for w in snapshot.box(box.entity_id).weighings)
    return Water(
        lowest=_lowest(snapshot, outcomes, end),
        weighed=weighed,
        medium=looks(WaterSignKind.MEDIUM),
        lid=looks(WaterSignKind.LID),
        dented_early=dented,
        plump_until=plump,
        on_grid=on_grid_now(snapshot, box, end.died_by_s),
    )


def _lowest(
    snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome
) -> tuple[float, float, float] | None:
    """The smallest share of set-up water by the egg's death: just before each pour, and then."""
    box = snapshot.boxes[outcomes.clutch.entity_id]
    pours = [w.poured_s - 1.0 for w in snapshot.box(box.entity_id).waterings]
    moments = [s for s in pours if outcomes.clutch.laid_s < s < end.died_by_s]
    found = []
    for at_s in (*moments, end.died_by_s):
        water = _water_at(snapshot, outcomes, at_s)
        if water is not None and water.left is not None:
            found.append((water.left.share_low, water.left.share, water.left.share_high))
    return min(found, key=lambda share: share[1], default=None)


def _water_at(snapshot: Snapshot, outcomes: ClutchOutcomes, at_s: float) -> BoxWater | None:
    live = sum(end.ended_s > at_s and not end.egg.slug for end in outcomes.eggs)
    when_s = max(at_s, outcomes.clutch.laid_s + 60.0)
    curve = development_curve(snapshot, outcomes.clutch, when_s)
    return box_water(snapshot, outcomes.clutch, curve, live, outcomes.at_pip, when_s)


def air_of(snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome) -> Air | None:
    """The box's air around a late death: the worst moment between visits; None before that."""
    window = end.window
    if window is None or window.end < _AIR_FROM:
        return None
    from_s = max(end.died_from_s, outcomes.moment(_AIR_FROM))
    middle_s = (from_s + end.died_by_s) / 2.0
    visits = [v.closed_s - 60.0 for v in snapshot.clutch(outcomes.clutch.entity_id).visits]
    moments = [s for s in visits if from_s < s < end.died_by_s]
    worst: Air | None = None
    for at_s in (*moments, middle_s):
        water = _water_at(snapshot, outcomes, at_s)
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
    temperature = outcomes.curve.temperature
    if not any(s.measured for s in temperature.stretches):
        return None
    times, values, _ = outcomes.curve.samples()
    faults = [
        FaultThen(
            fault.kind.value,
            outcomes.share(fault.start_s),
            outcomes.share(_end_of(fault, as_of_s)),
            abs(fault.largest_c),
            (_end_of(fault, as_of_s) - fault.start_s) / SECONDS_PER_HOUR,
        )
        for fault in faults_of_term(snapshot, outcomes.clutch, outcomes.until_s)
        if fault.start_s <= end.died_by_s
    ]
    return heat_record(times, values, end.died_by_s, temperature.measured_share, faults)


def _end_of(fault: Fault, as_of_s: float) -> float:
    return fault.end_s if fault.end_s is not None else as_of_s


def pests_of(snapshot: Snapshot, outcomes: ClutchOutcomes) -> bool | None:
    """Whether pests were seen in the box; None where nobody looked."""
    box = snapshot.boxes[outcomes.clutch.entity_id]
    seen = [s.value for s in snapshot.box(box.entity_id).signs if s.kind == PESTS_KIND]
    return any(value != "none" for value in seen) if seen else None


def _dents(
    snapshot: Snapshot, outcomes: ClutchOutcomes
) -> tuple[tuple[tuple[float, int, int], ...], float | None]:
    """Visits with box-wide early dents, and the share of the last look that found most firm."""
    stages = snapshot.settings.rules.dimple_stages
    looks = sorted(
        {t.seen_s for end in outcomes.eggs for t in snapshot.egg(end.egg.entity_id).turgor}
    )
    dented, plump = [], None
    for at_s in looks:
        share = min(outcomes.share(at_s), 2.0)
        grades = [
            seen[-1].grade
            for end in outcomes.eggs
            if not end.egg.slug
            and end.ended_s > at_s
            and (seen := [t for t in snapshot.egg(end.egg.entity_id).turgor if t.seen_s <= at_s])
        ]
        early = sum(excess_grade(share, grade, stages=stages) >= 1 for grade in grades)
        if len(grades) > 1 and early >= BOX_SHARE * len(grades):
            dented.append((share, early, len(grades)))
        if grades and 2 * sum(grade == 0 for grade in grades) > len(grades):
            plump = share
    return tuple(dented), None if dented else plump


def own_dents_early(snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome) -> float | None:
    """The share at which this egg was dented early and the box was not; None where it never was."""
    stages = snapshot.settings.rules.dimple_stages
    wide, _ = _dents(snapshot, outcomes)
    for look in snapshot.egg(end.egg.entity_id).turgor:
        share = min(outcomes.share(look.seen_s), 2.0)
        box_wide = any(abs(share - s) < 1e-9 for s, _, _ in wide)
        if not box_wide and excess_grade(share, look.grade, stages=stages) >= 1:
            return share
    return None
