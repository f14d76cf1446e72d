"""The Losses place of one clutch."""

from dataclasses import dataclass

from sandboa.journal.clutch_now import ClutchNow, clutch_now
from sandboa.journal.forecasts_told import lessons
from sandboa.journal.house_now import HouseNow
from sandboa.journal.losses.why import ClutchLosses, losses_of
from sandboa.journal.photos import photos_of_owner
from sandboa.records.photos import Photo


@dataclass(frozen=True)
class LossesPage:
    now: ClutchNow
    losses: ClutchLosses
    photos: tuple[Photo, ...]


def losses_page(house: HouseNow, code: str, as_of_s: float) -> LossesPage:
    """Everything of a clutch's losses; NotFound for an unknown code."""
    facts = house.facts()
    clutch = facts.clutch_called(code)
    now = clutch_now(house, facts, clutch, as_of_s, lessons(house, facts))
    return LossesPage(
        now,
        losses_of(house, facts, clutch, as_of_s),
        tuple(photos_of_owner(clutch.entity)),
    )
