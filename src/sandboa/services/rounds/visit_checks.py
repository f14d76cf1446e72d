"""What of a visit cannot be true: refused whole, in words, at its field."""

from typing import Final

from sandboa.core.box import BoxKind
from sandboa.core.dimples.stages import GRADES
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EGG_MASS_RANGE_G
from sandboa.core.notes import clean_note
from sandboa.core.standing import RECORDED_KINDS, SIGNS
from sandboa.core.units import SECONDS_PER_HOUR, require_range
from sandboa.core.water.kinds import WaterSignKind
from sandboa.core.water.ledger import Weighing, require_plausible_weighing
from sandboa.core.water.mixing import medium_named
from sandboa.core.water.rules import WATER_SIGNS
from sandboa.core.water.top_up import BOX_MASS_RANGE_G, POURED_RANGE_G
from sandboa.records.clutches import Box, Egg
from sandboa.services.acts.preconditions import require_between_set_up_and_now, require_in_box
from sandboa.services.boxes.mass_ledger import account_of
from sandboa.services.rounds.box_under_visit import BoxUnderVisit
from sandboa.services.rounds.visit import EggSeen
from sandboa.services.snapshot.settings import house_settings

#: What a nose says of a whole box on opening it.
BOX_SMELLS: Final = ("none", "off", "foul")
SMELL_KIND: Final = "smell"
#: What else may be found in a box.
PESTS: Final = ("none", "flies", "ants", "larvae")
PESTS_KIND: Final = "pests"
#: s a door is open at the longest in one visit (assumption: longer is a phone left lying).
LONGEST_VISIT_S: Final = 4 * SECONDS_PER_HOUR
#: g that a grid, film or whatever else is put in or taken out can weigh (assumption).
_CHANGE_G: Final = (-5_000.0, 5_000.0)


def check_visit(at: BoxUnderVisit) -> None:
    """Raise for whatever of the visit cannot be."""
    visit = at.visit
    require_between_set_up_and_now(at.box, visit.opened_s, at.now_s)
    require_between_set_up_and_now(at.box, visit.closed_s, at.now_s)
    if not 0 <= visit.closed_s - visit.opened_s <= LONGEST_VISIT_S:
        raise NotPlausible("closed_at", "a visit is shut after it is opened, within 4 hours")
    if at.box.medium is None:
        raise NotPlausible("box", _why_left_alone(at.box))
    if visit.note.strip():
        clean_note(visit.note, "note")
    for kind, value in visit.signs:
        _require_box_sign(kind, value)
    carried = [egg.entity_id for group in at.moved for egg in group]
    if len(set(carried)) < len(carried):
        raise NotPlausible("moved", "the same egg is put into two boxes in this visit")
    if any(not group.eggs for group in visit.moved):
        raise NotPlausible("moved", "which eggs were moved?")
    if len({egg.entity_id for egg in at.eggs}) < len(visit.eggs):
        raise NotPlausible("eggs", "the same egg stands twice in this visit")
    for seen, egg in zip(visit.eggs, at.eggs, strict=True):
        _check_egg(at, seen, egg)
    _check_masses(at)


def _why_left_alone(box: Box) -> str:
    if box.kind == BoxKind.OTHER_SPECIES:
        return f"box {box.name} holds eggs of another species: nothing is recorded of them here"
    return f"the dam keeps the eggs of {box.name}: they are left alone"


def _check_egg(at: BoxUnderVisit, seen: EggSeen, egg: Egg) -> None:
    if seen.grade is not None and seen.grade not in GRADES:
        raise NotPlausible("grade", f"turgor grade {seen.grade} is not one of 0, 1, 2, 3, 4")
    if egg.slug and (seen.grade is not None or seen.vessels is not None):
        raise NotPlausible("eggs", f"egg {seen.number} is a slug: dents say nothing about it")
    require_in_box(egg, at.at_s)
    for kind, value in seen.signs:
        if kind not in RECORDED_KINDS or (kind, value) not in SIGNS:
            raise NotPlausible("signs", f'"{value[:40]}" is no sign of {kind}')
    kinds = [kind for kind, _ in seen.signs]
    twice = next((kind for kind in kinds if kinds.count(kind) > 1), None)
    if twice is not None:
        raise NotPlausible("signs", f"egg {seen.number} has two answers for {twice}")
    if seen.mass_g is not None:
        require_range(f"egg {seen.number}", seen.mass_g, EGG_MASS_RANGE_G, "g")


def _check_masses(at: BoxUnderVisit) -> None:
    visit = at.visit
    if visit.water_g is not None:
        require_range("water added", visit.water_g, POURED_RANGE_G, "g", field="water_g")
    if visit.mass_change_g is not None:
        change_g = visit.mass_change_g
        require_range(
            "what was put in or taken out", change_g, _CHANGE_G, "g", field="mass_change_g"
        )
    if visit.mass_g is not None:
        account = account_of(at.box, at.rows, at.at_s, house_settings().rules.water)
        require_plausible_weighing(account.ledger, Weighing(at.at_s, visit.mass_g))
    if visit.fresh is not None:
        medium_named(visit.fresh.medium)
        if visit.fresh.water_g is not None:
            water_g = visit.fresh.water_g
            require_range("water", water_g, (0.0, BOX_MASS_RANGE_G[1]), "g", field="fresh")
        if visit.fresh.mass_g is not None:
            require_range("the box", visit.fresh.mass_g, BOX_MASS_RANGE_G, "g", field="fresh")


def _require_box_sign(kind: str, value: str) -> None:
    if kind == SMELL_KIND:
        if value not in BOX_SMELLS:
            raise NotPlausible("signs", f'"{value[:40]}" is no smell known here')
        return
    if kind == PESTS_KIND:
        if value not in PESTS:
            raise NotPlausible("signs", f'"{value[:40]}" is no pest known here')
        return
    if kind not in set(WaterSignKind) or (WaterSignKind(kind), value) not in WATER_SIGNS:
        raise NotPlausible("signs", f'"{value[:40]}" is no sign of the box\'s {kind[:20]}')
