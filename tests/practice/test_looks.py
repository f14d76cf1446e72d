"""Sessions of single eggs: what comes next, what Sandboa would have said, and what is kept."""

from collections import Counter
from collections.abc import Iterator
from pathlib import Path

import pytest

from sandboa.core.practice import Answer
from sandboa.devices.simulation.cases import ACTS, KINDS, draw_case
from sandboa.practice.errors import NoSuchSession, Refused
from sandboa.practice.files import MOST_SESSIONS, VERSION, Practice, delete_all, practice_of
from sandboa.practice.looks import sessions as looks
from sandboa.practice.looks.choosing import due, reviewed
from sandboa.practice.looks.second_opinion import opinion
from sandboa.practice.looks.truths import TRUTHS, what_came
from sandboa.records.practice_store import practice_file

DAY_S = 86_400.0
NOW_S = 1_800_000_000.0


@pytest.fixture
def practice(tmp_path: Path) -> Iterator[Practice]:
    with practice_of(tmp_path / "house.sqlite3", None) as store:
        yield store


def judge_all(practice: Practice, session: looks.LookSession, right: bool, now_s: float) -> None:
    for egg, case in enumerate(session.cases, start=1):
        said = looks.Judgement(100 if case.alive is right else 0, case.usual is right, "leave")
        looks.judge(practice, session.id, egg, said, now_s)


def test_what_was_misjudged_comes_back_sooner() -> None:
    right = Answer(NOW_S, 0.95, True, True, True, 0.0, 0.0)
    wrong = Answer(NOW_S, 0.05, True, True, True, 0.0, 0.0)
    reviews = {"right": reviewed(None, right), "wrong": reviewed(None, wrong)}
    kinds = ["right", "wrong", "never seen"]
    assert due(reviews, kinds, NOW_S + 60) == []
    assert due(reviews, kinds, NOW_S + 1.5 * DAY_S) == ["wrong"]
    assert due(reviews, kinds, NOW_S + 60 * DAY_S) == ["wrong", "right"]
    # Known again and again it comes ever more seldom.
    again = reviewed(reviews["right"], Answer(NOW_S + 9 * DAY_S, 0.95, True, True, True, 0.0, 0.0))
    assert due({"right": again}, ["right"], NOW_S + 18 * DAY_S) == []


def test_a_session_begins_with_what_is_due_and_what_is_new(practice: Practice) -> None:
    first = looks.begin(practice, "dimples", NOW_S, eggs=6)
    assert {case.kind for case in first.cases} == set(looks.kinds_of("dimples"))
    judge_all(practice, first, False, NOW_S)
    later = looks.begin(practice, "mixed", NOW_S + 2 * DAY_S, eggs=6)
    assert {case.kind for case in later.cases} == set(looks.kinds_of("dimples"))
    assert [case.seed for case in later.cases] != [case.seed for case in first.cases]
    soon = looks.begin(practice, "mixed", NOW_S + 60, eggs=10)
    assert not {case.kind for case in soon.cases} & set(looks.kinds_of("dimples"))


def test_no_kind_crowds_a_long_session(practice: Practice) -> None:
    session = looks.begin(practice, "fresh", NOW_S, eggs=10)
    assert max(Counter(case.kind for case in session.cases).values()) == 2


def test_each_person_has_a_file_and_it_can_be_deleted(tmp_path: Path) -> None:
    house = tmp_path / "house.sqlite3"
    with practice_of(house, 3) as own:
        session = looks.begin(own, "fresh", NOW_S)
    with practice_of(house, 4) as others, pytest.raises(NoSuchSession):
        looks.look_session(others, session.id)
    delete_all(house, 3)
    assert not practice_file(house, 3).exists()
    assert practice_file(house, 4).exists()


def test_a_session_of_a_newer_version_is_left_alone(practice: Practice) -> None:
    made = practice.add(looks.KIND, VERSION + 1, NOW_S, {"what": "nobody knows yet"})
    with pytest.raises(Refused, match="newer Sandboa"):
        looks.look_session(practice, made)
    with pytest.raises(Refused, match="newer Sandboa"):
        looks.judge(practice, made, 1, looks.Judgement(50, True, "leave"), NOW_S)
    assert looks.listed(practice) == []
    stored = practice.session(made)
    assert stored is not None
    assert stored.body == {"what": "nobody knows yet"}


def test_a_file_of_a_newer_layout_or_a_damaged_one_is_refused_in_words(tmp_path: Path) -> None:
    house = tmp_path / "house.sqlite3"
    file = practice_file(house, None)
    with practice_of(house, None) as store:
        store._database.execute_sql("PRAGMA user_version = 99")
    with pytest.raises(Refused, match="newer Sandboa"), practice_of(house, None):
        pass
    file.write_bytes(b"no database at all, but long enough to be read as one" * 40)
    with pytest.raises(Refused, match="cannot be read"), practice_of(house, None):
        pass
    delete_all(house, None)
    with practice_of(house, None) as store:
        assert store.sessions() == []


def test_two_pages_of_one_session_lose_nothing(practice: Practice) -> None:
    session = looks.begin(practice, "mixed", NOW_S, eggs=2)
    stale = practice.session(session.id)
    assert stale is not None
    looks.judge(practice, session.id, 1, looks.Judgement(50, True, "leave"), NOW_S)
    assert not practice.change(session.id, stale.revision, stale.body)
    looks.judge(practice, session.id, 2, looks.Judgement(60, True, "leave"), NOW_S)
    told = looks.look_session(practice, session.id).judged
    assert [j.chance_percent for j in told if j] == [50, 60]


def test_so_many_sessions_are_kept_and_no_more(
    practice: Practice, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("sandboa.practice.files.MOST_SESSIONS", 2)
    assert MOST_SESSIONS > 100
    looks.begin(practice, "fresh", NOW_S)
    looks.begin(practice, "fresh", NOW_S)
    with pytest.raises(Refused, match="Delete some"):
        looks.begin(practice, "fresh", NOW_S)


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_is_told_in_words(kind: str) -> None:
    assert TRUTHS[kind]
    for seed in range(20):
        case = draw_case(kind, seed)
        for act in ACTS:
            assert what_came(case, act).endswith(".")
        assert opinion(case).act in ACTS


def test_what_sandboa_would_have_said_is_worth_following() -> None:
    """By what can be seen alone it tells living from dead, saves most and loses none."""
    told = [(draw_case(kind, seed), seed) for kind in KINDS for seed in range(30)]
    saved = best = 0.0
    for case, _ in told:
        said = opinion(case)
        assert case.worth(said.act) >= 0.0
        saved += case.worth(said.act)
        best += max(case.worth(act) for act in ACTS)
    assert saved > 0.6 * best
    alive = [opinion(case).judged.alive for case, _ in told if case.alive]
    dead = [opinion(case).judged.alive for case, _ in told if not case.alive]
    assert sum(alive) / len(alive) > 0.9 > 0.6 > sum(dead) / len(dead)
