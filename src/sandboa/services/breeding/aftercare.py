"""Dams after laying: their checklist, their flags, and the way back to weight."""

from dataclasses import dataclass

from sandboa.core.animals import DAM
from sandboa.core.dam_care import (
    AftercareTask,
    CareItem,
    Recovery,
    Weighing,
    aftercare,
    not_eating,
    recovery,
    retained_egg,
    settled_s,
)
from sandboa.core.dam_care.aftercare import LaidDam
from sandboa.core.lay_day import Lump
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch, DamCheck
from sandboa.services.acts.errors import NotFound
from sandboa.services.clutches.methods import method_of_clutch
from sandboa.services.snapshot.herd import Herd
from sandboa.services.snapshot.settings import HouseSettings, house_settings

#: Days after laying for which a dam is followed, unless she recovers before (assumption).
FOLLOWED_DAYS = 100.0
#: Lines of the checklist that a tick alone records; the others follow from weights and meals.
TICKED = (
    AftercareTask.FEEL,
    AftercareTask.VET,
    AftercareTask.RINSE,
    AftercareTask.WATER,
    AftercareTask.CLEAN,
    AftercareTask.OVER,
)


@dataclass(frozen=True, slots=True)
class DamAfterLaying:
    """`target_g` is her weight before pairing, or the keeper's minimum when that is not known."""

    dam: int
    name: str
    clutch: str
    laid_s: float
    maternal: bool
    before_g: float | None
    target_g: float
    items: tuple[CareItem, ...]
    recovery: Recovery | None
    flags: tuple[str, ...]


def dams_after_laying(herd: Herd, now_s: float) -> list[DamAfterLaying]:
    """Every dam that laid lately and is not back to weight yet, or has something due."""
    settings = house_settings()
    told = []
    for entity, animal in herd.animals.items():
        if animal.role != DAM or not herd.clutches.get(entity):
            continue
        after = dam_after_laying(herd, entity, settings, now_s)
        if after is not None:
            told.append(after)
    return sorted(told, key=lambda d: d.laid_s, reverse=True)


def dam_after_laying(
    herd: Herd, dam: int, settings: HouseSettings, now_s: float
) -> DamAfterLaying | None:
    """The dam's aftercare; None when it is over, she is recovered or left, or laid long ago.

    One in whom an egg may be left is followed until she was hollow or a vet saw her, however long
    that is.
    """
    clutches = [c for c in herd.clutches.get(dam, []) if c.laid_s <= now_s]
    if not clutches or dam in herd.departures:
        return None
    clutch = clutches[-1]
    lump = _lump(clutch)
    ticked = {
        AftercareTask(t.name): float(t.done_s)
        for t in herd.tasks.get(clutch.entity_id, [])
        if t.name in TICKED
    }
    retained = lump in (Lump.LEFT, Lump.UNSURE) and settled_s(ticked) is None
    if not retained and AftercareTask.OVER in ticked:
        return None
    if not retained and now_s - clutch.laid_s > FOLLOWED_DAYS * SECONDS_PER_DAY:
        return None
    name = herd.animals[dam].name
    weights = [Weighing(w.at_s, w.mass_g) for w in herd.weights.get(dam, []) if w.at_s <= now_s]
    since = [w for w in weights if w.at_s > clutch.laid_s]
    before_g = _before_pairing(herd, dam, clutch, weights)
    target_g = before_g if before_g is not None else settings["lightest_dam_g"]
    back = recovery(since, target_g)
    method = method_of_clutch(clutch.entity_id)
    meals = [m for m in herd.meals.get(dam, []) if clutch.laid_s < m.at_s <= now_s]
    laid = LaidDam(
        clutch.laid_s,
        maternal=method.maternal,
        recovered=back is not None and back.reached,
        ticked=ticked,
        hollow=lump in (None, Lump.NONE),
        weighed_s=tuple(w.at_s for w in since),
        offered_s=tuple(float(m.at_s) for m in meals),
    )
    items = aftercare(laid, method.tub, now_s)
    taken = [float(m.at_s) for m in meals if m.taken]
    fasting = not_eating(
        clutch.laid_s,
        max(taken, default=None),
        now_s,
        maternal=method.maternal,
        flag_days=settings["not_eating_days"],
    )
    flags = []
    if retained and lump is not None:
        flags.append(retained_egg(name, lump, float(clutch.laid_s), now_s))
    if fasting:
        flags.append(f"{name} {fasting}")
    if back is not None and back.falling:
        flags.append(
            f"{name} is still losing weight after laying. Look at her; weak, she is a case for "
            "a reptile vet."
        )
    if back is not None and back.reached and not flags and not any(i.due(now_s) for i in items):
        return None
    return DamAfterLaying(
        dam,
        name,
        clutch.code,
        float(clutch.laid_s),
        method.maternal,
        before_g,
        target_g,
        items,
        back,
        tuple(flags),
    )


def last_clutch(herd: Herd, dam: int) -> Clutch:
    """The dam's latest clutch; NotFound when she has none."""
    clutches = herd.clutches.get(dam)
    if not clutches:
        raise NotFound("she has no clutch recorded")
    return clutches[-1]


def _lump(clutch: Clutch) -> Lump | None:
    """What was felt on lay day; a dam nobody felt is not asked about again."""
    felt = DamCheck.only(clutch_id=clutch.entity_id)
    return None if felt is None else Lump(felt.lump)


def _before_pairing(herd: Herd, dam: int, clutch: Clutch, weights: list[Weighing]) -> float | None:
    """Her weight before the first pairing of this clutch; else the last one before laying."""
    earlier = [c.laid_s for c in herd.clutches.get(dam, []) if c.laid_s < clutch.laid_s]
    begin_s = max(earlier, default=float("-inf"))
    paired = [p.from_s for p in herd.pairings.get(dam, []) if begin_s < p.from_s < clutch.laid_s]
    until_s = min(paired, default=clutch.laid_s)
    of_cycle = [w for w in weights if begin_s < w.at_s <= clutch.laid_s]
    before = [w for w in of_cycle if w.at_s <= until_s] or of_cycle
    return before[-1].mass_g if before else None
