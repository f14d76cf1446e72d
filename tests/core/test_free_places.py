"""Where eggs are put that come into a box: beside those there, a clump in one piece."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.box import LyingEgg, free_places, require_distinct_places, usual_places

SHARES = st.floats(0.1, 0.9)
PLACES = st.tuples(SHARES, SHARES)


def loose(eggs: int) -> list[LyingEgg]:
    return [LyingEgg(0.5, 0.5) for _ in range(eggs)]


@pytest.mark.parametrize("eggs", [1, 5, 12])
def test_in_an_empty_box_eggs_lie_as_they_usually_do(eggs: int) -> None:
    assert free_places([], loose(eggs)) == usual_places(eggs)


def test_one_more_egg_lies_beside_the_others_and_touches_none() -> None:
    there = usual_places(6)
    (place,) = free_places(there, loose(1))
    assert min(math.dist(place, other) for other in there) >= 0.19


def test_a_clump_of_three_is_moved_in_one_piece_to_where_it_has_room() -> None:
    """The left half is full: the clump goes to the right, each egg as it lay to the others."""
    left = [(0.15, 0.2), (0.35, 0.2), (0.15, 0.5), (0.35, 0.5), (0.15, 0.8), (0.35, 0.8)]
    clump = [LyingEgg(0.2, 0.3, "a"), LyingEgg(0.3, 0.3, "a"), LyingEgg(0.25, 0.42, "a")]
    placed = free_places(left, clump)
    assert all(x > 0.5 for x, _ in placed)
    shifts = {
        (round(x - egg.x, 9), round(y - egg.y, 9))
        for (x, y), egg in zip(placed, clump, strict=True)
    }
    assert len(shifts) == 1


def test_an_egg_that_leaves_its_clump_is_placed_as_any_other() -> None:
    there = usual_places(4)
    assert free_places(there, [LyingEgg(0.9, 0.9, "a")]) == free_places(there, loose(1))


@given(st.lists(PLACES, max_size=14), st.lists(PLACES, min_size=2, max_size=6), st.integers(0, 6))
def test_all_lie_in_the_box_a_clump_as_it_was_and_single_eggs_apart(
    taken: list[tuple[float, float]], clump: list[tuple[float, float]], singles: int
) -> None:
    eggs = [*(LyingEgg(x, y, 1) for x, y in clump), *loose(singles)]
    placed = free_places(taken, eggs)
    assert len(placed) == len(eggs)
    assert all(0 <= x <= 1 and 0 <= y <= 1 for x, y in placed)
    first = placed[0]
    for (x, y), (was_x, was_y) in zip(placed, clump, strict=False):
        assert x - first[0] == pytest.approx(was_x - clump[0][0], abs=1e-9)
        assert y - first[1] == pytest.approx(was_y - clump[0][1], abs=1e-9)
    require_distinct_places(placed[len(clump) :])
