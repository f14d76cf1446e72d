"""The demo tells its scenario, at any today, and every number on it follows from its records."""

import shutil
from collections.abc import Iterator
from datetime import UTC, datetime
from pathlib import Path

import pytest

from samples import DAY_S, NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.core.dimples import Scope
from sandboa.core.lay_day import Step
from sandboa.core.laying import Sign
from sandboa.core.standing import Standing
from sandboa.demo import furnish
from sandboa.demo.scenario.climate import climates
from sandboa.demo.scenario.clutches import story_of
from sandboa.demo.scenario.this_year import CLUTCHES, laid_s
from sandboa.records.database import open_database
from sandboa.records.facts import Act
from sandboa.records.rounds import Weighing
from sandboa.services.alarms.troubles import look
from sandboa.services.boxes.water import latest_lid
from sandboa.services.breeding.aftercare import dams_after_laying
from sandboa.services.breeding.lay_windows import lay_season
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.hatching.overview import hatch_overview
from sandboa.services.lay_day import drafts
from sandboa.services.overview.today import today
from sandboa.services.snapshot.cache import SnapshotCache

HERBS = {"Sorrel", "Tansy", "Yarrow", "Lovage", "Chervil", "Borage", "Hyssop", "Costmary"}
STONES = {"Flint", "Marl", "Slate", "Chert"}


@pytest.fixture
def furnished(demo_house: Path, tmp_path: Path) -> Iterator[SnapshotCache]:
    opened = open_database(shutil.copytree(demo_house, tmp_path / "demo") / DATABASE)
    yield SnapshotCache()
    opened.close()


def test_six_clutches_in_two_cabinets_with_names_from_the_scenario(
    furnished: SnapshotCache,
) -> None:
    boxes = today(furnished.current(), NOW_S).boxes
    assert sorted(b.box.box.name for b in boxes) == [f"26-0{n}" for n in range(1, 7)]
    assert {b.box.cabinet for b in boxes} == {"North", "Small"}
    clutches = [b.clutches[0] for b in boxes]
    assert {c.dam for c in clutches} <= HERBS
    assert {c.sire for c in clutches} <= STONES


def assert_the_scenario(house: SnapshotCache, now_s: float) -> None:
    by_dam = {b.clutches[0].dam: b for b in today(house.current(), now_s).boxes}
    (laid_today,) = drafts.open_lay_days(now_s)
    assert str(laid_today.count) == "7-1"
    assert laid_today.step is Step.BOX
    assert laid_today.turning[2]
    week = by_dam["Borage"].clutches[0]
    assert 6 <= week.forecast.day < 7
    assert any("Candle egg 2 again" in a.text for a in by_dam["Borage"].attention)
    drying = by_dam["Yarrow"].clutches[0]
    assert drying.box.box.medium == "saturated perlite"
    assert drying.box.judged.box.scope is Scope.BOX
    assert len(drying.box.judged.box.early_eggs) == 4
    single = by_dam["Chervil"].clutches[0]
    assert single.box.judged.box.scope is Scope.EGG
    assert single.box.judged.box.early_eggs == ("3",)
    standings = {e.number: e.standing.standing for e in single.eggs if e.standing}
    assert [n for n, level in standings.items() if level is not Standing.SOUND] == [3]
    assert standings[3] is Standing.FAILING
    plump = by_dam["Sorrel"].clutches[0]
    assert 0.6 < plump.forecast.fraction < 0.75
    assert all(egg.grade == 0 for egg in plump.eggs if not egg.slug)
    last_week = by_dam["Tansy"]
    assert any("First pip likely" in a.text for a in last_week.attention)
    assert latest_lid(house.current(), last_week.box.box, now_s) == "raining"
    assert latest_lid(house.current(), last_week.box.box, now_s - 2 * DAY_S) == "edges"
    hatching = by_dam["Lovage"].clutches[0]
    assert (hatching.forecast.pipped, hatching.live_eggs) == (4, 5)
    (watched,) = (c for c in hatch_overview(house.current(), now_s) if c.now.dam == "Lovage")
    assert watched.closed == (5,)


def test_the_states_the_scenario_asks_of_this_slice(furnished: SnapshotCache) -> None:
    assert_the_scenario(furnished, NOW_S)


def test_what_was_seen_and_weighed_is_what_was_simulated(furnished: SnapshotCache) -> None:
    """Told through the use cases, and only up to now: of what will be nothing is known yet."""
    was = climates(NOW_S)
    for number, (day, garden) in enumerate(CLUTCHES, start=1):
        story = story_of(garden, laid_s(day, NOW_S), was[garden.cabinet])
        now = clutch_page(furnished.current(), f"26-{number:02d}", NOW_S).now
        last = story.visits[-1].glances
        seen = {e.number: e.grade for e in now.eggs if not e.slug and e.pipped_s is None}
        assert seen == {n: last[n].grade for n in seen}
        weighed = [v.mass_g for v in story.visits if v.mass_g is not None]
        told = Weighing.current(box_id=now.box.box.entity_id)
        assert [w.mass_g for w in told] == [round(mass_g) for mass_g in weighed]
        pipped = {e.number for e in story.eggs if e.pip_day is not None and e.pip_day < day}
        assert {e.number for e in now.eggs if e.pipped_s is not None} == pipped
        assert any(e.pip_day is not None and e.pip_day > day for e in story.eggs)


def test_the_lower_shelf_ran_cold_and_only_the_lower_shelf(furnished: SnapshotCache) -> None:
    for code, spells in {"26-01": 1, "26-04": 1, "26-02": 0, "26-03": 0, "26-05": 0}.items():
        assert len(clutch_page(furnished.current(), code, NOW_S).now.cold_spells) == spells
    (spell,) = clutch_page(furnished.current(), "26-04", NOW_S).now.cold_spells
    assert 0.6 < spell.delay_days < 1.2
    assert (spell.end_s - spell.start_s) / DAY_S == pytest.approx(1.9, abs=0.15)


def test_every_act_is_recorded_when_it_would_have_happened(furnished: SnapshotCache) -> None:
    times = [act.recorded_s for act in Act.select().where(Act.kind == "visit")]
    assert min(times) < NOW_S - 15 * DAY_S
    assert max(times) <= NOW_S


@pytest.mark.parametrize(
    "today_is", ["2026-01-03T00:10:00", "2027-03-28T02:30:00", "2028-02-29T12:00:00"]
)
def test_it_looks_alive_on_any_day(house: SnapshotCache, today_is: str) -> None:
    now_s = datetime.fromisoformat(today_is).replace(tzinfo=UTC).timestamp()
    furnish(now_s)
    told = today(house.current(), now_s)
    assert len(told.boxes) == 6
    assert len({b.clutches[0].clutch.code for b in told.boxes}) == 6
    assert told.silent == ()
    (stuck,) = look(house.current(), now_s)
    assert stuck.text.startswith("North middle: repeats one value")
    assert all(not b.clutches[0].forecast.overdue for b in told.boxes)
    assert_the_scenario(house, now_s)


def test_the_animals_have_a_season_to_tell(furnished: SnapshotCache) -> None:
    herd = furnished.current().herd
    held_back = {a.name for a in herd.animals.values() if a.hatchling_id is not None}
    assert held_back == {"Betony", "Gneiss"}
    assert {a.name for a in herd.animals.values()} == HERBS | STONES | held_back
    laying, first, *_ = lay_season(herd, NOW_S).dams
    assert (laying.name, laying.laying, laying.forecast) == ("Hyssop", True, None)
    assert first.name == "Costmary"
    assert first.forecast.sign is Sign.PRE_LAY_SHED
    assert "clutches of yours, none of hers" in first.learned_words
    assert first.forecast.window.p10 > NOW_S
    assert any(p.due(NOW_S) for p in first.preparations)
    warned = {v.dam: v.warnings for v in lay_season(herd, NOW_S).plan}
    assert "below your minimum" in warned["Lovage"][0]
    after = {d.name: d for d in dams_after_laying(herd, NOW_S)}
    assert "nothing since laying" in after["Yarrow"].flags[0]
    assert "losing weight" in after["Yarrow"].flags[1]
    assert after["Tansy"].recovery.expected_s > NOW_S
    assert not after["Tansy"].flags
