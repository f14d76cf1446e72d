"""The application answering on a socket, until it is interrupted."""

import asyncio
import gc
import logging
import signal
import socket
from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from types import FrameType
from typing import Final

import uvicorn
from fastapi import FastAPI

from sandboa import __version__
from sandboa.cli.home import say_the_way_in
from sandboa.cli.place import Place
from sandboa.devices.home_network import HomeNetwork
from sandboa.web.front_end.pages import STATIC
from sandboa.web.house import House
from sandboa.web.requests.connections import HEADERS_S, guarded

#: s between looks at the machine's names and addresses, and at the certificate's days.
FOLLOWED_EVERY_S: Final = 30.0
#: Bytes of a request's line and headers.
LARGEST_HEADERS: Final = 32 * 1024
_log = logging.getLogger(__name__)
_STOPPED_BY = (signal.SIGINT, signal.SIGTERM)


def answer(app: FastAPI, place: Place, listening: socket.socket, folder: Path) -> int:
    """Say where the application is, and run it over the house in `folder`; returns 0."""
    if not STATIC.is_dir():
        print("The front end is not built; only the API will answer (see the README).")
    house: House = app.state.house
    here = place.here(listening.getsockname()[1])
    print(f"The house is in {folder.resolve()}")
    print(f"Sandboa is at {here}/  (Ctrl+C stops it)", flush=True)
    if house.address is not None:
        print(f"Others reach it at {house.address}/", flush=True)
    if house.reach.home is not None:
        say_the_way_in(house.reach.home)
    if place.open and not place.certificate:
        print(
            "Passphrases travel unencrypted in your network. With --home they do not, and phones "
            "keep pages for when they are out of reach."
        )
    # What start-up made stays for good: spare the collector walking over it at every batch.
    gc.collect()
    gc.freeze()
    config = uvicorn.Config(
        app,
        # Our own logging, with times, is set up by the command.
        log_config=None,
        log_level="warning",
        access_log=False,
        timeout_graceful_shutdown=3,
        ssl_certfile=place.certificate,
        ssl_keyfile=place.key,
        http=guarded(house.connections),
        h11_max_incomplete_event_size=LARGEST_HEADERS,
        proxy_headers=False,
    )
    _log.info("Sandboa %s began at %s over %s", __version__, here, folder.resolve())
    _Server(config, house).run(sockets=[listening])
    _log.info("Sandboa has stopped; the house is closed")
    print("Sandboa has stopped; the house is closed.", flush=True)
    return 0


class _Server(uvicorn.Server):
    """Lets open pages go when it is told to stop: their stream has no end of its own."""

    def __init__(self, config: uvicorn.Config, house: House) -> None:
        super().__init__(config)
        self._house = house

    async def startup(self, sockets: list[socket.socket] | None = None) -> None:
        """As uvicorn starts, with an end to handshakes: it has no setting for that."""
        loop = asyncio.get_running_loop()
        if self.config.is_ssl:
            loop.create_server = partial(  # type: ignore[method-assign]
                loop.create_server, ssl_handshake_timeout=HEADERS_S
            )
        await super().startup(sockets)
        if self._house.reach.home is not None:
            self._following = asyncio.create_task(self._follow(self._house.reach.home))

    async def _follow(self, home: HomeNetwork) -> None:
        """Keep the certificate true: a router gives new addresses, and a year goes by."""
        while True:
            await asyncio.sleep(FOLLOWED_EVERY_S)
            try:
                if await asyncio.to_thread(home.refresh) and self.config.ssl is not None:
                    self.config.ssl.load_cert_chain(home.certificate.path)
                    _log.info("the certificate was made anew for %s", ", ".join(home.home.all))
            except Exception:
                # Whatever it was: in half a minute it is tried again, or the year would run out.
                _log.exception("the machine's names could not be followed")

    @contextmanager
    def capture_signals(self) -> Iterator[None]:
        """Stop for a signal, and only that.

        Uvicorn raises the signal anew once it has stopped, which would end the
        process before the house is closed.
        """
        before = {one: signal.signal(one, self.handle_exit) for one in _STOPPED_BY}
        try:
            yield
        finally:
            for one, handler in before.items():
                signal.signal(one, handler)

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self._house.live.close_elsewhere()
        super().handle_exit(sig, frame)
