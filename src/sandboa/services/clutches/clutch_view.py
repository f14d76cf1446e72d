"""A clutch as it stands: development, forecast, eggs, what the forecast rests on, its log."""

import math
from dataclasses import dataclass

from sandboa.core.clutch_count import ClutchCount
from sandboa.core.development import (
    ColdSpell,
    DevelopmentCurve,
    Forecast,
    Learned,
    Stretch,
    cold_spells,
    forecast,
)
from sandboa.core.development.basis import rests_on
from sandboa.core.development.ribbon import RibbonPiece, ribbon
from sandboa.core.methods import Difference, Method
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.estimate import WaterLeft
from sandboa.records.clutches import Box, Clutch, acts_of
from sandboa.records.house import Probe
from sandboa.services.acts.log import LogEntry, as_log
from sandboa.services.boxes.climate import development_curve, probes_of, set_points_of
from sandboa.services.boxes.water import (
    BoxWater,
    OtherClosing,
    box_water,
    latest_lid,
    on_grid_now,
    what_if,
)
from sandboa.services.clutches.egg_judgements import EggsView, judge_eggs
from sandboa.services.clutches.issued_forecasts import Lessons, lessons
from sandboa.services.clutches.methods import departures, method_of_clutch
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class ClutchNow:
    """What every screen needs of one clutch.

    `water` is None where the dam keeps her eggs, `lid` how wet the lid was
    when last looked at. `learned_days` is by how many days what the house's clutches taught moves
    the forecast (negative: earlier).
    """

    clutch: Clutch
    box: Box
    dam: str
    sire: str | None
    cabinet: str
    shelf: str
    shelf_position: int
    set_point_c: float
    set_point_at_lay_c: float
    count: ClutchCount
    live_eggs: int
    curve: DevelopmentCurve
    forecast: Forecast | None
    cold_spells: tuple[ColdSpell, ...]
    eggs: EggsView
    water: BoxWater | None
    lid: str | None
    on_grid: bool
    maternal: bool
    learned: Learned
    learned_days: float
    finished_s: float | None

    @property
    def day(self) -> int:
        """Whole days since lay."""
        return int((self.curve.temperature.as_of_s - self.clutch.laid_s) // SECONDS_PER_DAY)

    @property
    def at_pip(self) -> float:
        """D at which the typical egg of this house pips: 1, as far as nothing was learned."""
        return math.exp(self.learned.prior.mean)

    @property
    def fraction(self) -> float:
        """Share developed, p = D / at_pip."""
        return self.curve.now / self.at_pip


@dataclass(frozen=True)
class ClutchPage:
    """The Clutch place: everything of `now`, the ribbon, the gaps in words, probes and the log.

    `differences` are the lines on which `method` departs from `house_method`.
    """

    now: ClutchNow
    method: Method
    house_method: str
    differences: tuple[Difference, ...]
    ribbon: tuple[RibbonPiece, ...]
    rests_on: str
    gaps: tuple[Stretch, ...]
    probes: tuple[Probe, ...]
    log: tuple[LogEntry, ...]


def clutch_now(snapshot: Snapshot, clutch: Clutch, as_of_s: float, known: Lessons) -> ClutchNow:
    """Work out where a clutch stands at `as_of_s`, with what finished clutches taught.

    `forecast` is None when no egg is left that could pip, or when the clutch
    is done. `live_eggs` are neither slugs nor taken out.
    """
    box = snapshot.boxes[clutch.entity_id]
    shelf = snapshot.shelf_at(box, as_of_s)
    eggs = snapshot.eggs.get(clutch.entity_id, [])
    count = ClutchCount(len(eggs), sum(egg.slug for egg in eggs))
    curve = development_curve(snapshot, clutch, as_of_s)
    set_points = set_points_of(snapshot, clutch, as_of_s)
    maternal = snapshot.clutch(clutch.entity_id).kept_by_dam
    learned = known.learned(shelf.cabinet_id, as_of_s, besides=clutch.entity_id, maternal=maternal)
    finished = snapshot.clutch(clutch.entity_id).finished
    at_pip = math.exp(learned.prior.mean)
    # An egg taken out while it was closed is none to wait for.
    live = sum(
        not egg.slug
        and (
            snapshot.egg(egg.entity_id).pip_s is not None
            or snapshot.egg(egg.entity_id).ended_s(as_of_s) is None
        )
        for egg in eggs
    )
    water = None
    if not maternal:
        water = box_water(snapshot, clutch, curve, live, at_pip, as_of_s)
    pipped_s = [
        pip_s
        for egg in eggs
        if (pip_s := snapshot.egg(egg.entity_id).pip_s) is not None and pip_s <= as_of_s
    ]
    return ClutchNow(
        clutch=clutch,
        box=box,
        dam=snapshot.animals[clutch.dam_id].name,
        sire=snapshot.animals[clutch.sire_id].name if clutch.sire_id else None,
        cabinet=snapshot.cabinets[shelf.cabinet_id].name,
        shelf=shelf.name,
        shelf_position=shelf.position,
        set_point_c=set_points.at(as_of_s),
        set_point_at_lay_c=set_points.at(clutch.laid_s),
        count=count,
        live_eggs=live,
        curve=curve,
        forecast=(
            forecast(
                curve,
                live,
                maternal=maternal,
                prior=learned.prior,
                pipped_s=pipped_s,
            )
            if live and finished is None
            else None
        ),
        cold_spells=cold_spells(curve, set_points),
        eggs=judge_eggs(snapshot, clutch, curve, as_of_s, at_pip, water.left if water else None),
        water=water,
        lid=latest_lid(snapshot, box, as_of_s),
        on_grid=on_grid_now(snapshot, box, as_of_s),
        maternal=maternal,
        learned=learned,
        learned_days=_moved_days(curve, learned),
        finished_s=float(finished.at_s) if finished else None,
    )


def clutches_standing(snapshot: Snapshot, as_of_s: float, known: Lessons) -> list[ClutchNow]:
    """Every clutch under way, by cabinet, shelf and code: the order that keeps doors shut."""
    standing = [
        clutch_now(snapshot, clutch, as_of_s, known)
        for clutch in snapshot.clutches
        if snapshot.under_way(clutch, as_of_s)
    ]
    return sorted(standing, key=lambda now: (now.cabinet, now.shelf_position, now.clutch.code))


def _moved_days(curve: DevelopmentCurve, learned: Learned) -> float:
    with_it = curve.time_of(math.exp(learned.prior.mean))
    without = curve.time_of(1.0)
    return 0.0 if with_it is None or without is None else (with_it - without) / SECONDS_PER_DAY


def clutch_page(snapshot: Snapshot, code: str, as_of_s: float) -> ClutchPage:
    """The Clutch place for a code (upper and lower case alike); NotFound when there is none."""
    clutch = snapshot.clutch_called(code)
    now = clutch_now(snapshot, clutch, as_of_s, lessons(snapshot))
    method = method_of_clutch(clutch.entity_id)
    house_method, different = departures(method)
    return ClutchPage(
        now=now,
        method=method,
        house_method=house_method,
        differences=different,
        ribbon=ribbon(now.curve, set_points_of(snapshot, clutch, as_of_s)),
        rests_on=rests_on(now.curve),
        gaps=now.curve.temperature.gaps,
        probes=tuple(probes_of(snapshot, clutch, as_of_s)),
        log=tuple(as_log(acts_of(clutch.entity_id))),
    )


def what_if_water(
    snapshot: Snapshot, code: str, as_of_s: float, other: OtherClosing
) -> WaterLeft | None:
    """A box's water were it closed otherwise, or its cabinet damper; NotFound without a clutch."""
    clutch = snapshot.clutch_called(code)
    if snapshot.boxes[clutch.entity_id].medium is None:
        return None
    now = clutch_now(snapshot, clutch, as_of_s, lessons(snapshot))
    return what_if(snapshot, clutch, now.curve, now.at_pip, as_of_s, other)
