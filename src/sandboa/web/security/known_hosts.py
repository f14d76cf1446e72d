"""Under which names the house answers, and which one a phone can reach."""

import ipaddress
from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.requests import Request
from starlette.types import ASGIApp, Receive, Scope, Send

from sandboa.web.house import House
from sandboa.web.problems.handlers import problem

_HERE = frozenset({"127.0.0.1", "localhost", "::1"})


class KnownHosts:
    """ASGI middleware; answers requests to a name of the house and refuses others.

    A page of somebody else's whose name was made to lead here would ask under
    its own name. Open to others, the house answers to bare addresses too:
    those belong to nobody's page.
    """

    def __init__(self, app: ASGIApp, address: str | None) -> None:
        self.app = app
        self._open = address is not None
        named = urlsplit(address).hostname if address else None
        self._names = _HERE | ({named} if named else set())

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and not self._knows(Headers(scope=scope).get("host", "")):
            await problem(400, "This house is not called that here.")(scope, receive, send)
            return
        await self.app(scope, receive, send)

    def _knows(self, host: str) -> bool:
        name = _name_in(host)
        return name in self._names or (self._open and _is_bare_address(name))


def reached_at(request: Request, house: House) -> str:
    """Scheme and host under which a phone reaches the house: for codes that are scanned.

    RequestSchema from the machine itself it is the address given to others, if there is one.
    """
    asked = f"{request.url.scheme}://{request.url.netloc}"
    if house.address is not None and _name_in(request.url.netloc) in _HERE:
        return house.address
    return asked


def is_here(address: str) -> bool:
    """Whether an address like http://127.0.0.1:8350 leads to the machine that follows it."""
    return urlsplit(address).hostname in _HERE


def _name_in(host: str) -> str:
    try:
        return urlsplit(f"//{host}").hostname or ""
    except ValueError:
        return ""


def _is_bare_address(name: str) -> bool:
    try:
        ipaddress.ip_address(name)
    except ValueError:
        return False
    return True
