"""A lay day step by step: saved, found on another device, recorded whole, undone, reopened."""

import io
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from PIL import Image

from samples import DAY_S, NOW, NOW_S, lay_day
from sandboa.core.candling import Disc, Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EggEvent, Lump, Step
from sandboa.core.methods import STANDARD, DamSchool
from sandboa.formats.picture_decoding import LONGER_SIDE
from sandboa.formats.pictures import NotAPicture, readable_picture
from sandboa.services.acts.errors import Conflict, NotFound, Question
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import AnimalCommand, add_animal, weigh
from sandboa.services.clutches import photos
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.clutches.methods import (
    add_method,
    change_clutch_method,
    change_method,
    house_methods,
)
from sandboa.services.lay_day import drafts, lay_clutch
from sandboa.services.lay_day.state import EggState, HappeningState, LayDayState
from sandboa.services.overview.today import today
from sandboa.services.snapshot.cache import SnapshotCache

LAID = NOW - timedelta(hours=3)


def begun(dam: str = "Costmary", **more: object) -> int:
    return drafts.begin(dam, "Chert", LAID, NOW_S, **more)  # type: ignore[arg-type]


def full_state(draft: int) -> LayDayState:
    """Seven eggs: one slug, one underneath and turned, two stuck together."""
    state = drafts.lay_day_now(draft, NOW_S).state
    eggs = [
        EggState(x=0.1 + 0.12 * i, y=0.5, vessels=Vessels.STRONG, disc=Disc.TOP, mass_g=82.0)
        for i in range(7)
    ]
    eggs[6] = eggs[6].model_copy(update={"slug": True})
    turned = HappeningState(kind=EggEvent.TURNED, at=NOW)
    eggs[2] = eggs[2].model_copy(update={"disc": Disc.UNDER, "events": [turned]})
    for i in (3, 4):
        eggs[i] = eggs[i].model_copy(update={"clump": 1})
    values = {
        "eggs": eggs, "lump": Lump.NONE, "marked": True, "dam_mass_g": 1250.0,
        "dry_mass_g": 200.0, "water_g": 200.0, "set_up_mass_g": 1410.0,
        "cabinet": "North", "shelf": "lower", "set_point_c": 31.5,
    }  # fmt: skip
    return state.model_copy(update=values)


def jpeg(size: tuple[int, int] = (320, 200), exif: bytes | None = None) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (200, 180, 150)).save(out, "JPEG", **({"exif": exif} if exif else {}))
    return out.getvalue()


def test_a_whole_lay_day_becomes_one_clutch_in_one_act(house: SnapshotCache) -> None:
    draft = begun()
    picture = readable_picture(jpeg())
    photos.attach(photos.PhotoCommand(draft, picture, NOW_S, 3, Step.EGGS), NOW_S)
    drafts.save(draft, 1, Step.SHELF, full_state(draft), NOW_S)
    code, laying = drafts.record(draft, NOW_S)
    page = clutch_page(house.current(), code, NOW_S)
    assert str(page.now.count) == "7-1"
    third = page.now.eggs[2]
    assert third.events == ("turned",)
    assert third.torchlight.disc is Disc.TOP
    assert third.mass_g == 82.0
    assert page.now.eggs[3].clump == page.now.eggs[4].clump == 1
    assert page.now.eggs[6].torchlight.vessels is None
    assert page.now.box.box.set_up_mass_g == 1410.0
    assert [p.egg_number for p in photos.photos_of_clutch(code)] == [3]
    assert drafts.open_lay_days(NOW_S) == []
    with pytest.raises(Conflict, match="recorded already"):
        drafts.record(draft, NOW_S)
    with pytest.raises(Conflict, match="correct it on its page"):
        drafts.save(draft, 2, Step.SHELF, full_state(draft), NOW_S)

    undo(laying.id, NOW_S)
    (again,) = drafts.open_lay_days(NOW_S)
    assert (again.id, again.count and str(again.count)) == (draft, "7-1")
    assert len(photos.photos_of_owner(draft)) == 1


def test_two_devices_notice_each_other_and_nothing_is_lost(house: SnapshotCache) -> None:
    draft = begun()
    assert drafts.save(draft, 1, Step.COUNT, full_state(draft), NOW_S) == 2
    with pytest.raises(Conflict, match="another device"):
        drafts.save(draft, 1, Step.DAM, drafts.lay_day_now(draft, NOW_S).state, NOW_S)
    assert drafts.lay_day_now(draft, NOW_S).step is Step.COUNT


def test_what_is_missing_names_its_step(house: SnapshotCache) -> None:
    draft = begun()
    with pytest.raises(NotPlausible) as refusal:
        drafts.record(draft, NOW_S)
    assert refusal.value.field == "count"
    state = full_state(draft).model_copy(update={"shelf": ""})
    drafts.save(draft, 1, Step.SHELF, state, NOW_S)
    with pytest.raises(NotPlausible) as refusal:
        drafts.record(draft, NOW_S)
    assert refusal.value.field == "shelf"
    assert today(house.current(), NOW_S).boxes == ()


def test_a_second_clutch_within_60_days_is_asked_about(house: SnapshotCache) -> None:
    lay_clutch(lay_day(23.0, dam="Costmary"), NOW_S)
    with pytest.raises(Question, match="Costmary laid 26-01 23 days apart"):
        begun()
    lay_clutch(lay_day(0.2, dam="Tansy"), NOW_S)
    with pytest.raises(Question, match="Tansy laid 26-02 the same day as this"):
        begun("Tansy")
    begun(second_clutch=True)
    with pytest.raises(Conflict, match="open already"):
        begun(second_clutch=True)


def test_a_sire_as_dam_and_a_time_to_come_are_refused(house: SnapshotCache) -> None:
    add_animal(AnimalCommand("sire", "Flint"), NOW_S)
    with pytest.raises(NotPlausible, match="Costmary is the dam"):
        drafts.begin("Costmary", "costmary ", LAID, NOW_S)
    with pytest.raises(Conflict, match="Flint is recorded as a sire"):
        begun("Flint")
    with pytest.raises(NotPlausible, match="future"):
        drafts.begin("Sorrel", None, NOW + timedelta(hours=1), NOW_S)
    assert drafts.open_lay_days(NOW_S) == []


def test_found_again_three_days_later_it_says_so_and_forbids_turning(house: SnapshotCache) -> None:
    draft = begun()
    state = full_state(draft)
    state.eggs[2] = state.eggs[2].model_copy(update={"events": []})
    drafts.save(draft, 1, Step.EGGS, state, NOW_S)
    fresh = drafts.lay_day_now(draft, NOW_S)
    assert fresh.found_again is None
    assert fresh.turning[2]
    assert fresh.turning[2].turn
    later = drafts.lay_day_now(draft, NOW_S + 3 * DAY_S)
    assert "Left half-finished 3 days ago" in (later.found_again or "")
    assert "do not turn any" in (later.found_again or "")
    assert later.turning[2]
    assert not later.turning[2].turn
    assert later.state.eggs == state.eggs


def test_set_aside_and_taken_out_again(house: SnapshotCache) -> None:
    draft = begun()
    drafts.set_aside(draft, True)
    assert drafts.open_lay_days(NOW_S) == []
    drafts.set_aside(draft, False)
    assert len(drafts.open_lay_days(NOW_S)) == 1
    with pytest.raises(NotFound):
        drafts.set_aside(9999, True)


def test_what_laying_cost_her_is_worked_out_from_her_last_weight(house: SnapshotCache) -> None:
    dam, _ = add_animal(AnimalCommand("dam", "Costmary"), NOW_S)
    weigh(dam, 1850.0, NOW_S - 30 * DAY_S, NOW_S)
    draft = begun()
    drafts.save(draft, 1, Step.DAM, full_state(draft), NOW_S)
    loss = drafts.lay_day_now(draft, NOW_S).dam_loss
    assert loss
    assert loss.share == pytest.approx(0.324, abs=0.001)
    assert loss.usual


def test_a_brooding_dam_changes_steps_clock_and_record(house: SnapshotCache) -> None:
    maternal = replace(STANDARD, name="Her own", dam=DamSchool.MATERNAL)
    taken, _ = lay_clutch(lay_day(20.0, dam="Sorrel"), NOW_S)
    draft = begun()
    state = full_state(draft).model_copy(
        update={"method": maternal, "cabinet": "Costmary's tub", "shelf": "tub"}
    )
    drafts.save(draft, 1, Step.SHELF, state, NOW_S)
    assert Step.EGGS not in drafts.lay_day_now(draft, NOW_S).steps
    code, _ = drafts.record(draft, NOW_S)
    page = clutch_page(house.current(), code, NOW_S + 20 * DAY_S)
    assert page.now.maternal
    assert page.now.box.box.medium is None
    assert page.now.eggs[2].events == ()
    other = clutch_page(house.current(), taken, NOW_S)
    assert page.now.forecast.log_sd == pytest.approx(2 * other.now.forecast.log_sd, rel=0.05)


def test_house_methods_are_copied_and_differences_shown(house: SnapshotCache) -> None:
    assert house_methods()[0].method == STANDARD
    slow = replace(STANDARD, name="Slow", temperature_c=30.0)
    entity, _ = add_method(slow, NOW_S, chosen=True)
    code, _ = lay_clutch(lay_day(3.0, method=slow, set_point_c=30.0), NOW_S)
    assert clutch_page(house.current(), code, NOW_S).differences == ()
    change_clutch_method(code, replace(slow, temperature_c=30.5), NOW_S)
    (difference,) = clutch_page(house.current(), code, NOW_S).differences
    assert (str(difference.house), str(difference.own)) == ("30.0 °C", "30.5 °C")
    # The house moves on; the clutch keeps its copy.
    change_method(entity, replace(slow, temperature_c=29.5), NOW_S, chosen=True)
    assert clutch_page(house.current(), code, NOW_S).method.temperature_c == 30.5
    with pytest.raises(Conflict, match="method Slow already"):
        add_method(slow, NOW_S, chosen=False)


def test_a_photo_is_made_new_upright_and_without_metadata(
    house: SnapshotCache, tmp_path: Path
) -> None:
    exif = Image.Exif()
    exif[0x0112] = 6
    exif[0x010F] = "Camera of somebody"
    picture = readable_picture(jpeg((3000, 1000), exif.tobytes()))
    assert (picture.width, picture.height) == (round(1000 * LONGER_SIDE / 3000), LONGER_SIDE)
    assert b"somebody" not in picture.jpeg
    assert len(Image.open(io.BytesIO(picture.jpeg)).getexif()) == 0
    draft = begun()
    photo, attaching = photos.attach(
        photos.PhotoCommand(draft, picture, NOW_S, step=Step.PREPARE), NOW_S
    )
    kept = photos.picture_path(photo.file)
    assert kept.parent == tmp_path / "photos"
    assert kept.read_bytes() == picture.jpeg
    undo(attaching.id, NOW_S)
    assert photos.photos_of_owner(draft) == []
    for name in ("../../etc/passwd", "a" * 63 + "/", ""):
        with pytest.raises(ValueError, match="not the name"):
            photos.picture_path(name)


@pytest.mark.parametrize(
    "content", [b"", b"GIF89a nothing", b"\xff\xd8\xff\xe0 half a photo", b"<svg/>" * 50]
)
def test_what_is_no_photo_is_told_so(content: bytes) -> None:
    with pytest.raises(NotAPicture):
        readable_picture(content)


def test_a_candling_is_due_again_from_day_five(house: SnapshotCache) -> None:
    day = lay_day(4.9)
    eggs = (replace(day.eggs[0], vessels=Vessels.WEAK), *day.eggs[1:])
    # The first look is recorded on lay day itself.
    laid_s = day.laid_at.timestamp()
    lay_clutch(replace(day, eggs=eggs), laid_s)
    assert not today(house.current(), NOW_S).boxes[0].attention
    texts = [a.text for a in today(house.current(), NOW_S + 0.2 * DAY_S).boxes[0].attention]
    assert texts == ["Candle egg 1 again (day 5-7): unsure at the last look."]
    assert datetime.fromtimestamp(laid_s, UTC) == day.laid_at


def test_one_set_aside_is_listed_and_taken_up_again_unless_she_has_another(
    house: SnapshotCache,
) -> None:
    first = drafts.begin("Sorrel", None, NOW, NOW_S)
    drafts.set_aside(first, True)
    assert drafts.open_lay_days(NOW_S) == []
    (held,) = drafts.open_lay_days(NOW_S, aside=True)
    assert (held.id, held.state.dam) == (first, "Sorrel")
    second = drafts.begin("Sorrel", None, NOW, NOW_S)
    with pytest.raises(Conflict, match="Sorrel is open already"):
        drafts.set_aside(first, False)
    drafts.set_aside(second, True)
    drafts.set_aside(first, False)
    assert [day.id for day in drafts.open_lay_days(NOW_S)] == [first]
    assert [day.id for day in drafts.open_lay_days(NOW_S, aside=True)] == [second]
