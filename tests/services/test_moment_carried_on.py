"""What was worked out of a clutch is carried on until something it rests on changes."""

from collections.abc import Iterator

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from equal_answers import differences
from houses import open_empty_house
from keeper_acts import ACTS, attempt, laid
from samples import DAY_S, NOW_S, lay_day
from sandboa.cli.house_folder import DATABASE
from sandboa.records import readings
from sandboa.records.database import close_database, transaction
from sandboa.records.house import Probe
from sandboa.services.boxes.commands import grade_egg
from sandboa.services.clutches.clutch_view import clutch_at
from sandboa.services.hatching.overview import hatch_overview
from sandboa.services.lay_day import lay_clutch
from sandboa.services.moment.as_of import at_hand
from sandboa.services.moment.shared_boxes import groups
from sandboa.services.overview.today import today
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.rounds.round_now import round_now
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.snapshot import Snapshot

SHELVES = ("lower", "upper")


def answers(snapshot: Snapshot, at_s: float) -> tuple[object, ...]:
    """What the keeper is told on the places that are opened again and again."""
    return (
        today(snapshot, at_s).boxes,
        round_now(snapshot, at_s).boxes,
        hatch_overview(snapshot, at_s),
    )


def furnished() -> None:
    """Two clutches, each on its own shelf with a probe that has measured for two months."""
    for n in (0, 1):
        laid(n, NOW_S)
    for n, shelf in enumerate(SHELVES):
        probe, _ = hang_probe(f"On {shelf}", ProbePlace(cabinet="North", shelf=shelf),
                              NOW_S - 60 * DAY_S, NOW_S)  # fmt: skip
        rows = [
            (int(NOW_S) - hour * 3_600, 31.0 + n / 5 + hour % 24 / 40, 0.6 + n / 10)
            for hour in range(1, 60 * 24)
        ]
        store(probe.entity_id, rows)


def store(probe: int, rows: list[tuple[int, float, float]]) -> None:
    with transaction():
        readings.store(probe, readings.LIVE, rows, NOW_S)


def read(n: int, now_s: float) -> bool:
    """A reading of one of the probes, of now, of an hour ago, or of a day nobody measured; False
    where its probe is not there any more."""
    probes = {probe.name: probe.entity_id for probe in Probe.current()}
    at_s = int(now_s) - (0, 60, 3_700, 61 * 86_400, 1_800)[n]
    probe = probes.get(f"On {SHELVES[n % 2]}")
    if probe is None:
        return False
    store(probe, [(at_s, 29.0 + n, 0.9)])
    return True


steps = st.one_of(
    st.tuples(st.sampled_from(sorted(ACTS)), st.integers(0, 4)),
    st.tuples(st.just("read"), st.integers(0, 4)),
    st.tuples(st.just("wait"), st.sampled_from([0, 1, 60, 7_200, 5 * 86_400, -3_600])),
)


@given(st.lists(steps, max_size=8))
@settings(max_examples=25, deadline=None)
def test_whatever_happens_it_is_as_if_it_were_worked_out_anew(tmp_path_factory, happens) -> None:
    open_empty_house(tmp_path_factory.mktemp("house") / DATABASE)
    furnished()
    carried, now_s = SnapshotCache(), NOW_S
    answers(carried.current(), now_s)
    for name, n in happens:
        if name == "wait":
            now_s += n
        elif not (read(n, now_s) if name == "read" else attempt(name, n, now_s)):
            continue
        told = answers(carried.current(), now_s)
        assert list(differences(told, answers(SnapshotCache().current(), now_s))) == []
    close_database()


@pytest.fixture
def two(house: SnapshotCache) -> Iterator[SnapshotCache]:
    furnished()
    return house


def _told(house: SnapshotCache, at_s: float) -> dict[str, object]:
    snapshot = house.current()
    at = at_hand(snapshot, at_s)
    return {clutch.code: clutch_at(at, clutch) for clutch in snapshot.clutches}


def test_an_act_remakes_its_clutch_and_no_other(two: SnapshotCache) -> None:
    before = _told(two, NOW_S + 60)
    grade_egg("26-01", 1, 2, NOW_S, NOW_S)
    after = _told(two, NOW_S + 60)
    assert after["26-01"] is not before["26-01"]
    assert after["26-02"] is before["26-02"]


def test_a_reading_remakes_those_its_probe_speaks_for(two: SnapshotCache) -> None:
    lay_clutch(lay_day(dam="Dam 2", cabinet="South"), NOW_S)
    before = _told(two, NOW_S + 60)
    read(0, NOW_S)
    after = _told(two, NOW_S + 60)
    assert [code for code in before if after[code] is before[code]] == ["26-03"]


def test_another_minute_remakes_all(two: SnapshotCache) -> None:
    before, after = _told(two, NOW_S), _told(two, NOW_S + 60)
    assert all(after[code] is not before[code] for code in before)


def test_an_earlier_moment_does_not_let_go_of_now(two: SnapshotCache) -> None:
    before = _told(two, NOW_S)
    _told(two, NOW_S - 5 * DAY_S)
    after = _told(two, NOW_S)
    assert all(after[code] is before[code] for code in before)


@pytest.mark.parametrize("name", ["number", "set point", "probe"])
def test_what_all_rest_on_remakes_all(two: SnapshotCache, name: str) -> None:
    before = _told(two, NOW_S + 60)
    ACTS[name](2, NOW_S)
    after = _told(two, NOW_S + 60)
    assert all(after[code] is not before[code] for code in before)


def test_clutches_of_which_an_egg_lay_in_one_box_are_one_group(two: SnapshotCache) -> None:
    found = groups(two.current())
    assert len(set(found.of_clutch.values())) == 2
    ACTS["visit, move an egg"](3, NOW_S + 60)
    snapshot = two.current()
    (group,) = set(groups(snapshot).of_clutch.values())
    assert set(group.clutches) == {clutch.entity_id for clutch in snapshot.clutches}
    assert set(group.boxes) == set(snapshot.boxes) == set(groups(snapshot).of_box)
