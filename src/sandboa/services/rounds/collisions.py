"""Two devices at one box: what the other recorded meanwhile, told and never lost."""

from collections.abc import Iterator

from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.records import rounds
from sandboa.records.clutches import Box, EggStay, Turgor
from sandboa.services.rounds.box_under_visit import BoxUnderVisit


def collisions(at: BoxUnderVisit) -> Iterator[str]:
    """What was recorded at this box since the device last heard of it, where it collides."""
    seen_act = at.visit.seen_act
    if seen_act is None:
        return
    visits = rounds.Visit.since(seen_act, box_id=at.box.entity_id)
    own = {v.act_id for v in visits if device_of(v.key) == device_of(at.visit.key)}
    if any(other.act_id not in own for other in visits):
        yield (
            f"Another device closed box {at.box.name} meanwhile. "
            "Both visits are kept; the later look counts."
        )
    poured = sum(
        w.water_g for w in at.rows.waterings if w.act_id > seen_act and w.act_id not in own
    )
    if poured and at.visit.water_g:
        yield (
            f"{poured:g} g of water had been added meanwhile; with these "
            f"{at.visit.water_g:g} g it is {poured + at.visit.water_g:g} g. "
            "Undo one if it is the same water."
        )
    for seen, egg in zip(at.visit.eggs, at.eggs, strict=True):
        for look in Turgor.since(seen_act, egg_id=egg.entity_id):
            if look.act_id not in own and seen.grade not in (None, look.grade):
                yield (
                    f"Egg {seen.number}: meanwhile {GRADE_WORDS[look.grade]} was recorded, "
                    f"this visit says {GRADE_WORDS[seen.grade]}."
                )
                break
    yield from _moved_meanwhile(at, own)


def _moved_meanwhile(at: BoxUnderVisit, own: set[int]) -> Iterator[str]:
    for group in at.moved:
        for egg in group:
            for stay in EggStay.since(at.visit.seen_act or 0, egg_id=egg.entity_id):
                box = Box.now(stay.box_id)
                if stay.act_id not in own and box is not None:
                    yield (
                        f"Egg {egg.number} had been moved to {box.name} meanwhile. "
                        "Both moves are kept; the later one counts."
                    )


def device_of(key: str) -> str:
    """The device a visit's key names: what stands before the first dot; itself without one."""
    return key.partition(".")[0]
