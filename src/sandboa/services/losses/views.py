"""The Losses place of one clutch."""

from dataclasses import dataclass

from sandboa.records.photos import Photo
from sandboa.services.clutches.clutch_view import ClutchNow, clutch_now
from sandboa.services.clutches.photos import photos_of_owner
from sandboa.services.losses.why import ClutchLosses, losses_of
from sandboa.services.moment.lessons import lessons
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True)
class LossesPage:
    now: ClutchNow
    losses: ClutchLosses
    photos: tuple[Photo, ...]


def losses_page(snapshot: Snapshot, code: str, as_of_s: float) -> LossesPage:
    """Everything of a clutch's losses; NotFound for an unknown code."""
    clutch = snapshot.clutch_called(code)
    now = clutch_now(snapshot, clutch, as_of_s, lessons(snapshot))
    return LossesPage(
        now,
        losses_of(snapshot, clutch, as_of_s),
        tuple(photos_of_owner(clutch.entity_id)),
    )
