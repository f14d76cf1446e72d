"""Long work of a page goes on after its answer, makes way, and ends with the application."""

from collections.abc import Callable, Iterator
from contextlib import closing
from threading import Event

import pytest
from fastapi.testclient import TestClient

from sandboa.web.background import long_work
from sandboa.web.background.long_work import LongWork
from sandboa.web.requests.exclusive_use import Access
from web.asking import lay
from web.test_intake_under_fire import eventually


@pytest.fixture
def work() -> Iterator[LongWork]:
    with closing(LongWork(Access())) as work:
        yield work


class Pieces:
    """Work of so many pieces; `done` is set with the last of them."""

    def __init__(self, pieces: int) -> None:
        self.left, self.done = pieces, Event()

    def __call__(self, goes_on: Callable[[], bool]) -> bool:
        assert goes_on()
        self.left -= 1
        if not self.left:
            self.done.set()
        return not self.left


def test_it_goes_on_piece_by_piece_until_it_is_done(work: LongWork) -> None:
    pieces = Pieces(3)
    work.go_on_with("losses", pieces)
    assert pieces.done.wait(20)
    assert pieces.left == 0
    # And it begins again for who asks later.
    again = Pieces(1)
    work.go_on_with("losses", again)
    assert again.done.wait(20)


def test_an_answer_does_not_work_at_what_is_under_way(work: LongWork) -> None:
    began, may = Event(), Event()

    def piece(_: Callable[[], bool]) -> bool:
        began.set()
        return may.wait(20)

    assert work.patience("losses")()
    work.go_on_with("losses", piece)
    assert began.wait(20)
    assert not work.patience("losses")()
    assert work.patience("season")()
    may.set()


def test_what_was_asked_for_last_comes_first(work: LongWork) -> None:
    began, may, order = Event(), Event(), []

    def first(_: Callable[[], bool]) -> bool:
        order.append("first")
        began.set()
        may.wait(20)
        return len(order) > 2

    second = Pieces(1)
    work.go_on_with("first", first)
    assert began.wait(20)
    work.go_on_with("second", lambda goes_on: order.append("second") or second(goes_on))
    may.set()
    assert second.done.wait(20)
    assert order[:2] == ["first", "second"]


def test_work_that_fails_is_given_up_and_other_work_goes_on(
    work: LongWork, caplog: pytest.LogCaptureFixture
) -> None:
    began = Event()

    def fails(_: Callable[[], bool]) -> bool:
        began.set()
        raise ValueError("not today")

    work.go_on_with("fails", fails)
    assert began.wait(20)
    pieces = Pieces(1)
    work.go_on_with("losses", pieces)
    assert pieces.done.wait(20)
    work.close()
    assert "long work failed: fails" in caplog.text


def test_who_has_the_house_alone_is_waited_for(work: LongWork) -> None:
    pieces = Pieces(1)
    with work.access.alone():
        work.go_on_with("losses", pieces)
        assert not pieces.done.wait(0.2)
    assert pieces.done.wait(20)


def test_it_ends_with_the_application() -> None:
    work, began = LongWork(Access()), Event()

    def endless(goes_on: Callable[[], bool]) -> bool:
        began.set()
        return not goes_on()

    work.go_on_with("endless", endless)
    assert began.wait(20)
    work.close()
    late = Pieces(1)
    work.go_on_with("late", late)
    assert late.left == 1


def test_a_page_goes_on_with_losses_after_its_answer(
    http: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Nothing is told in no time; asked again, all of it is there."""
    monkeypatch.setattr(long_work, "PATIENCE_S", 0.0)
    code = lay(http)["code"]
    fates = {"fates": [{"number": 1, "fate": "unknown"}]}
    http.post(f"/api/clutches/{code}/fates", json=fates).raise_for_status()
    first = http.get("/api/losses?year=2026").json()
    assert (first["worked_out"], first["laid"], first["clutches"]) == (0, 1, [])

    def all_there() -> bool:
        told = http.get("/api/losses?year=2026").json()
        return bool(told["worked_out"] == told["laid"] == 1)

    eventually(all_there, "the losses are worked out")
