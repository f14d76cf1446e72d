"""The application: routers, problems, guards, and the front end it ships with."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI
from fastapi.routing import APIRoute
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.responses import FileResponse, Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope
from uvicorn.middleware.proxy_headers import ProxyHeadersMiddleware

from sandboa import __version__
from sandboa.formats.pictures import close_readers
from sandboa.records.database import open_database
from sandboa.web import problems
from sandboa.web.clock import Clock, SystemClock
from sandboa.web.connections import ledger_for
from sandboa.web.description import describe
from sandboa.web.doors import Doors
from sandboa.web.guards import Guards
from sandboa.web.hosts import KnownHosts
from sandboa.web.house import House
from sandboa.web.night import nights
from sandboa.web.open_house import OpenHouse
from sandboa.web.routers import (
    acts,
    alarms,
    animals,
    bench,
    cabinets,
    calendar,
    cards,
    clutches,
    devices,
    eggs,
    genes,
    hatching,
    health,
    house_package,
    intake,
    lay_day,
    lay_days,
    losses,
    messengers,
    people,
    photos,
    probes,
    readings,
    rounds,
    rules,
    safekeeping,
    season,
    seasons,
    settings,
    today,
)
from sandboa.web.safe_headers import SafeHeaders
from sandboa.web.watching import watching

STATIC = Path(__file__).parent / "static"
_PLACES = (
    today,
    animals,
    season,
    clutches,
    eggs,
    rounds,
    cards,
    lay_day,
    lay_days,
    photos,
    probes,
    devices,
    intake,
    hatching,
    losses,
    seasons,
    genes,
    cabinets,
    alarms,
    messengers,
    readings,
    bench,
    settings,
    people,
    calendar,
    house_package,
    safekeeping,
    health,
    acts,
    rules,
)


def create_app(
    database: Path | None,
    clock: Clock | None = None,
    *,
    demo: bool = False,
    address: str | None = None,
    backups: Path | None = None,
    proxies: frozenset[str] = frozenset(),
) -> FastAPI:
    """The application over the house at `database` (None: only its description is wanted).

    `address` is where others reach it; without one it answers this machine
    alone. `backups` is the folder for the night's copies. `proxies` are the
    addresses whose word is taken for where a request comes from.
    """
    app = FastAPI(
        title="Sandboa",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        generate_unique_id_function=lambda route: _operation_name(route),
        lifespan=_beside_requests if database is not None else None,
    )
    app.state.house = House(
        clock or SystemClock(),
        demo,
        address=address,
        backups=backups,
        connections=ledger_for(proxies),
    )
    if database is not None:
        open_database(database)
    problems.install(app)
    for place in _PLACES:
        app.include_router(place.router)
    app.get("/api/alive", include_in_schema=False)(_alive)
    describe(app)
    if STATIC.is_dir():
        app.mount("/", GZipMiddleware(_FrontEnd(directory=STATIC, html=True), minimum_size=1000))
    app.add_middleware(Doors)
    app.add_middleware(OpenHouse)
    app.add_middleware(Guards)
    app.add_middleware(KnownHosts, address=address)
    app.add_middleware(SafeHeaders)
    if proxies:
        app.add_middleware(ProxyHeadersMiddleware, trusted_hosts=sorted(proxies))
    return app


@asynccontextmanager
async def _beside_requests(app: FastAPI) -> AsyncIterator[None]:
    async with watching(app), nights(app):
        yield
    close_readers()


class _FrontEnd(StaticFiles):
    """The built front end; a path that is no file is a place of the single page."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        try:
            response = await super().get_response(path, scope)
        except HTTPException as error:
            if error.status_code != 404 or path.startswith(("api/", "assets/")):
                raise
            response = FileResponse(STATIC / "index.html")
        hashed = path.startswith("assets/")
        response.headers["Cache-Control"] = (
            "public, max-age=31536000, immutable" if hashed else "no-cache"
        )
        return response


def _operation_name(route: APIRoute) -> str:
    return route.name


def _alive() -> dict[str, bool]:
    """The empty endpoint: for waiting until the server is up, and to measure others against."""
    return {"alive": True}
