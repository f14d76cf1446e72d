"""Photos: of what, how many, in which formats, and what becomes of them."""

import io
from pathlib import Path

import pytest
from PIL import Image

from samples import DAY_S, NOW_S, lay_day
from sandboa.core.errors import NotPlausible
from sandboa.formats import pictures
from sandboa.formats.picture_decoding import LONGER_SIDE, SMALL_SIDE
from sandboa.formats.pictures import NotAPicture, PictureReaders, readable_picture
from sandboa.records.clutches import Clutch
from sandboa.records.database import database
from sandboa.records.integrity.check import check
from sandboa.records.photos import picture_path
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import AnimalCommand, add_animal
from sandboa.services.clutches import photos
from sandboa.services.clutches.photos import Picture
from sandboa.services.lay_day import lay_clutch
from sandboa.services.snapshot.cache import SnapshotCache

PICTURE = Picture(b"a large one", b"a small one", 40, 30)


def encoded(kind: str, size: tuple[int, int] = (120, 80), mode: str = "RGB") -> bytes:
    out = io.BytesIO()
    Image.new(mode, size, 90).save(out, kind)
    return out.getvalue()


@pytest.fixture
def clutch(house: SnapshotCache) -> Clutch:
    lay_clutch(lay_day(3.0), NOW_S)
    (clutch,) = Clutch.current()
    return clutch


def attach(owner: int, egg: int | None = None, taken_s: float = NOW_S) -> photos.Photo:
    return photos.attach(photos.PhotoCommand(owner, PICTURE, taken_s, egg=egg), NOW_S)[0]


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP", "HEIF"])
def test_what_phones_and_cameras_write_is_read(kind: str) -> None:
    picture = readable_picture(encoded(kind))
    assert (picture.width, picture.height) == (120, 80)
    with Image.open(io.BytesIO(picture.jpeg)) as image:
        assert image.format == "JPEG"


@pytest.mark.parametrize("mode", ["L", "RGBA", "P", "1"])
def test_grey_transparent_and_indexed_pictures_become_plain_ones(mode: str) -> None:
    with Image.open(io.BytesIO(readable_picture(encoded("PNG", mode=mode)).jpeg)) as image:
        assert image.mode == "RGB"


def test_the_small_one_is_small_and_a_small_one_is_not_blown_up() -> None:
    large = readable_picture(encoded("JPEG", (1200, 300)))
    with Image.open(io.BytesIO(large.small)) as small:
        assert small.size == (SMALL_SIDE, SMALL_SIDE // 4)
    tiny = readable_picture(encoded("JPEG", (20, 10)))
    assert (tiny.width, tiny.height) == (20, 10)


def bomb(width: int, height: int) -> bytes:
    """A PNG that says how large it is and holds next to nothing."""
    import struct
    import zlib

    def chunk(kind: bytes, content: bytes) -> bytes:
        whole = kind + content
        return struct.pack(">I", len(content)) + whole + struct.pack(">I", zlib.crc32(whole))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    rows = zlib.compress(bytes(1_000_000))
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")


def test_fifty_million_pixels_are_read_and_more_are_refused_at_once() -> None:
    large = encoded("PNG", (10_000, 5_000), mode="L")
    assert readable_picture(large).width == LONGER_SIDE
    for width, height in ((10_000, 5_001), (60_000, 60_000)):
        with pytest.raises(NotAPicture, match=r"too many pixels|cannot be read|can be read"):
            readable_picture(bomb(width, height))


def test_a_picture_that_ends_its_process_or_takes_too_long_is_none_and_the_next_is_read(
    monkeypatch,
) -> None:
    hasty = PictureReaders(patience_s=0.0)
    with pytest.raises(NotAPicture, match="too much memory or time"):
        hasty.read(encoded("PNG", (3_000, 3_000)))
    hasty.patience_s = 60.0
    assert hasty.read(encoded("PNG")).width == 120
    hasty.give_up()


def test_what_is_no_picture_costs_no_process() -> None:
    readers = PictureReaders()
    readers.read(encoded("PNG"))
    (before,) = readers._idle
    with pytest.raises(NotAPicture, match="can be read"):
        readers.read(b"a letter")
    assert readers._idle == [before]
    readers.give_up()


def test_a_photo_larger_than_any_phones_is_refused(monkeypatch) -> None:
    monkeypatch.setattr(pictures, "LARGEST_PHOTO_BYTES", 100)
    with pytest.raises(NotAPicture, match="larger than"):
        readable_picture(bytes(101))


def test_of_an_egg_of_the_clutch_and_of_an_animal(clutch: Clutch) -> None:
    of_egg = attach(clutch.entity_id, egg=2, taken_s=NOW_S - 60)
    of_all = attach(clutch.entity_id, taken_s=NOW_S - DAY_S)
    assert [p.id for p in photos.photos_of_clutch("26-01")] == [of_all.id, of_egg.id]
    dam, _ = add_animal(AnimalCommand("dam", "Tansy"), NOW_S)
    assert attach(dam).owner_id == dam
    with pytest.raises(NotFound, match="clutch 26-01 has no egg 9"):
        attach(clutch.entity_id, egg=9)
    with pytest.raises(NotFound, match="nothing such"):
        attach(99_999)
    with pytest.raises(NotFound, match="no clutch 26-99"):
        photos.photos_of_clutch("26-99")


def test_a_photo_of_the_future_or_one_too_many_is_refused(clutch: Clutch, monkeypatch) -> None:
    with pytest.raises(NotPlausible, match="future"):
        attach(clutch.entity_id, taken_s=NOW_S + DAY_S)
    monkeypatch.setattr(photos, "MOST_PHOTOS", 1)
    attach(clutch.entity_id)
    with pytest.raises(NotPlausible, match="1 photos are enough"):
        attach(clutch.entity_id)
    assert len(photos.photos_of_clutch("26-01")) == 1


def test_taken_away_and_back_the_file_stays(clutch: Clutch) -> None:
    photo = attach(clutch.entity_id)
    taking = photos.take_away(photo.entity_id, NOW_S)
    assert photos.photos_of_clutch("26-01") == []
    assert photos.picture_path(photo.file).read_bytes() == PICTURE.jpeg
    with pytest.raises(NotFound):
        photos.take_away(photo.entity_id, NOW_S)
    undo(taking.id, NOW_S)
    assert [p.file for p in photos.photos_of_clutch("26-01")] == [photo.file]


def test_the_same_picture_twice_is_one_file_and_two_photos(clutch: Clutch, tmp_path) -> None:
    first, second = attach(clutch.entity_id, egg=1), attach(clutch.entity_id, egg=2)
    assert first.file == second.file
    assert len(list((tmp_path / "photos").iterdir())) == 2


def test_a_photo_that_waited_on_a_phone_and_comes_twice_is_one(clutch: Clutch) -> None:
    def bring(taken_s: float, egg: int = 1, *, delivered: bool = True) -> int:
        kept, _ = photos.attach(
            photos.PhotoCommand(
                clutch.entity_id, PICTURE, taken_s, egg, "candling", delivered=delivered
            ),
            NOW_S,
        )
        return kept.entity_id

    first = bring(NOW_S - 60)
    assert bring(NOW_S - 59) == first
    assert bring(NOW_S - 60, egg=2) != first
    assert bring(NOW_S - 3600) != first
    assert bring(NOW_S - 60, delivered=False) != first


def test_a_check_of_the_house_finds_pictures_that_were_changed_or_are_gone(clutch: Clutch) -> None:
    name = attach(clutch.entity_id).file
    house = Path(database.obj.database)
    assert check(house).problems == ()
    assert check(house).found.endswith(", 1 photos")
    picture_path(name, small=True).unlink()
    assert check(house).problems == (f"the small picture of {name[:12]}... is missing",)
    picture_path(name).write_bytes(b"another one")
    assert check(house).problems == (f"the photo {name[:12]}... is damaged",)
    picture_path(name).unlink()
    assert check(house).problems == (f"the photo {name[:12]}... is missing",)
