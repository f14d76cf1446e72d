"""Anything of the house by its name: what answers best first, what is over after what is there."""

import pytest

from samples import DAY_S, NOW_S, animal, close_clutch, lay_day
from sandboa.services.lay_day import lay_clutch
from sandboa.services.notes.commands import write_note
from sandboa.services.overview.finding import LONGEST_SOUGHT, Found, Kind, find
from sandboa.services.probes.commands import ProbePlace, hang_probe, move_probe
from sandboa.services.snapshot.cache import SnapshotCache


@pytest.fixture
def full(house: SnapshotCache) -> SnapshotCache:
    lay_clutch(lay_day(80.0), NOW_S)
    close_clutch("26-01", NOW_S - DAY_S)
    lay_clutch(lay_day(10.0, dam="Rue", shelf="upper"), NOW_S)
    animal("dam", "Sorrel's daughter")
    hang_probe("Amber", ProbePlace(box="26-02"), NOW_S - 5 * DAY_S, NOW_S)
    snapshot = house.current()
    clutch = snapshot.clutch_called("26-02")
    write_note(clutch.entity_id, "Mould on the corner, wiped off\nlook again", NOW_S, NOW_S)
    return house


def found(house: SnapshotCache, sought: str, limit: int = 12) -> list[Found]:
    return find(house.current(), sought, NOW_S, limit)


def told(house: SnapshotCache, sought: str) -> list[tuple[str, str]]:
    return [(one.kind.value, one.name) for one in found(house, sought)]


def test_nothing_is_found_by_nothing(full: SnapshotCache) -> None:
    assert found(full, "") == found(full, "   ") == found(full, "nowhere") == []


def test_what_is_under_way_comes_before_what_is_closed(full: SnapshotCache) -> None:
    assert told(full, "26")[:2] == [("clutch", "26-02"), ("clutch", "26-01")]
    assert ("box", "Box 26-02") in told(full, "26")
    closed = next(one for one in found(full, "26-01") if one.kind is Kind.CLUTCH)
    assert closed.about == "Sorrel and Flint, closed"


def test_a_name_itself_comes_before_its_beginning(full: SnapshotCache) -> None:
    names = [name for kind, name in told(full, "sorrel") if kind == "animal"]
    assert names == ["Sorrel", "Sorrel's daughter"]
    # A clutch is found by its parents too, after what is called so itself.
    assert told(full, "flint")[0] == ("animal", "Flint")
    assert {("clutch", "26-01"), ("clutch", "26-02")} <= set(told(full, "flint"))


@pytest.mark.parametrize("sought", ["26-02/3", "26-02 / 3", "26-02 egg 3", "26-02 Egg 3"])
def test_an_egg_by_its_clutch_and_number(full: SnapshotCache, sought: str) -> None:
    egg = found(full, sought)[0]
    assert (egg.kind, egg.name, egg.place) == (Kind.EGG, "26-02/3", "/clutches/26-02/eggs/3")
    assert egg.about == "egg of Rue"


def test_an_egg_that_is_not_there_is_not_found(full: SnapshotCache) -> None:
    assert found(full, "26-02/99") == found(full, "99-99/1") == []


def test_cabinets_by_their_shelves_and_probes_by_where_they_hang(full: SnapshotCache) -> None:
    assert ("cabinet", "North") in told(full, "upper")
    probe = found(full, "amber")[0]
    assert (probe.kind, probe.about, probe.place) == (
        Kind.PROBE, "probe in North", "/cabinets/North",
    )  # fmt: skip
    move_probe(next(iter(full.current().probes)), None, NOW_S - 60, NOW_S)
    assert found(full, "amber")[0].about == "probe, taken down"


def test_notes_by_their_words(full: SnapshotCache) -> None:
    note = found(full, "mould corner")[0]
    assert (note.kind, note.about) == (Kind.NOTE, "note on 26-02")
    assert note.name.startswith("Mould on the corner, wiped off")
    assert note.place.startswith("/notes?words=Mould%20on%20the%20corner")


@pytest.mark.parametrize(
    ("sought", "name", "place"),
    [
        ("top up 26-02", "Top up 26-02", "/round/26-02"),
        ("Weigh rue", "Weigh Rue", None),
        ("weigh 26-02", "Weigh 26-02", "/round/26-02"),
        ("set point north", "Set point: North", "/cabinets/North"),
    ],
)
def test_what_may_be_done_where_it_begins_with_the_doing(
    full: SnapshotCache, sought: str, name: str, place: str | None
) -> None:
    act = found(full, sought)[0]
    assert (act.kind, act.name) == (Kind.ACT, name)
    assert place is None or act.place == place


def test_nothing_is_to_be_done_at_a_box_without_eggs(full: SnapshotCache) -> None:
    assert [one for one in found(full, "top up 26-01") if one.kind is Kind.ACT] == []


def test_as_many_as_are_asked_for_and_whatever_is_pasted(full: SnapshotCache) -> None:
    assert len(found(full, "26", limit=1)) == 1
    # What comes after more than anybody types is not looked at.
    assert found(full, "26-02" + " " * LONGEST_SOUGHT + "x") == found(full, "26-02")
    assert found(full, "%" * (LONGEST_SOUGHT * 100)) == []
    assert found(full, "/" * 5_000 + "1") == []
