"""A box as it stands: whose eggs lie in it, how they do, its water, its air, its lid."""

from dataclasses import dataclass

from sandboa.core.box import BoxKind
from sandboa.core.rules_in_force import RulesInForce
from sandboa.core.water.estimate import WaterLeft
from sandboa.records.clutches import Box, Clutch, Egg
from sandboa.records.house import Shelf
from sandboa.services.boxes.egg_paths import path_of_box
from sandboa.services.boxes.water import (
    BoxEggs,
    BoxWater,
    OtherClosing,
    box_water,
    latest_lid,
    on_grid_now,
    what_if,
)
from sandboa.services.clutches.egg_judgements import EggsView, EggView, judge_eggs
from sandboa.services.moment.as_of import AsOf, EggStage
from sandboa.services.moment.lessons import lessons
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class BoxNow:
    """What every screen needs of one box.

    `clutches` are those whose eggs lie in it, that of most of them first. `judged` are
    all eggs in it with the box's verdict; `live_eggs` are neither slugs, nor taken out or lost.
    `stage` is how far most of its eggs are, None without eggs. `water` is None
    in a dam's tub and for other species, `lid` how wet it was when last looked at. `rules` are the
    numbers it is judged by.
    """

    box: Box
    cabinet: str
    shelf: Shelf
    set_point_c: float | None
    clutches: tuple[Clutch, ...]
    judged: EggsView
    live_eggs: int
    stage: EggStage | None
    box_c: float
    water: BoxWater | None
    lid: str | None
    on_grid: bool
    rules: RulesInForce

    @property
    def kind(self) -> BoxKind:
        return BoxKind(self.box.kind)

    @property
    def eggs(self) -> tuple[EggView, ...]:
        """Its eggs, whoever's, by clutch and number."""
        return self.judged.eggs

    @property
    def shared(self) -> bool:
        """Whether eggs of several clutches lie in it."""
        return len(self.clutches) > 1


def box_now(at: AsOf, box: Box) -> BoxNow:
    """Work out where a box stands; the same answer while `at` is asked."""
    own = box.entity_id
    return at.of_box(own).once(("box", own), lambda: _box_now(at, box))


def _box_now(at: AsOf, box: Box) -> BoxNow:
    snapshot, as_of_s = at.snapshot, at.at_s
    shelf = snapshot.shelf_at(box, as_of_s)
    clutches = _clutches(snapshot, box, as_of_s)
    order = {clutch.entity_id: place for place, clutch in enumerate(clutches)}
    eggs = sorted(
        snapshot.eggs_in(box.entity_id, as_of_s), key=lambda e: (order[e.clutch_id], e.number)
    )
    waited_for = [egg for egg in eggs if may_hatch(snapshot, egg, as_of_s)]
    known = _known_of(at, box, waited_for, eggs)
    water = box_water(snapshot, box, known, as_of_s) if at.with_water else None
    set_points = snapshot.cabinet(shelf.cabinet_id).set_points
    return BoxNow(
        box=box,
        cabinet=snapshot.cabinets[shelf.cabinet_id].name,
        shelf=shelf,
        set_point_c=set_points.at(as_of_s) if set_points else None,
        clutches=clutches,
        judged=judge_eggs(at, box, eggs, water.left if water else None),
        live_eggs=len(waited_for),
        stage=_stage_of_most(at, waited_for or eggs),
        box_c=known.curve.temperature.future_c,
        water=water,
        lid=latest_lid(snapshot, box, as_of_s),
        on_grid=on_grid_now(snapshot, box, as_of_s),
        rules=snapshot.settings.rules,
    )


def _known_of(at: AsOf, box: Box, waited_for: list[Egg], eggs: list[Egg]) -> BoxEggs:
    """What the eggs of a box mean for its water and air."""
    stage = _stage_of_most(at, waited_for or eggs)
    return BoxEggs(
        at.curve(path_of_box(box)),
        [at.stage(egg).share for egg in waited_for],
        stage.share_at if stage else lambda _: 0.0,
    )


def what_if_water(
    snapshot: Snapshot, name: str, as_of_s: float, other: OtherClosing
) -> WaterLeft | None:
    """A box's water were it closed otherwise, or its cabinet damper; NotFound without a box."""
    box = snapshot.box_called(name)
    if not box.medium or not box.closing:
        return None
    at = AsOf(snapshot, lessons(snapshot), as_of_s)
    eggs = snapshot.eggs_in(box.entity_id, as_of_s)
    waited_for = [egg for egg in eggs if may_hatch(snapshot, egg, as_of_s)]
    return what_if(snapshot, box, _known_of(at, box, waited_for, eggs), as_of_s, other)


def boxes_of_others(at: AsOf) -> list[BoxNow]:
    """Boxes of other species in use now: they have a place, and no forecast."""
    return [
        box_now(at, box)
        for box in sorted(at.snapshot.boxes.values(), key=lambda box: box.name)
        if box.kind == BoxKind.OTHER_SPECIES
        and box.from_s <= at.at_s
        and (box.until_s is None or at.at_s < box.until_s)
    ]


def may_hatch(snapshot: Snapshot, egg: Egg, as_of_s: float) -> bool:
    """Whether an egg pipped, or is one to wait for; one taken out while it was closed is none."""
    held = snapshot.egg(egg.entity_id)
    return not egg.slug and (held.pip_s is not None or held.ended_s(as_of_s) is None)


def _clutches(snapshot: Snapshot, box: Box, as_of_s: float) -> tuple[Clutch, ...]:
    counted: dict[int, int] = {}
    for egg in snapshot.eggs_in(box.entity_id, as_of_s):
        counted[egg.clutch_id] = counted.get(egg.clutch_id, 0) + 1
    clutches = [snapshot.clutch_by_id[clutch] for clutch in counted]
    return tuple(sorted(clutches, key=lambda c: (-counted[c.entity_id], c.code)))


def _stage_of_most(at: AsOf, eggs: list[Egg]) -> EggStage | None:
    """The stage that most of the eggs share."""
    counted: dict[tuple[int, object], list[Egg]] = {}
    for egg in eggs:
        counted.setdefault((egg.clutch_id, at.path(egg)), []).append(egg)
    most = max(counted.values(), key=len, default=None)
    return at.stage(most[0]) if most else None
