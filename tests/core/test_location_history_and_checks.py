"""Where things were through time, and what a probe's readings are worth."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.climate.probe_checks import (
    SALT_HUMIDITY,
    reference_check,
    salt_check,
    trusted,
)
from sandboa.core.errors import NotPlausible
from sandboa.core.location_history import LocationHistory

times = st.integers(0, 1000).map(float)
moves = st.lists(st.tuples(times, st.none() | st.integers(1, 4)), max_size=8)


def test_a_thing_is_where_its_last_move_put_it() -> None:
    stays = LocationHistory.of(100.0, 1, [(300.0, 2), (200.0, None)])
    assert [stays.at(t) for t in (0, 100, 199, 200, 300, 999)] == [1, 1, 1, None, 2, 2]
    assert (stays.last, stays.since_s) == (2, 300.0)
    assert list(stays.pieces(150, 250)) == [(150, 200.0, 1), (200.0, 250, None)]


@given(moves, times, times)
def test_pieces_cover_a_span_without_holes_and_agree_with_at(told, a, b) -> None:
    start, end = min(a, b), max(a, b)
    stays = LocationHistory.of(0.0, 9, told)
    pieces = list(stays.pieces(start, end))
    assert sum(right - left for left, right, _ in pieces) == end - start
    for left, right, place in pieces:
        assert stays.at(left) == stays.at((left + right) / 2) == place


def test_stays_that_cannot_be_are_refused() -> None:
    with pytest.raises(ValueError, match="follow"):
        LocationHistory((2.0, 1.0), (1, 2))
    with pytest.raises(ValueError, match="at least one"):
        LocationHistory((), ())


def test_an_offset_holds_from_its_check_until_the_next() -> None:
    checks = [reference_check(100.0, 31.2, 31.0), reference_check(200.0, 31.0, 31.3)]
    told = [(p.from_s, p.until_s, round(p.offset_c, 2), p.sd_c) for p in trusted(0, 300, checks)]
    assert told == [(0, 100.0, 0.0, 0.3), (100.0, 200.0, -0.2, 0.1), (200.0, 300, 0.3, 0.1)]


def test_left_out_stretches_are_gaps_and_salt_says_nothing_of_degrees() -> None:
    told = list(trusted(0, 100, [salt_check(50.0, 0.77)], [(20.0, 40.0)], checked_from_start=True))
    assert [(p.from_s, p.until_s) for p in told] == [(0, 20.0), (40.0, 100)]
    assert {p.sd_c for p in told} == {0.1}
    assert {p.offset_c for p in told} == {0.0}


@given(st.lists(st.tuples(times, times).map(sorted), max_size=5))
def test_what_is_trusted_and_what_is_left_out_make_the_whole(left_out) -> None:
    gaps = [(a, b) for a, b in left_out if b > a]
    kept = list(trusted(0.0, 1000.0, [], gaps))
    for piece in kept:
        middle = (piece.from_s + piece.until_s) / 2
        assert not any(a <= middle <= b for a, b in gaps)
    seconds = {s for a, b in gaps for s in range(int(a), int(b))}
    assert sum(p.until_s - p.from_s for p in kept) == 1000 - len(seconds)


def test_a_salt_test_expects_three_quarters() -> None:
    assert SALT_HUMIDITY == 0.753
    assert salt_check(0.0, 0.79).offset == pytest.approx(-0.037)


@pytest.mark.parametrize("call", [
    lambda: reference_check(0.0, 31.0, 37.0),
    lambda: reference_check(0.0, 90.0, 90.0),
    lambda: salt_check(0.0, 0.4),
    lambda: salt_check(0.0, 75.3),
])  # fmt: skip
def test_checks_that_cannot_be_are_refused(call) -> None:
    with pytest.raises(NotPlausible):
        call()


def test_nothing_lies_at_two_places_at_one_moment() -> None:
    with pytest.raises(ValueError, match="follow each other"):
        LocationHistory((0.0, 0.0), (1, 2))
    assert LocationHistory((0.0, 1.0), (1, 2)).place == (1, 2)
