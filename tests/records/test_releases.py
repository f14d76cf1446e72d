"""Houses as each earlier version wrote them, by its own code: opened, equal, sound, and still live.

The files in `releases` are named by the last migration their version knew. Each holds three
clutches of which the last was undone, one corrected, a visit in which an egg was weighed and taken
out, water, looks, and a reason put off, as far as its version could record them.
"""

import gzip
from pathlib import Path

import pytest

from sandboa.core.box import BoxKind
from sandboa.formats.data_package import read_package
from sandboa.records.clutches import Box, EggStay
from sandboa.records.database import close_database, open_database
from sandboa.records.facts import Act, acts_about
from sandboa.records.integrity.check import MIGRATIONS, check
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import grade_egg, water_box
from sandboa.services.boxes.mass_ledger import account_in
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.snapshot.cache import SnapshotCache

RELEASES = Path(__file__).parent / "releases"
HOUSES = sorted(RELEASES.glob("*.sqlite3.gz"))
#: Versions that knew rounds: those before had no visits.
WITH_ROUNDS = "0004"


def now_of(house: SnapshotCache) -> float:
    return float(max(act.recorded_s for act in Act.select())) + 60.0


@pytest.fixture(params=HOUSES, ids=lambda path: path.name[:4])
def released(request: pytest.FixtureRequest, tmp_path: Path):
    path = tmp_path / "house.sqlite3"
    path.write_bytes(gzip.decompress(request.param.read_bytes()))
    open_database(path)
    yield request.param.name[:4], path
    close_database()


def test_every_earlier_version_has_its_house_here() -> None:
    known = [file.name[:4] for file in sorted(MIGRATIONS.glob("0*.py"))]
    assert [path.name[:4] for path in HOUSES] == known[:-1]


def test_it_opens_sound_and_says_what_was_recorded(released: tuple[str, Path]) -> None:
    version, path = released
    house = SnapshotCache()
    now_s = now_of(house)
    page = clutch_page(house.current(), "26-01", now_s)
    (box,) = page.now.boxes
    assert (box.box.name, box.kind, box.box.medium) == ("26-01", BoxKind.INCUBATION, "perlite")
    assert [round(egg.x, 3) for egg in page.now.eggs] == [0.2, 0.35, 0.5, 0.65, 0.8]
    assert str(page.now.count) == "5-1"
    assert page.now.eggs[0].grade is not None
    assert {entry.act.kind for entry in page.log} >= {"lay", "grade", "water"}
    water = account_in(house.current(), box.box, now_s).ledger
    assert sum(pour.water_g for pour in water.pours) == (65 if version >= WITH_ROUNDS else 45)
    if version >= WITH_ROUNDS:
        assert [change.delta_g for change in water.changes] == [-82]
        assert page.now.eggs[2].removed_s is not None
        held = house.current().box(box.box.entity_id)
        assert (len(held.visits), len(held.postponements)) == (1, 1)
    close_database()
    assert check(path).problems == ()


def test_a_corrected_clutch_and_an_undone_one_keep_their_history(
    released: tuple[str, Path],
) -> None:
    house = SnapshotCache()
    now_s = now_of(house)
    places = [round(egg.x, 3) for egg in clutch_page(house.current(), "26-02", now_s).now.eggs]
    assert places == [0.18, 0.315, 0.45, 0.585, 0.72]
    correcting = next(a for a in Act.select().order_by(Act.id) if a.kind == "correct")
    undoing = undo(correcting.id, now_s)
    before = clutch_page(house.current(), "26-02", now_s).now
    assert [round(egg.x, 3) for egg in before.eggs] == [0.2, 0.35, 0.5, 0.65, 0.8]
    assert before.day == 12
    undo(undoing.id, now_s)
    assert clutch_page(house.current(), "26-02", now_s).now.day == 13
    assert [c.code for c in house.current().clutches] == ["26-01", "26-02"]
    taken_back = Act.select().where(Act.kind == "undo").order_by(Act.id).first()
    undo(taken_back.id, now_s)
    again = clutch_page(house.current(), "26-03", now_s).now
    assert (len(again.eggs), again.box.box.name) == (5, "26-03")


def test_it_goes_on_being_recorded_in(released: tuple[str, Path]) -> None:
    house = SnapshotCache()
    now_s = now_of(house)
    grade_egg("26-01", 1, 2, now_s, now_s)
    water_box("26-01", 30.0, now_s, now_s)
    box = house.current().box_called("26-01")
    kinds = [act.kind for act in acts_about(box.entity_id, limit=2)]
    assert kinds == ["water", "grade"]
    assert clutch_page(house.current(), "26-01", now_s).now.eggs[0].grade == 2


@pytest.mark.parametrize("package", sorted(RELEASES.glob("*.zip")), ids=lambda path: path.name[:4])
def test_a_package_of_an_earlier_version_is_the_house_its_file_is(
    package: Path, tmp_path: Path
) -> None:
    """Whatever layout it has: eggs lie where they lay, and nothing is told twice."""
    told = []
    for name in ("from its file", "from its package"):
        path = tmp_path / name / "house.sqlite3"
        path.parent.mkdir()
        if name == "from its file":
            released = package.with_name(f"{package.name[:4]}.sqlite3.gz")
            path.write_bytes(gzip.decompress(released.read_bytes()))
        open_database(path)
        if name == "from its package":
            read_package(package)
        told.append(
            (
                [box.values() for box in Box.ever()],
                [stay.values() for stay in EggStay.ever()],
                [(act.kind, act.summary) for act in Act.select().order_by(Act.id)],
            )
        )
        close_database()
        assert check(path).problems == ()
    assert told[0] == told[1]
