"""Who may come in, and to do what: asked before every request of the API.

As long as nobody has a passphrase the house answers this machine alone, and
everything is allowed. Once a keeper has one, everybody signs in.
"""

import ipaddress
from collections.abc import Awaitable, Callable
from typing import Final

from starlette.concurrency import run_in_threadpool
from starlette.requests import Request
from starlette.types import ASGIApp, Receive, Scope, Send

from sandboa.core.people import Deed, may, refusal
from sandboa.records.database import DatabaseFault
from sandboa.records.people import recorded_by
from sandboa.services.people.signing_in import SignedIn, someone_signs_in, whose
from sandboa.web.problems import database_problem, problem

COOKIE: Final = "sandboa_session"

#: Answers without anybody being signed in: signing in itself, devices with a token of their own.
_FREE: Final = (("/api/session", None), ("/api/alive", None), ("/api/readings", "POST"))
#: Paths that only a keeper may see or change.
_KEEPERS: Final = ("/api/people", "/api/house")
#: Paths that everybody may see and only a keeper may change: how the house is run.
_RUN: Final = ("/api/settings", "/api/methods", "/api/devices", "/api/messengers")
#: Posts that compute and store nothing.
_COMPUTED: Final = ("/api/bench/", "/api/readings/files/preview")
#: Everybody's own: their session, their calendar link.
_OWN: Final = ("/api/session", "/api/sessions", "/api/calendar/link")


_PROXIES_SAY: Final = (
    "forwarded", "x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "x-real-ip", "via",
)  # fmt: skip


class Doors:
    """ASGI middleware: lets a request through with its person in `request.state`, or refuses."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        request = Request(scope)
        if is_free(scope["path"], scope["method"]):
            await self.app(scope, receive, send)
            return
        try:
            refused, person = await run_in_threadpool(_admit, request)
        except DatabaseFault as error:
            # Before the application there is nobody else to say it in words.
            refused, person = database_problem(error), None
        if refused is not None:
            await refused(scope, receive, send)
            return
        request.state.person = person
        recorded_by.set(person.entity if person else None)
        await self.app(scope, receive, send)


_Refusal = Callable[[Scope, Receive, Send], Awaitable[None]]


def _admit(request: Request) -> tuple[_Refusal | None, SignedIn | None]:
    if not someone_signs_in():
        if is_elsewhere(request):
            return problem(403, NOT_OPEN), None
        return None, None
    now_s = request.app.state.house.clock.now_s()
    person = whose(request.cookies.get(COOKIE), now_s)
    if person is None:
        return problem(401, "Sign in first; nothing was stored."), None
    deed = deed_of(request.method, request.url.path)
    if not may(person.role, deed):
        return problem(403, f"{refusal(deed).capitalize()}."), None
    return None, person


def still_admitted(request: Request) -> bool:
    """Whether a request that was let in would be now: for answers that go on."""
    return _admit(request)[0] is None


NOT_OPEN: Final = (
    "This house answers its own machine alone until a keeper has a passphrase. "
    "Set one there, in Settings."
)


def deed_of(method: str, path: str) -> Deed:
    """What a request to that path means to do; anything unlisted that is no look is recording."""
    if _under(path, _KEEPERS):
        return Deed.RUN
    if method in ("GET", "HEAD") or _under(path, _OWN) or path.startswith(_COMPUTED):
        return Deed.LOOK
    return Deed.RUN if _under(path, _RUN) else Deed.RECORD


def is_elsewhere(request: Request) -> bool:
    """Whether the request comes from another machine, as far as it can be told.

    A reverse proxy on this machine asks from here on behalf of others: it gives
    itself away by the headers proxies add, or by speaking HTTP/1.0, which no
    browser does.
    """
    if request.scope.get("http_version") == "1.0" or any(
        header in request.headers for header in _PROXIES_SAY
    ):
        return True
    try:
        return (
            request.client is not None and not ipaddress.ip_address(request.client.host).is_loopback
        )
    except ValueError:
        return False


def is_free(path: str, method: str) -> bool:
    """Whether that is answered without anybody being signed in."""
    return any(path == free and only in (None, method) for free, only in _FREE)


def _under(path: str, starts: tuple[str, ...]) -> bool:
    return any(path == start or path.startswith(f"{start}/") for start in starts)
