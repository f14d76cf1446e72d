"""The round as a phone carries it: every box with its last visit, due reasons and grams."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from sandboa.core.methods import STANDARD
from sandboa.core.water.ledger import heaviest_g
from sandboa.core.water.top_up import BOX_MASS_RANGE_G
from sandboa.records.facts import newest_act_by
from sandboa.services.boxes.water import BoxWater, top_up_by_scale
from sandboa.services.moment.as_of import AsOf, at_hand
from sandboa.services.rounds.due_now import BoxDue, boxes_of_round, cloth_since_s, last_visit_s
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class TopUpStep:
    """A box that weighs `from_g` or more, and less than the step before, lacks `add_g`."""

    from_g: float
    add_g: float
    today_g: float
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
    mould_method: str
    cloth_on: bool


@dataclass(frozen=True)
class Round:
    """`shelves` are (cabinet, shelf) of the house: where a box can be put back."""

    as_of_s: float
    boxes: tuple[RoundBox, ...]
    shelves: tuple[tuple[str, str], ...]


def round_now(snapshot: Snapshot, as_of_s: float) -> Round:
    """Every box with live eggs at `as_of_s`, by cabinet, shelf and name."""
    newest, at = newest_act_by("box", snapshot.version), at_hand(snapshot, as_of_s)
    return Round(
        as_of_s,
        tuple(
            _round_box(at, box, newest.get(box.box.box.entity_id, 0))
            for box in boxes_of_round(snapshot, as_of_s)
        ),
        tuple(_shelves(snapshot)),
    )


def top_up_steps(water: BoxWater) -> tuple[TopUpStep, ...]:
    """What is missing for every mass the scale can show, in the steps a keeper can pour."""
    if water.reference_g is None or not water.full_g:
        return ()
    steps, step_g = [], water.rules.round_to_g
    for missing_g in np.arange(0.0, water.full_g + step_g, step_g):
        told = top_up_by_scale(water, max(water.reference_g - missing_g, BOX_MASS_RANGE_G[0]))
        assert told is not None, "its reference is known"
        # Halfway to the next step the rounding changes.
        from_g = max(water.reference_g - missing_g - step_g / 2, 0.0)
        steps.append(TopUpStep(from_g, told.add_g, told.today_g, told.split))
    return (*steps[:-1], replace(steps[-1], from_g=0.0))


def _round_box(at: AsOf, box: BoxDue, seen_act: int) -> RoundBox:
    own = box.box.box.entity_id
    return at.of_box(own).held(("round", own), seen_act, lambda: _as_carried(at, box, seen_act))


def _as_carried(at: AsOf, box: BoxDue, seen_act: int) -> RoundBox:
    snapshot, as_of_s, water = at.snapshot, at.at_s, box.box.water
    own = snapshot.clutch(box.clutches[0].clutch.entity_id).method
    last_s = last_visit_s(snapshot, box.box, as_of_s)
    return RoundBox(
        box=box,
        last_visit_s=last_s,
        visited=any(v.closed_s == last_s for v in snapshot.box(box.box.box.entity_id).visits),
        seen_act=seen_act,
        top_ups=top_up_steps(water) if water else (),
        heaviest_g=None if water is None else heaviest_g(water.ledger, as_of_s),
        mould_method=own.mould if own else STANDARD.mould,
        cloth_on=cloth_since_s(snapshot, box.box.box.entity_id, as_of_s) is not None,
    )


def _shelves(snapshot: Snapshot) -> Iterator[tuple[str, str]]:
    """In order of cabinet and shelf."""
    named = [(snapshot.cabinets[s.cabinet_id].name, s) for s in snapshot.shelves.values()]
    for cabinet, shelf in sorted(named, key=lambda n: (n[0], n[1].position)):
        yield cabinet, shelf.name
