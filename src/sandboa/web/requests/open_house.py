"""ASGI middleware: each request uses the house while it is there, and stores in it while it may.

What was stored is told to open pages."""

from collections.abc import Awaitable, Callable
from typing import Final

from starlette.types import ASGIApp, Receive, Scope, Send

from sandboa.services.safekeeping.house_file import damage
from sandboa.web.problems.handlers import DAMAGED_HOUSE, problem
from sandboa.web.requests.exclusive_use import HouseClosed

#: Requests that go on for as long as a page is open: they use the house for moments of their own.
_GOING_ON: Final = ("/api/live",)
#: What may be asked by POST of a house that is only read from: it computes, lets in, or mends.
STORES_NOTHING: Final = (
    "/api/bench/",
    "/api/readings/files/preview",
    "/api/session",
    "/api/house/restore",
)
#: Readings of devices come too often to tell of each: the watch does, once a minute.
_DELIVERIES: Final = "/api/readings"
_LATER_S: Final = 30


class OpenHouse:
    """Refuses what would store something in a damaged house, or in one being restored."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["path"] in _GOING_ON:
            await self.app(scope, receive, send)
            return
        access = scope["app"].state.house.access
        refusal = access.only_read or (DAMAGED_HOUSE if damage() else None)
        if refusal is not None and _stores(scope["method"], scope["path"]):
            await _later(refusal)(scope, receive, send)
            return
        try:
            with access.use():
                await self.app(scope, receive, send)
            if _stores(scope["method"], scope["path"]) and scope["path"] != _DELIVERIES:
                scope["app"].state.house.live.recorded()
        except HouseClosed as closed:
            await _later(f"{str(closed).capitalize()}. Nothing was stored.")(scope, receive, send)


def _stores(method: str, path: str) -> bool:
    return method not in ("GET", "HEAD", "OPTIONS") and not path.startswith(STORES_NOTHING)


def _later(detail: str) -> Callable[[Scope, Receive, Send], Awaitable[None]]:
    response = problem(503, detail)
    response.headers["Retry-After"] = str(_LATER_S)
    return response
