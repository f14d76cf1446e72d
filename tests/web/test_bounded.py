"""So much at a time of what goes on or is large, and each is given back when it ends."""

import asyncio
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import pytest
from fastapi.testclient import TestClient

from samples import NOW_S
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from sandboa.web.requests.concurrency import Bounded, TooMany


def test_one_person_has_so_many_and_leaves_some_for_others() -> None:
    bound = Bounded(3, 2, "enough of one", "enough of all")
    with bound.enter("one"), bound.enter("one"):
        with pytest.raises(TooMany, match="enough of one"), bound.enter("one"):
            raise AssertionError("a third one")
        with bound.enter("other"), pytest.raises(TooMany, match="of all"), bound.enter("another"):
            raise AssertionError("a fourth in all")
    with bound.enter("one"), bound.enter("one"):
        pass
    assert bound.open == 0


def test_a_page_beyond_the_bound_is_told_so_and_a_closed_one_makes_room(tmp_path: Any) -> None:
    app = create_app(tmp_path / "house.sqlite3", StoppedClock(NOW_S))
    app.state.house.listening.most_of_one = 1

    async def follow(closed: asyncio.Event, told: list[Any]) -> None:
        asked = {"type": "http.request", "body": b"", "more_body": False}
        scope = {
            "type": "http", "asgi": {"version": "3.0"}, "http_version": "1.1", "method": "GET",
            "path": "/api/live", "raw_path": b"/api/live", "root_path": "", "scheme": "http",
            "query_string": b"", "headers": [(b"host", b"localhost")],
            "client": ("127.0.0.1", 5), "server": ("localhost", 80),
        }  # fmt: skip
        first = [asked]

        async def receive() -> Any:
            if first:
                return first.pop()
            await closed.wait()
            return {"type": "http.disconnect"}

        begun = asyncio.Event()

        async def send(message: Any) -> None:
            told.append(message)
            begun.set()

        going_on = asyncio.create_task(app(scope, receive, send))
        await asyncio.wait(
            [going_on, asyncio.create_task(begun.wait())], return_when="FIRST_COMPLETED"
        )
        going.append(going_on)

    going: list[Any] = []

    async def two_and_one_more() -> list[int]:
        told: list[list[Any]] = [[], [], []]
        closed = [asyncio.Event() for _ in told]
        await follow(closed[0], told[0])
        await follow(closed[1], told[1])
        closed[0].set()
        await going[0]
        await follow(closed[2], told[2])
        for event in closed:
            event.set()
        await asyncio.gather(*going)
        return [messages[0]["status"] for messages in told]

    # In a thread of its own: browser tests leave a loop running in this one.
    with TestClient(app), ThreadPoolExecutor(1) as own_thread:
        assert own_thread.submit(lambda: asyncio.run(two_and_one_more())).result() == [
            200,
            429,
            200,
        ]
