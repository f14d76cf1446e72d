"""Long work that a page asked for goes on after its answer, so that the next one finds more."""

import logging
from collections.abc import AsyncIterator, Callable
from contextlib import asynccontextmanager
from dataclasses import dataclass, field
from threading import Event, Lock, Thread
from typing import Final

from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool

from sandboa.services.safekeeping.house_file import let_go
from sandboa.web.requests.deadline import PATIENCE_S, for_seconds
from sandboa.web.requests.exclusive_use import Access

#: s of work between two rests, and s of each rest: whoever asks a page goes first.
_PIECE_S: Final = 0.5
_REST_S: Final = 0.02

_log = logging.getLogger(__name__)

#: Does some of the work for as long as it is told to go on; returns whether all is done.
Piece = Callable[[Callable[[], bool]], bool]


@dataclass
class LongWork:
    """One thread that does what was asked for last, piece by piece, until it is done.

    Safe to share between threads. Nothing is lost with it: what is not done is asked for again.
    """

    access: Access
    _wanted: dict[str, Piece] = field(default_factory=dict)
    _lock: Lock = field(default_factory=Lock)
    _thread: Thread | None = None
    _stop: Event = field(default_factory=Event)

    def go_on_with(self, name: str, piece: Piece) -> None:
        """Go on with a piece of work beside everything else; in place of one of that name."""
        with self._lock:
            if self._stop.is_set():
                return
            self._wanted.pop(name, None)
            self._wanted[name] = piece
            if self._thread is None:
                self._thread = Thread(target=self._work, name="long work", daemon=True)
                self._thread.start()

    def patience(self, name: str) -> Callable[[], bool]:
        """How long an answer may work by itself: while its work goes on beside it, not at all."""
        with self._lock:
            under_way = name in self._wanted
        return for_seconds(0.0 if under_way else PATIENCE_S)

    def close(self) -> None:
        """Stop after the piece that is under way, and wait for it."""
        with self._lock:
            self._stop.set()
            thread = self._thread
        if thread is not None:
            thread.join()

    def _work(self) -> None:
        while True:
            with self._lock:
                if self._stop.is_set() or not self._wanted:
                    self._thread = None
                    return
                name, piece = next(reversed(self._wanted.items()))
            done = True
            try:
                with self.access.use_when_open():
                    try:
                        done = piece(self._for_a_piece())
                    finally:
                        # Before whoever puts another house in its place.
                        let_go()
            except Exception:
                # Whoever asks again for it sees why.
                _log.exception("long work failed: %s", name)
            with self._lock:
                if done and self._wanted.get(name) is piece:
                    del self._wanted[name]
            self._stop.wait(_REST_S)

    def _for_a_piece(self) -> Callable[[], bool]:
        in_time = for_seconds(_PIECE_S)
        return lambda: in_time() and not self._stop.is_set()


@asynccontextmanager
async def long_work(app: FastAPI) -> AsyncIterator[None]:
    """Part of the lifespan of the application: no work outlives it."""
    try:
        yield
    finally:
        await run_in_threadpool(app.state.house.long_work.close)
