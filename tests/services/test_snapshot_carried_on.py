"""After an act a snapshot is carried on: what the act touched anew, and all else as it was."""

from dataclasses import fields
from typing import Final

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from houses import open_empty_house
from keeper_acts import ACTS, attempt, finished, laid
from samples import NOW_S
from sandboa.cli.house_folder import DATABASE
from sandboa.records.database import close_database
from sandboa.records.held_rows import HeldRows
from sandboa.services.boxes.commands import grade_egg
from sandboa.services.hatching.egg_events import see_pip
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.snapshot import TABLES, Snapshot, read_snapshot

#: What a snapshot holds for as long as it is the one, or passes on whole.
_NOT_COMPARED: Final = ("readings", "kept", "own")


def the_same(carried: Snapshot, fresh: Snapshot) -> None:
    """Rows are equal when they are the same version of the same fact; order counts in lists."""
    for field in fields(Snapshot):
        if field.name not in _NOT_COMPARED:
            assert getattr(carried, field.name) == getattr(fresh, field.name), field.name


@given(st.lists(st.tuples(st.sampled_from(sorted(ACTS)), st.integers(0, 4)), max_size=12))
@settings(max_examples=25, deadline=None)
def test_whatever_is_recorded_it_is_as_if_it_were_read_anew(tmp_path_factory, acts) -> None:
    open_empty_house(tmp_path_factory.mktemp("house") / DATABASE)
    carried, now_s = SnapshotCache(), NOW_S
    for name, n in [("lay", 0), ("lay", 1), *acts]:
        now_s += 60
        if attempt(name, n, now_s):
            the_same(carried.current(), SnapshotCache().current())
    close_database()


@pytest.mark.parametrize("name", sorted(ACTS))
def test_each_kind_of_act_is_one_that_can_be(house, name: str) -> None:
    """Else the sequences above would say nothing of it."""
    for n in (0, 1):
        laid(n, NOW_S)
    if name in ("out", "reopen"):
        see_pip("26-01", 1, NOW_S, NOW_S)
    if name == "reopen":
        finished(0, NOW_S)
    ACTS[name](0 if name != "visit, move an egg" else 3, NOW_S + 60)


def test_what_an_act_did_not_touch_is_the_same_object(house: SnapshotCache) -> None:
    for n in (0, 1):
        laid(n, NOW_S)
    before = house.current()
    grade_egg("26-01", 1, 2, NOW_S, NOW_S)
    after = house.current()
    touched, untouched = after.eggs[after.clutch_called("26-01").entity_id][:2]
    assert after.egg(touched.entity_id) != before.egg(touched.entity_id)
    assert after.histories.eggs[untouched.entity_id] is before.histories.eggs[untouched.entity_id]
    assert after.clutches is before.clutches
    assert after.eggs_of_box is before.eggs_of_box
    # And the one before still says what it said.
    assert before.egg(touched.entity_id).turgor == []


@pytest.mark.parametrize("name", ["grade", "number", "visit, move an egg", "probe"])
def test_an_act_that_comes_while_it_is_read_is_not_in_it(house: SnapshotCache, name: str) -> None:
    """Else what is kept under its acts would be taken for what a later one says."""
    for n in (0, 1):
        laid(n, NOW_S)
    before = house.current()
    ACTS[name](3, NOW_S + 60)
    rows = HeldRows(before.version, TABLES)
    the_same(read_snapshot(rows, before.readings, before.kept), before)
