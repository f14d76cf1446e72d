"""Photos of lay days, clutches, eggs, hatchlings and animals: attached, listed, taken away."""

from dataclasses import dataclass
from typing import Literal

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import Step
from sandboa.core.units import CLOCK_GRACE_S, require_moment
from sandboa.records.clutches import Clutch, Egg, clutch_coded
from sandboa.records.database import transaction
from sandboa.records.facts import Act, act_of
from sandboa.records.hatching import Hatchling
from sandboa.records.house import Animal
from sandboa.records.lay_drafts import draft_numbered
from sandboa.records.notes import Note
from sandboa.records.photos import Photo, keep_picture, picture_path
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.recording import act
from sandboa.services.animals.individuals import individual, lower_first

__all__ = [
    "Picture",
    "attach",
    "photos_of_animal",
    "photos_of_clutch",
    "photos_of_egg",
    "photos_of_owner",
    "picture_path",
    "take_away",
]

#: Photos of one clutch, lay day or animal (assumption).
MOST_PHOTOS = 500
#: s by which the moment of one photo may differ between two deliveries (assumption).
_SAME_MOMENT_S = 5


@dataclass(frozen=True, slots=True)
class Picture:
    """A photo made safe to keep (see formats.pictures): JPEG bytes, a small one, px."""

    jpeg: bytes
    small: bytes
    width: int
    height: int


@dataclass(frozen=True, slots=True)
class PhotoCommand:
    """A photo of a lay day, clutch, hatchling or animal (`owner` is its id), taken at `taken_s`.

    `egg` when it is of one egg, `step` when it was taken at a step of lay day, or by
    torch. `delivered` photos waited on a device and may come twice: the same
    picture of the same thing and moment is then the same photo.
    """

    owner: int
    picture: Picture
    taken_s: float
    egg: int | None = None
    step: Step | Literal["candling"] | None = None
    delivered: bool = False


def attach(photo: PhotoCommand, now_s: float) -> tuple[Photo, Act]:
    """Keep a photo.

    Raises NotFound for an unknown owner or egg, NotPlausible for a time that
    is none or one photo too many.
    """
    words, clutch = _owner_words(photo.owner, photo.egg)
    _require_taken("taken_at", photo.taken_s, now_s)
    if len(Photo.current(owner_id=photo.owner)) >= MOST_PHOTOS:
        raise NotPlausible("file", f"{MOST_PHOTOS} photos are enough here")
    # The file first: a fact without its picture would be worse than a picture without its fact.
    name = keep_picture(photo.picture.jpeg, photo.picture.small)
    # Looked for and recorded in one: a device may deliver the same twice at once.
    with transaction():
        known = _delivered_before(photo, name) if photo.delivered else None
        if known is not None:
            return known, act_of(known)
        with act(ActKind.PHOTO, f"Photo of {words}", now_s, clutch) as attaching:
            kept = Photo.record(
                attaching,
                owner_id=photo.owner,
                egg_number=photo.egg,
                step=str(photo.step) if photo.step else "",
                taken_s=int(photo.taken_s),
                file=name,
                width=photo.picture.width,
                height=photo.picture.height,
            )
    return kept, attaching


def _require_taken(field: str, taken_s: float, now_s: float) -> None:
    require_moment(field, taken_s)
    if taken_s > now_s + CLOCK_GRACE_S:
        raise NotPlausible(field, "that time is in the future")


def _delivered_before(photo: PhotoCommand, name: str) -> Photo | None:
    for known in Photo.current(owner_id=photo.owner, file=name):
        if known.egg_number == photo.egg and abs(known.taken_s - photo.taken_s) <= _SAME_MOMENT_S:
            return known
    return None


def take_away(photo_entity: int, now_s: float) -> Act:
    """Take a photo out of the record; its file stays, for undo."""
    photo = Photo.now(photo_entity)
    if photo is None:
        raise NotFound("there is no such photo")
    with act(ActKind.PHOTO, "Photo taken away", now_s) as taking:
        photo.retire(taking)
    return taking


def correct_photo(photo: int, egg: int | None, taken_s: float, now_s: float) -> Act:
    """Correct when a photo was taken, and which egg of its clutch it shows: None for none.

    Raises NotFound for an unknown photo or egg, NotPlausible for a time that is none or ahead.
    """
    held = Photo.now(photo)
    if held is None:
        raise NotFound("there is no such photo")
    words, clutch = _owner_words(held.owner_id, egg)
    _require_taken("at", taken_s, now_s)
    with act(ActKind.PHOTO, f"Corrected: Photo of {words}", now_s, clutch) as correcting:
        held.correct(correcting, egg_number=egg, taken_s=int(taken_s))
    return correcting


def photos_of_owner(owner: int) -> list[Photo]:
    """Photos of a lay day or animal, oldest first."""
    return sorted(Photo.current(owner_id=owner), key=lambda p: (p.taken_s, p.id))


def photos_of_egg(clutch: int, number: int) -> list[Photo]:
    """Photos of one egg of a clutch, oldest first."""
    rows = Photo.current(owner_id=clutch, egg_number=number)
    return sorted(rows, key=lambda p: (p.taken_s, p.id))


def photos_of_animal(animal: Animal) -> list[Photo]:
    """Photos of an animal; of one that hatched here also those of its egg and from before it was
    held back. Oldest first."""
    rows = photos_of_owner(animal.entity_id)
    hatchling = Hatchling.now(animal.hatchling_id) if animal.hatchling_id is not None else None
    if hatchling is not None:
        rows += photos_of_owner(hatchling.entity_id)
        egg = Egg.now(hatchling.egg_id)
        rows += photos_of_egg(egg.clutch_id, egg.number) if egg else []
    return sorted(rows, key=lambda p: (p.taken_s, p.id))


def photos_of_clutch(code: str) -> list[Photo]:
    """Photos of a clutch and its eggs, oldest first; NotFound for an unknown code."""
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    return photos_of_owner(clutch.entity_id)


def _owner_words(owner: int, egg: int | None) -> tuple[str, int | None]:
    """What the photo is of, in words, and the clutch whose log it belongs to."""
    clutch = Clutch.now(owner)
    if clutch is not None:
        if egg is None:
            return clutch.code, clutch.entity_id
        if Egg.only(clutch_id=owner, number=egg) is None:
            raise NotFound(f"clutch {clutch.code} has no egg {egg}")
        return f"egg {egg}", clutch.entity_id
    if draft_numbered(owner) is not None:
        return (f"egg {egg}" if egg else "lay day"), None
    animal = Animal.now(owner)
    if animal is not None:
        return animal.name, None
    hatchling = Hatchling.now(owner)
    if hatchling is not None:
        who = individual(owner)
        return lower_first(who.name), who.clutch
    if Note.now(owner) is not None:
        return "a note", None
    raise NotFound("there is nothing such to take a photo of")
