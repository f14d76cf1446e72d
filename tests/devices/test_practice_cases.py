"""Simulated cases: drawn from a seed alone, and decided before anybody chooses."""

from itertools import groupby

import pytest

from sandboa.devices.simulation.cases import ACTS, DECKS, KINDS, Case, draw_case

SEEDS = range(40)


def cases(kind: str) -> list[Case]:
    return [draw_case(kind, seed) for seed in SEEDS]


@pytest.mark.parametrize("kind", KINDS)
def test_a_case_is_its_seed_and_kind(kind: str) -> None:
    assert cases(kind) == cases(kind)
    assert len({case.day for case in cases(kind)}) > 20


@pytest.mark.parametrize("kind", KINDS)
def test_what_becomes_of_it_is_decided_for_every_act(kind: str) -> None:
    for case in cases(kind):
        assert set(case.endings) == set(ACTS)
        # The dead and the blank hatch by nothing; whoever is removed does not either.
        assert not case.endings["remove"].hatches
        if not case.alive:
            assert not any(ending.hatches for ending in case.endings.values())
        else:
            assert any(ending.hatches for ending in case.endings.values())
        assert case.worth("leave") == 0.0
        assert max(case.worth(act) for act in ACTS) >= 0.0


def test_a_deck_holds_living_and_dead_alike_to_look_at() -> None:
    for deck, kinds in DECKS.items():
        told = [draw_case(kind, seed).alive for kind in kinds for seed in SEEDS]
        assert 0.3 < sum(told) / len(told) < 0.95, deck


def test_some_eggs_are_saved_by_one_act_alone() -> None:
    saved = {
        (kind, act) for kind in KINDS for case in cases(kind) for act in ACTS if case.worth(act) > 0
    }
    by_kind = {
        kind: {act for _, act in group} for kind, group in groupby(sorted(saved), lambda s: s[0])
    }
    assert by_kind["dry box"] == {"water"}
    assert by_kind["hanging"] == {"support"}
    assert by_kind["no air"] == {"air", "isolate"}
    assert by_kind["siblings out"] == {"help"}
    assert by_kind["rotten"] == {"isolate", "remove"}
    assert "sound and fresh" not in by_kind


def test_an_unknown_kind_is_none() -> None:
    with pytest.raises(KeyError):
        draw_case("ostrich", 1)
