"""A clutch's whole story, from lay to what became of its eggs: for a vet, or for a friend."""

from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.records.photos import Photo
from sandboa.services.acts.log import LogEntry, log_about
from sandboa.services.clutches.clutch_view import ClutchPage, clutch_page
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.clutches.egg_view import EggMoment, egg_page
from sandboa.services.clutches.photos import photos_of_clutch
from sandboa.services.snapshot.snapshot import Snapshot

#: Acts and photos a story has at most (assumption: a clutch visited twice a day, and photographed
#: each week).
_MOST_ACTS = 1_000
_MOST_PHOTOS = 60
#: Kinds of acts that are no part of the story: what was done at the desk.
_NO_PART = frozenset({ActKind.UNDO.value, ActKind.REDO.value, ActKind.PHOTO.value})


@dataclass(frozen=True, slots=True)
class EggStory:
    """An egg and what was seen of it, the earliest first."""

    egg: EggView
    moments: tuple[EggMoment, ...]


@dataclass(frozen=True)
class ClutchStory:
    """`told_s` is when it is told, `acts` and `photos` are in order of time; of `photos_in_all`
    the latest are among them."""

    page: ClutchPage
    told_s: float
    eggs: tuple[EggStory, ...]
    acts: tuple[LogEntry, ...]
    photos: tuple[Photo, ...]
    photos_in_all: int


def clutch_story(snapshot: Snapshot, code: str, as_of_s: float) -> ClutchStory:
    """Everything that was recorded of a clutch; NotFound for an unknown one.

    What was taken back is left out. Of a closed clutch the curve ends when it was closed.
    """
    clutch = snapshot.clutch_called(code)
    finished = snapshot.clutch(clutch.entity_id).finished
    # A box goes on being warm after its eggs are gone.
    until_s = as_of_s if finished is None else min(as_of_s, float(finished.at_s))
    page = clutch_page(snapshot, clutch.code, until_s)
    eggs = [egg_page(snapshot, clutch.code, egg.number, until_s) for egg in page.now.eggs]
    acts = [
        entry
        for entry in log_about(clutch.entity_id, _MOST_ACTS)
        if not entry.undone and entry.act.kind not in _NO_PART
    ]
    photos = sorted(photos_of_clutch(clutch.code), key=lambda photo: (photo.taken_s, photo.id))
    return ClutchStory(
        page,
        as_of_s,
        tuple(EggStory(own.egg, tuple(reversed(own.history))) for own in eggs),
        tuple(sorted(acts, key=lambda entry: (entry.happened_s, entry.act.id))),
        tuple(photos[-_MOST_PHOTOS:]),
        len(photos),
    )
