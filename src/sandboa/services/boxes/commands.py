"""At the box: an egg's dents, what the torch shows, and water poured."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.candling import Disc, Vessels, vessels_words
from sandboa.core.dimples import excess_grade
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.errors import NotPlausible
from sandboa.core.units import require_range
from sandboa.core.water.top_up import POURED_RANGE_G
from sandboa.records.clutches import Candling, Turgor, Watering
from sandboa.records.facts import Act
from sandboa.services.acts.preconditions import (
    box_called,
    clutch_called,
    egg_of,
    require_between_lay_and_now,
    require_between_set_up_and_now,
    require_in_box,
)
from sandboa.services.acts.recording import act


def grade_egg(code: str, number: int, grade: int, seen_s: float, now_s: float) -> Act:
    """Record an egg's turgor grade 0-4 as seen at `seen_s`.

    Raises NotFound for an unknown clutch or egg; NotPlausible for a slug, an
    egg that was removed, a grade that is not 0-4, or a time before lay or after now.
    """
    clutch = clutch_called(code)
    egg = egg_of(clutch, number)
    if egg.slug:
        raise NotPlausible("number", f"egg {number} is a slug: dents say nothing about it")
    excess_grade(0.0, grade)  # the one place that knows which grades there are
    require_between_lay_and_now(clutch, seen_s, now_s)
    require_in_box(egg, seen_s)
    with act(
        ActKind.GRADE, f"Egg {number}: {GRADE_WORDS[grade]}", now_s, clutch.entity_id
    ) as looking:
        Turgor.record(looking, egg_id=egg.entity_id, seen_s=int(seen_s), grade=grade)
    return looking


def candle_egg(
    code: str, number: int, vessels: Vessels, disc: Disc | None, seen_s: float, now_s: float
) -> Act:
    """Record what the torch showed; `disc` None when it was not looked for.

    Raises NotFound for an unknown clutch or egg; NotPlausible for a slug, an
    egg that was removed, or a time before lay or after now.
    """
    clutch = clutch_called(code)
    egg = egg_of(clutch, number)
    if egg.slug:
        raise NotPlausible("number", f"egg {number} is a slug: there are no vessels to see")
    require_between_lay_and_now(clutch, seen_s, now_s)
    require_in_box(egg, seen_s)
    words = f"Egg {number} candled: {vessels_words(vessels)}"
    with act(ActKind.CANDLE, words, now_s, clutch.entity_id) as candling:
        Candling.record(
            candling,
            egg_id=egg.entity_id,
            seen_s=int(seen_s),
            vessels=vessels.value,
            disc=disc.value if disc else None,
        )
    return candling


def water_box(name: str, water_g: float, poured_s: float, now_s: float) -> Act:
    """Record water poured into a box (g, within POURED_RANGE_G)."""
    box = box_called(name)
    require_range("water", water_g, POURED_RANGE_G, "g")
    require_between_set_up_and_now(box, poured_s, now_s)
    words = f"Box {box.name}: {water_g:g} g of water added"
    with act(ActKind.WATER, words, now_s) as pouring:
        Watering.record(pouring, box_id=box.entity_id, poured_s=int(poured_s), water_g=water_g)
    return pouring
