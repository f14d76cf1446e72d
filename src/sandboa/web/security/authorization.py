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
from sandboa.services.people.signing_in import SignedIn, record_as, someone_signs_in, whose
from sandboa.services.safekeeping.faults import STATEMENT_FAILED
from sandboa.web.problems.handlers import database_problem, problem
from sandboa.web.requests.reader import answer_for, reader_of
from sandboa.web.security.permissions import COOKIE, Permissions
from sandboa.words import SI_READER, Reader

_PROXIES_SAY: Final = (
    "forwarded", "x-forwarded-for", "x-forwarded-host", "x-forwarded-proto", "x-real-ip", "via",
)  # fmt: skip


class Authorization:
    """ASGI middleware: lets a request through with its person in `request.state`, or refuses.

    What a request means to do is what its route declares (see `permissions`).
    """

    def __init__(self, app: ASGIApp, permissions: Permissions) -> None:
        self.app = app
        self.permissions = permissions

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        request = Request(scope)
        deed = self.permissions.deed(scope)
        if deed is None:
            await self.app(scope, receive, send)
            return
        try:
            refused, person, reader = await run_in_threadpool(_admit, request, deed)
        except STATEMENT_FAILED as error:
            # Before the application there is nobody else to say it in words.
            refused, person, reader = database_problem(error), None, SI_READER
        if refused is not None:
            await refused(scope, receive, send)
            return
        request.state.person = person
        record_as(person)
        answer_for(reader)
        await self.app(scope, receive, send)


_Refusal = Callable[[Scope, Receive, Send], Awaitable[None]]


def _admit(request: Request, deed: Deed) -> tuple[_Refusal | None, SignedIn | None, Reader]:
    """A refusal or None, who asks, and what their answer is read in."""
    refused, person = _person(request, deed)
    if refused is not None:
        return refused, None, SI_READER
    return None, person, reader_of(request.headers, person.entity if person else None)


def _person(request: Request, deed: Deed) -> tuple[_Refusal | None, SignedIn | None]:
    if not someone_signs_in():
        if is_elsewhere(request):
            return problem(403, NOT_OPEN), None
        return None, None
    now_s = request.app.state.house.clock.now_s()
    person = whose(request.cookies.get(COOKIE), now_s)
    if person is None:
        return problem(401, "Sign in first; nothing was stored."), None
    if not may(person.role, deed):
        return problem(403, f"{refusal(deed).capitalize()}."), None
    return None, person


def still_admitted(request: Request) -> bool:
    """Whether a request that was let in to look would be now: for answers that go on."""
    return _person(request, Deed.LOOK)[0] is None


NOT_OPEN: Final = (
    "This house answers its own machine alone until a keeper has a passphrase. "
    "Set one there, in Settings."
)


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
