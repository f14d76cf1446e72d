"""After an act a snapshot is carried on: what the act touched anew, and all else as it was."""

from collections.abc import Callable
from dataclasses import fields
from datetime import UTC, datetime
from typing import Final

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from houses import open_empty_house
from samples import DAY_S, NOW_S, lay_day
from sandboa.cli.house_folder import DATABASE
from sandboa.core.candling import Vessels
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Fate
from sandboa.records.database import close_database
from sandboa.records.facts import newest_act
from sandboa.records.held_rows import HeldRows
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.boxes.commands import candle_egg, grade_egg, water_box
from sandboa.services.cabinets.commands import change_set_point, move_box
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates, finish, reopen
from sandboa.services.lay_day import lay_clutch
from sandboa.services.lay_day.correct import correct_clutch
from sandboa.services.probes.commands import ProbePlace, hang_probe, move_probe
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.visit import BoxVisit, EggsMoved
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.settings import set_setting
from sandboa.services.snapshot.snapshot import TABLES, Snapshot, read_snapshot

#: What a snapshot holds for as long as it is the one, or passes on whole.
_NOT_COMPARED: Final = ("readings", "kept", "own")


def the_same(carried: Snapshot, fresh: Snapshot) -> None:
    """Rows are equal when they are the same version of the same fact; order counts in lists."""
    for field in fields(Snapshot):
        if field.name not in _NOT_COMPARED:
            assert getattr(carried, field.name) == getattr(fresh, field.name), field.name


def _laid(n: int, now_s: float) -> None:
    laid_at = datetime.fromtimestamp(NOW_S - (55 + n) * DAY_S, UTC)
    shelf = ("lower", "upper")[n % 2]
    lay_clutch(lay_day(dam=f"Dam {n}", laid_at=laid_at, shelf=shelf, second_clutch=True), now_s)


def _corrected(n: int, now_s: float) -> None:
    laid_at = datetime.fromtimestamp(NOW_S - (54 + n) * DAY_S, UTC)
    correct_clutch("26-01", lay_day(dam="Dam 0", laid_at=laid_at, second_clutch=True), now_s)


def _visited(n: int, now_s: float) -> None:
    moved = (EggsMoved(((None, n + 1),), to="26-02"),) if n > 2 else ()
    close_visit(
        BoxVisit(
            f"visit-{now_s}", "26-01", now_s - 60, now_s - 1, rest_as_before=True, moved=moved
        ),
        now_s,
    )


def _moved_probe(n: int, now_s: float) -> None:
    name = f"Probe {n}"
    probe, _ = hang_probe(name, ProbePlace("26-01"), NOW_S - 3 * DAY_S, now_s)
    move_probe(probe.entity_id, ProbePlace(cabinet="North"), NOW_S - DAY_S, now_s)


def _finished(n: int, now_s: float) -> None:
    fates = [FateCommand(egg, Fate.UNKNOWN) for egg in range(1, 6)]
    declare_fates("26-01", fates, now_s, now_s)
    finish("26-01", now_s, now_s)


#: Acts of a keeper, some of which the house will refuse at the time; n is 0 to 4.
ACTS: Final[dict[str, Callable[[int, float], object]]] = {
    "lay": _laid,
    "correct the lay day": _corrected,
    "visit, move an egg": _visited,
    "grade": lambda n, now_s: grade_egg("26-01", n + 1, n, NOW_S - n * DAY_S, now_s),
    "candle": lambda n, now_s: candle_egg("26-02", n + 1, Vessels.WEAK, None, now_s, now_s),
    "water": lambda n, now_s: water_box("26-01", 20.0 + n, now_s, now_s),
    "pip": lambda n, now_s: see_pip("26-01", n + 1, NOW_S - n * 3600, now_s),
    "out": lambda n, now_s: see_emergence("26-01", n + 1, now_s, now_s),
    "close": _finished,
    "reopen": lambda _, now_s: reopen("26-01", now_s),
    "move the box": lambda n, now_s: move_box("26-01", "North", "upper", NOW_S - n * 60, now_s),
    "set point": lambda n, now_s: change_set_point("North", 30.0 + n / 2, NOW_S - n * 60, now_s),
    "probe": _moved_probe,
    "number": lambda n, now_s: set_setting("forecast.emergence_days", 1.0 + n / 10, now_s),
    "undo": lambda n, now_s: undo(max(1, newest_act() - n), now_s),
}


@given(st.lists(st.tuples(st.sampled_from(sorted(ACTS)), st.integers(0, 4)), max_size=12))
@settings(max_examples=25, deadline=None)
def test_whatever_is_recorded_it_is_as_if_it_were_read_anew(tmp_path_factory, acts) -> None:
    open_empty_house(tmp_path_factory.mktemp("house") / DATABASE)
    carried, now_s = SnapshotCache(), NOW_S
    for name, n in [("lay", 0), ("lay", 1), *acts]:
        now_s += 60
        try:
            ACTS[name](n, now_s)
        except (Conflict, NotPlausible, NotFound):
            continue
        the_same(carried.current(), SnapshotCache().current())
    close_database()


@pytest.mark.parametrize("name", sorted(ACTS))
def test_each_kind_of_act_is_one_that_can_be(house, name: str) -> None:
    """Else the sequences above would say nothing of it."""
    for n in (0, 1):
        _laid(n, NOW_S)
    if name in ("out", "reopen"):
        see_pip("26-01", 1, NOW_S, NOW_S)
    if name == "reopen":
        _finished(0, NOW_S)
    ACTS[name](0 if name != "visit, move an egg" else 3, NOW_S + 60)


def test_what_an_act_did_not_touch_is_the_same_object(house: SnapshotCache) -> None:
    for n in (0, 1):
        _laid(n, NOW_S)
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
        _laid(n, NOW_S)
    before = house.current()
    ACTS[name](3, NOW_S + 60)
    rows = HeldRows(before.version, TABLES)
    the_same(read_snapshot(rows, before.readings, before.kept), before)
