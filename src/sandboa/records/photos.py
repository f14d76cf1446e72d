"""Photos: their facts, and their files beside the database, named by their own content."""

import hashlib
from pathlib import Path

from peewee import IntegerField, TextField

from sandboa.records.copies.photo_files import FOLDER, write_durably
from sandboa.records.database import database
from sandboa.records.facts import Fact


class Photo(Fact):
    """A photo of `owner` (a lay day, a clutch or an animal), of one egg where `egg_number` is set.

    `file` is the SHA-256 of the stored picture: no name a user gave is ever used.
    """

    owner_id = IntegerField()
    egg_number = IntegerField(null=True)
    step = TextField()
    taken_s = IntegerField()
    file = TextField()
    width = IntegerField()
    height = IntegerField()


def keep_picture(picture: bytes, thumbnail: bytes) -> str:
    """Write both files unless they are there already; returns their name.

    A picture is whole and on the disk, or absent. One that lies there damaged
    or empty is healed.
    """
    name = hashlib.sha256(picture).hexdigest()
    _keep(picture_path(name), picture)
    _keep(picture_path(name, small=True), thumbnail)
    return name


def put_picture(name: str, picture: bytes, thumbnail: bytes) -> bool:
    """Put a picture there under the name it has already; returns whether it was not there yet."""
    fresh = not picture_path(name).exists()
    _keep(picture_path(name), picture)
    _keep(picture_path(name, small=True), thumbnail)
    return fresh


def remove_pictures(names: list[str]) -> None:
    """Take away pictures that were put there for nothing."""
    for name in names:
        for small in (False, True):
            picture_path(name, small=small).unlink(missing_ok=True)


def picture_path(name: str, *, small: bool = False) -> Path:
    """Where a picture lies; ValueError for a name that is not a SHA-256."""
    if len(name) != 64 or not set(name) <= set("0123456789abcdef"):
        raise ValueError("not the name of a picture")
    return photo_folder() / f"{name}{'-small' if small else ''}.jpg"


def photo_folder() -> Path:
    return Path(database.obj.database).parent / FOLDER


def _keep(path: Path, content: bytes) -> None:
    if not path.is_file() or path.read_bytes() != content:
        write_durably(path, content)
