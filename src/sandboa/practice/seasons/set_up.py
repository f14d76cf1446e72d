"""What a box weighed when it was set up, as a keeper reckons it."""

from typing import Final

from sandboa.devices.simulation.kept import BoxSeen, KeptSeason

#: g of an egg, as a keeper reckons when one is taken out of a box.
_EGG_G: Final = 82.0


def set_up_g(season: KeptSeason, box: int, seen: BoxSeen | None) -> float:
    """g of the box at set-up, less the eggs that were seen to be taken out since."""
    plan = season.plan.boxes[box]
    inside = int((season.plan.box_of == box).sum())
    if seen is not None:
        inside -= sum(egg.removed or egg.isolated for egg in seen.eggs)
    return plan.dry_g + plan.water_g + _EGG_G * inside
