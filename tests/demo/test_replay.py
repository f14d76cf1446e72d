"""A simulated season told through the use cases: whole, or with things withheld."""

from collections import Counter
from pathlib import Path

import pytest

from sandboa.demo.replay import ReplayScope, tell
from sandboa.devices.simulation.season import SEASON_DAYS, season
from sandboa.records.database import open_database
from sandboa.records.facts import Act
from sandboa.services.losses.why import losses_of
from sandboa.services.snapshot.cache import SnapshotCache

BEGAN_S = 1_743_465_600.0
STORY = season(1_001, BEGAN_S, cabinets=1, clutches=3)
DAY_S = 86_400.0


def told(folder: Path, how: ReplayScope) -> tuple[Counter, SnapshotCache]:
    """Kinds of acts in a house that was told the season, and the house, open."""
    open_database(folder / "house.sqlite")
    for _, happen in sorted(tell(STORY, BEGAN_S, how), key=lambda event: event[0]):
        happen()
    return Counter(act.kind for act in Act.select()), SnapshotCache()


@pytest.fixture(autouse=True)
def closed_afterwards():
    from sandboa.records.database import database

    yield
    database.close()


def test_every_act_is_one_the_product_knows_and_happened_in_its_time(tmp_path: Path) -> None:
    kinds, _ = told(tmp_path, ReplayScope())
    assert kinds["lay"] == 3
    assert kinds["finished"] == 3
    assert kinds["visit"] == sum(len(clutch.visits) for clutch in STORY.clutches)
    out = sum(egg.out_day is not None for clutch in STORY.clutches for egg in clutch.eggs)
    assert kinds["hatchling"] == kinds["emergence"] == out
    at = [act.recorded_s for act in Act.select().order_by(Act.id)]
    assert at == sorted(at)


@pytest.mark.parametrize(
    ("how", "gone"),
    [
        (ReplayScope(readings=False), {"readings"}),
        (ReplayScope(openings=False), {"opening"}),
        (
            ReplayScope(readings=False, openings=False, anything=False),
            {"readings", "opening", "visit", "weigh", "gene", "cut"},
        ),
    ],
)
def test_what_is_withheld_leaves_no_trace(tmp_path: Path, how: ReplayScope, gone: set[str]) -> None:
    kinds, house = told(tmp_path, how)
    assert not gone & set(kinds)
    # The eggs that were lost are lost all the same.
    facts = house.current()
    now_s = BEGAN_S + (SEASON_DAYS + 30) * DAY_S
    lost = sum(len(losses_of(facts, clutch, now_s).lost) for clutch in facts.clutches)
    died = sum(egg.cause is not None for clutch in STORY.clutches for egg in clutch.eggs)
    assert lost == died


def test_what_really_happened_is_never_told(tmp_path: Path) -> None:
    """No act, note or name gives away what killed an egg: the house has to find out."""
    told(tmp_path, ReplayScope())
    said = " ".join(act.summary for act in Act.select())
    causes = {egg.cause for clutch in STORY.clutches for egg in clutch.eggs if egg.cause}
    assert causes
    assert not [cause for cause in causes if cause in said]
