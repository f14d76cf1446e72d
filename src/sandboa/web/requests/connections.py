"""Connections before anybody is trusted: how many, how long each may take for what it says."""

import asyncio
import contextlib
from collections import Counter
from dataclasses import dataclass, field
from typing import Any, Final

import h11
from uvicorn.protocols.http.h11_impl import H11Protocol

from sandboa.web.requests.descriptors import DESCRIPTORS_KEPT, raise_descriptor_limit

#: Connections at a time, in all and from one address (assumptions: a browser keeps six, a house
#: has a dozen of them and as many loggers).
MOST_CONNECTIONS: Final = 400
MOST_OF_ONE_ADDRESS: Final = 64
#: s from the first moment of a connection, or the first byte of a further request, to the end of
#: its headers.
HEADERS_S: Final = 10.0
#: s in which a body must bring at least so many bytes: a phone at the edge of its Wi-Fi does.
BODY_S: Final = 15.0
BODY_BYTES: Final = 2_000
#: s that whoever asked may take to read on in an answer before the connection is dropped.
ANSWER_S: Final = 60.0


@dataclass
class Ledger:
    """How many connections there are, in all and by address."""

    most: int = MOST_CONNECTIONS
    most_of_one: int = MOST_OF_ONE_ADDRESS
    #: Addresses that speak for many: named reverse proxies, and this machine itself.
    trusted: frozenset[str] = frozenset({"127.0.0.1", "::1"})
    _by_address: Counter[str] = field(default_factory=Counter)

    def enter(self, address: str) -> bool:
        """Count a connection; False when there are too many, and it is to be dropped."""
        own = self.most if address in self.trusted else self.most_of_one
        if self._by_address.total() >= self.most or self._by_address[address] >= own:
            return False
        self._by_address[address] += 1
        return True

    def leave(self, address: str) -> None:
        """A connection is gone."""
        self._by_address[address] -= 1
        if self._by_address[address] <= 0:
            del self._by_address[address]

    @property
    def open(self) -> int:
        return self._by_address.total()


def ledger_for(proxies: frozenset[str]) -> Ledger:
    """A ledger that leaves descriptors for the watch, the database and its backups."""
    descriptors = raise_descriptor_limit()
    most = max(16, min(MOST_CONNECTIONS, descriptors - DESCRIPTORS_KEPT))
    return Ledger(most=most, trusted=Ledger.trusted | proxies)


def guarded(ledger: Ledger) -> type[H11Protocol]:
    """The protocol of a server whose connections are counted in `ledger`."""

    class Guarded(GuardedConnection):
        counted_in = ledger

    return Guarded


class GuardedConnection(H11Protocol):
    """HTTP/1.1 with an end to every wait for the other side."""

    counted_in: Ledger

    def __init__(self, *given: Any, **named: Any) -> None:
        super().__init__(*given, **named)
        self._counted: str | None = None
        self._deadline: asyncio.TimerHandle | None = None
        self._waits_for = ""
        self._answer_deadline: asyncio.TimerHandle | None = None
        self._body_bytes = 0

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        peer = transport.get_extra_info("peername")
        address = peer[0] if peer else ""
        if not self.counted_in.enter(address):
            transport.abort()
            return
        self._counted = address
        super().connection_made(transport)
        self._wait_for_headers()

    def connection_lost(self, exc: Exception | None) -> None:
        self._end_waiting()
        if self._counted is None:
            return
        self.counted_in.leave(self._counted)
        self._counted = None
        super().connection_lost(exc)

    def data_received(self, data: bytes) -> None:
        if self._counted is None:
            return
        self._body_bytes += len(data)
        super().data_received(data)
        self._wait_for_what_comes()

    def pause_writing(self) -> None:
        super().pause_writing()
        self._answer_deadline = self.loop.call_later(ANSWER_S, self._drop)

    def resume_writing(self) -> None:
        super().resume_writing()
        if self._answer_deadline is not None:
            self._answer_deadline.cancel()
            self._answer_deadline = None

    def on_response_complete(self) -> None:
        super().on_response_complete()
        # A further request may lie there already, in part.
        self._wait_for_what_comes()

    def _wait_for_what_comes(self) -> None:
        state = self.conn.their_state
        if state is h11.SEND_BODY:
            if self._waits_for != "body":
                self._wait_for_body()
        elif state is h11.IDLE and self.conn.trailing_data[0]:
            self._wait_for_headers()
        else:
            self._cancel()

    def _wait_for_headers(self) -> None:
        if self._waits_for != "headers":
            self._cancel()
            self._waits_for = "headers"
            self._deadline = self.loop.call_later(HEADERS_S, self._drop)

    def _wait_for_body(self) -> None:
        self._cancel()
        self._body_bytes = 0
        self._waits_for = "body"
        self._deadline = self.loop.call_later(BODY_S, self._look_at_body)

    def _look_at_body(self) -> None:
        # Where reading is paused, the house is slow and not whoever sends.
        slow = self._body_bytes < BODY_BYTES and not self.flow.read_paused
        if self.conn.their_state is not h11.SEND_BODY:
            self._cancel()
        elif slow:
            self._drop()
        else:
            self._wait_for_body()

    def _drop(self) -> None:
        self._end_waiting()
        with contextlib.suppress(Exception):
            self.transport.abort()

    def _cancel(self) -> None:
        self._waits_for = ""
        if self._deadline is not None:
            self._deadline.cancel()
            self._deadline = None

    def _end_waiting(self) -> None:
        self._cancel()
        if self._answer_deadline is not None:
            self._answer_deadline.cancel()
            self._answer_deadline = None
