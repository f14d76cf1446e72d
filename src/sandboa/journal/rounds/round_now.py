"""The round as a phone carries it: every box with its last visit, due reasons and grams."""

from dataclasses import dataclass

from sandboa.core.methods import STANDARD
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water.ledger import HEAVIER_G
from sandboa.core.water.top_up import ROUND_TO_G
from sandboa.journal.box_water import BoxWater, top_up_by_scale
from sandboa.journal.clutch_now import ClutchNow
from sandboa.journal.forecasts_told import lessons
from sandboa.journal.house_now import Facts, HouseNow
from sandboa.journal.rounds.due_now import BoxDue, boxes_of_round, last_visit_s, on_grid
from sandboa.records.facts import newest_act_by_clutch


@dataclass(frozen=True, slots=True)
class TopUpStep:
    """A box that weighs `from_g` or more, and less than the step before, gets `add_g`."""

    from_g: float
    add_g: float
    split: bool


@dataclass(frozen=True)
class RoundBox:
    """A box as the phone carries it into the room.

    `seen_act` goes back with the visit, so that what others recorded meanwhile
    is noticed. `top_ups` turns a weighing into grams without asking the house.
    `heaviest_g` is more than it can weigh; None where nobody knows.
    """

    box: BoxDue
    last_visit_s: float
    visited: bool
    seen_act: int
    top_ups: tuple[TopUpStep, ...]
    heaviest_g: float | None
    shelves: tuple[tuple[str, str], ...]
    on_grid: bool
    mould_method: str


@dataclass(frozen=True)
class Round:
    as_of_s: float
    boxes: tuple[RoundBox, ...]


def round_now(house: HouseNow, as_of_s: float) -> Round:
    """Every box under way at `as_of_s`, by cabinet, shelf and code."""
    facts = house.facts()
    newest = newest_act_by_clutch()
    shelves = _shelves(facts)
    return Round(
        as_of_s,
        tuple(
            _round_box(facts, box, newest.get(box.now.clutch.entity, 0), shelves, as_of_s)
            for box in boxes_of_round(house, facts, lessons(house, facts), as_of_s)
        ),
    )


def day_of(now: ClutchNow, as_of_s: float) -> int:
    """Whole days since lay."""
    return int((as_of_s - now.clutch.laid_s) // SECONDS_PER_DAY)


def top_up_steps(water: BoxWater) -> tuple[TopUpStep, ...]:
    """What to add for every mass the scale can show, in the steps a keeper can pour."""
    if water.reference_g is None or not water.full_g:
        return ()
    steps: list[TopUpStep] = []
    # Halfway between two pours the rounding changes; empty is the last step.
    mass = water.reference_g
    while mass > max(water.reference_g - water.full_g - ROUND_TO_G, 0.0):
        told = top_up_by_scale(water, mass)
        if told is not None and (not steps or told.add_g != steps[-1].add_g):
            steps.append(TopUpStep(mass, told.add_g, told.split))
        elif steps:
            steps[-1] = TopUpStep(mass, steps[-1].add_g, steps[-1].split)
        mass -= 0.5
    if steps:
        steps[-1] = TopUpStep(0.0, steps[-1].add_g, steps[-1].split)
    return tuple(steps)


def _round_box(
    facts: Facts,
    box: BoxDue,
    seen_act: int,
    shelves: tuple[tuple[str, str], ...],
    as_of_s: float,
) -> RoundBox:
    water = box.now.water
    reference = water.reference_g if water else None
    own = facts.methods.get(box.now.clutch.entity)
    last_s = last_visit_s(facts, box.now, as_of_s)
    return RoundBox(
        box=box,
        last_visit_s=last_s,
        visited=last_s > box.now.clutch.laid_s,
        seen_act=seen_act,
        top_ups=top_up_steps(water) if water else (),
        heaviest_g=None if reference is None else reference + HEAVIER_G,
        shelves=shelves,
        on_grid=on_grid(box.now.box),
        mould_method=own.mould if own else STANDARD.mould,
    )


def _shelves(facts: Facts) -> tuple[tuple[str, str], ...]:
    """(cabinet, shelf) of the house, in order: where a box can be put."""
    rows = sorted(
        facts.shelves.values(), key=lambda s: (facts.cabinets[s.cabinet].name, s.position)
    )
    return tuple((facts.cabinets[s.cabinet].name, s.name) for s in rows)
