"""The application: routers, problems, guards, and the front end it ships with."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from functools import cache
from pathlib import Path
from typing import Final

from fastapi import APIRouter, FastAPI
from fastapi.routing import APIRoute
from starlette.middleware.gzip import GZipMiddleware
from starlette.routing import BaseRoute

from sandboa import __version__
from sandboa.formats.pictures import close_readers
from sandboa.services.safekeeping.house_file import open_house
from sandboa.web.background.alarm_monitor import monitoring_alarms
from sandboa.web.background.long_work import long_work
from sandboa.web.background.night import nights
from sandboa.web.clock import Clock, SystemClock
from sandboa.web.front_end.pages import STATIC, FrontEnd
from sandboa.web.front_end.sub_path import SubPath
from sandboa.web.house import House, Reach
from sandboa.web.openapi import describe
from sandboa.web.places import ROUTERS
from sandboa.web.problems import handlers as problems
from sandboa.web.requests.connections import ledger_for
from sandboa.web.requests.open_house import OpenHouse
from sandboa.web.responses.entity_tags import EntityTags
from sandboa.web.security.authorization import Authorization
from sandboa.web.security.known_hosts import KnownHosts
from sandboa.web.security.named_proxies import NamedProxies
from sandboa.web.security.permissions import Permissions
from sandboa.web.security.request_limits import RequestLimits
from sandboa.web.security.security_headers import SecurityHeaders

#: How hard answers are compressed, 1 to 9: beyond this a small computer works longer than it saves.
_COMPRESSION: Final = 5


def create_app(
    database: Path | None,
    clock: Clock | None = None,
    *,
    demo: bool = False,
    backups: Path | None = None,
    reach: Reach | None = None,
    log: Path | None = None,
) -> FastAPI:
    """The application over the house at `database` (None: only its description is wanted).

    `backups` is the folder for the night's copies. `reach` is how others reach
    it; without one it answers this machine alone. `log` is the file of the log.
    """
    reach = reach or Reach()
    app = FastAPI(
        title="Sandboa",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_beside_requests if database is not None else None,
    )
    app.state.house = House(
        clock or SystemClock(),
        demo,
        backups=backups,
        connections=ledger_for(reach.proxies),
        reach=reach,
        log=log,
    )
    if database is not None:
        open_house(database)
    problems.install(app)
    app.router.routes.extend(_places())
    describe(app)
    if STATIC.is_dir():
        # Scripts are asked for once and kept: they are worth the longest look.
        app.mount("/", GZipMiddleware(FrontEnd(directory=STATIC, html=True), minimum_size=1000))
    app.add_middleware(EntityTags)
    app.add_middleware(GZipMiddleware, minimum_size=1000, compresslevel=_COMPRESSION)
    app.add_middleware(Authorization, permissions=Permissions(ROUTERS))
    app.add_middleware(OpenHouse)
    app.add_middleware(RequestLimits)
    app.add_middleware(KnownHosts, reach=reach)
    # At home the first page of a phone goes by http under the house's name.
    app.add_middleware(SecurityHeaders, https_for_good=reach.home is None)
    if reach.paths:
        app.add_middleware(SubPath, paths=reach.paths)
    if reach.proxies:
        app.add_middleware(NamedProxies, addresses=reach.proxies)
    return app


@cache
def _places() -> tuple[BaseRoute, ...]:
    """The routes of every place, shared by the applications of a process.

    The first request works out what each of them takes, which costs as much as thirty others.
    """
    everything = APIRouter(generate_unique_id_function=_operation_name)
    for router in ROUTERS:
        everything.include_router(router)
    return tuple(everything.routes)


@asynccontextmanager
async def _beside_requests(app: FastAPI) -> AsyncIterator[None]:
    async with monitoring_alarms(app), nights(app), long_work(app):
        yield
    close_readers()


def _operation_name(route: APIRoute) -> str:
    return route.name
