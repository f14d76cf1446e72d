"""Connections of strangers, of slow and of silent ones, over real sockets."""

import asyncio
import select
import socket
import threading
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any

import pytest
import uvicorn
from fastapi.testclient import TestClient

from samples import NOW_S
from sandboa.web.app import create_app
from sandboa.web.clock import StoppedClock
from sandboa.web.requests import connections
from sandboa.web.requests.concurrency import deliveries
from sandboa.web.requests.connections import Ledger, guarded


class Watched(Ledger):
    """Tells when a connection is gone."""

    def leave(self, address: str) -> None:
        super().leave(address)
        with GONE:
            GONE.notify_all()


GONE = threading.Condition()


def settled(ledger: Ledger) -> int:
    """How many connections are left once those that were let go are gone."""
    with GONE:
        GONE.wait_for(lambda: ledger.open == 0, 20)
    return ledger.open


async def answering(scope: Any, receive: Any, send: Any) -> None:
    """Reads the whole body; answers with how much it was, or as much as the path asks for."""
    taken, more = 0, True
    while more:
        message = await receive()
        taken += len(message.get("body", b""))
        more = message.get("more_body", False)
    asked = scope["path"].strip("/")
    body = b"x" * int(asked) if asked.isdigit() else str(taken).encode()
    length = (b"content-length", str(len(body)).encode())
    await send({"type": "http.response.start", "status": 200, "headers": [length]})
    await send({"type": "http.response.body", "body": body})


@pytest.fixture
def served(monkeypatch: pytest.MonkeyPatch) -> Iterator[tuple[int, Ledger]]:
    """A server whose patience is short; yields its port and its ledger."""
    with serving(answering, monkeypatch, most_of_one=4) as (port, ledger):
        yield port, ledger


@contextmanager
def serving(
    app: Any, monkeypatch: pytest.MonkeyPatch, most_of_one: int
) -> Iterator[tuple[int, Ledger]]:
    for name in ("HEADERS_S", "BODY_S", "ANSWER_S"):
        monkeypatch.setattr(connections, name, 0.4)
    ledger = Watched(most=12, most_of_one=most_of_one, trusted=frozenset())
    config = uvicorn.Config(
        app, http=guarded(ledger), lifespan="off", log_level="critical", log_config=None
    )
    server = uvicorn.Server(config)
    with closing(socket.create_server(("127.0.0.1", 0))) as listening:
        thread = threading.Thread(
            target=lambda: asyncio.run(server.serve(sockets=[listening])), daemon=True
        )
        thread.start()
        yield listening.getsockname()[1], ledger
        server.should_exit = True
        thread.join(20)


def connect(port: int) -> socket.socket:
    return socket.create_connection(("127.0.0.1", port), timeout=20)


def let_go_within(connection: socket.socket, span_s: float) -> bool:
    """Whether the other side ends the connection meanwhile, or says anything."""
    return bool(select.select([connection], [], [], span_s)[0])


def ended(connection: socket.socket) -> bool:
    """Whether the other side drops the connection, waited for as long as it takes."""
    try:
        while connection.recv(65_536):
            pass
    except ConnectionError:
        return True
    return True


def test_who_says_nothing_or_half_a_header_is_let_go(served: tuple[int, Ledger]) -> None:
    port, ledger = served
    for begun in (b"", b"GET / HTTP/1.1\r\nHost: x\r\nX-Slow: "):
        with closing(connect(port)) as slow:
            slow.sendall(begun)
            assert ended(slow)
    assert settled(ledger) == 0


def test_a_header_that_comes_byte_by_byte_has_no_more_time(served: tuple[int, Ledger]) -> None:
    port, _ = served
    with closing(connect(port)) as slow:
        for letter in b"GET / HTTP/1.1\r\nX-A: " + b"b" * 2_000:
            if let_go_within(slow, 0.01):
                break
            slow.sendall(bytes([letter]))
        else:
            raise AssertionError("it listens to the end")


def test_a_body_that_stalls_is_let_go_and_one_that_comes_slowly_is_not(
    served: tuple[int, Ledger],
) -> None:
    port, _ = served
    head = b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 24000\r\n\r\n"
    with closing(connect(port)) as stalls:
        stalls.sendall(head + b"x" * 100)
        assert ended(stalls)
    with closing(connect(port)) as slow:
        slow.sendall(head)
        for _ in range(7):
            slow.sendall(b"x" * 3_000)
            assert not let_go_within(slow, 0.15)
        slow.sendall(b"x" * 3_000)
        assert b"24000" in slow.recv(65_536) + slow.recv(65_536)


def test_who_does_not_read_the_answer_is_let_go(served: tuple[int, Ledger]) -> None:
    port, ledger = served
    with closing(connect(port)) as deaf:
        deaf.sendall(b"GET /80000000 HTTP/1.1\r\nHost: x\r\n\r\n")
        assert settled(ledger) == 0


def test_one_address_has_so_many_connections_and_gets_them_back(
    served: tuple[int, Ledger],
) -> None:
    port, ledger = served
    held = [connect(port) for _ in range(4)]
    for connection in held:
        connection.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n")
        assert b"200" in connection.recv(65_536)
    with closing(connect(port)) as fifth:
        assert ended(fifth)
    assert ledger.open == 4
    for connection in held:
        connection.close()
    assert settled(ledger) == 0
    with closing(connect(port)) as again:
        again.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n")
        assert b"200" in again.recv(65_536)


def test_several_requests_on_one_connection_are_answered(served: tuple[int, Ledger]) -> None:
    port, _ = served
    with closing(connect(port)) as kept:
        for _ in range(3):
            kept.sendall(b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 3\r\n\r\nabc")
            answer = b""
            while not answer.endswith(b"\r\n\r\n3"):
                answer += kept.recv(65_536)
            assert not let_go_within(kept, 0.2)


def test_all_together_have_so_many_and_this_machine_as_many_as_there_are() -> None:
    ledger = Ledger(most=3, most_of_one=2, trusted=frozenset({"127.0.0.1"}))
    assert [ledger.enter("192.0.2.1") for _ in range(3)] == [True, True, False]
    assert ledger.enter("127.0.0.1")
    assert not ledger.enter("127.0.0.1")
    ledger.leave("192.0.2.1")
    assert ledger.enter("127.0.0.1")
    assert ledger.open == 3


def test_posts_of_a_device_that_stall_do_not_shut_it_out(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Its queue is full of them only until they are let go."""
    app = create_app(tmp_path / "house.sqlite3", StoppedClock(NOW_S))
    token = TestClient(app).post("/api/devices", json={"name": "Gateway"}).json()["token"]
    head = f"POST /api/readings HTTP/1.1\r\nHost: localhost\r\nAuthorization: Bearer {token}\r\n"
    with serving(app, monkeypatch, most_of_one=12) as (port, ledger):
        stalled = [connect(port) for _ in range(deliveries().most_of_one)]
        for one in stalled:
            one.sendall(f"{head}Content-Length: 9000\r\n\r\n{{".encode())
        for one in stalled:
            assert ended(one)
            one.close()
        assert settled(ledger) == 0
        with closing(connect(port)) as next_one:
            body = b'{"readings": []}'
            next_one.sendall(f"{head}Content-Length: {len(body)}\r\n\r\n".encode() + body)
            assert b" 429 " not in next_one.recv(65_536)
