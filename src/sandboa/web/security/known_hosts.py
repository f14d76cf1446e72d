"""Under which names the house answers, and which one a phone can reach."""

import ipaddress
import re
from html import escape
from string import Template
from typing import Final
from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.requests import Request
from starlette.responses import HTMLResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from sandboa.web.front_door.app import STYLE
from sandboa.web.front_end.sub_path import name_in, sub_path
from sandboa.web.house import House, Reach
from sandboa.web.problems.handlers import problem

_HERE = frozenset({"127.0.0.1", "localhost", "::1"})


class KnownHosts:
    """ASGI middleware; answers requests to a name of the house and refuses others.

    A page of somebody else's whose name was made to lead here would ask under
    its own name. Open to others, the house answers to bare addresses too:
    those belong to nobody's page.
    """

    def __init__(self, app: ASGIApp, reach: Reach) -> None:
        self.app = app
        self._reach = reach

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http":
            headers = Headers(scope=scope)
            host = headers.get("host", "")
            if not self._knows(name_in(host)):
                typed = f"{scope['scheme']}://{host}"
                refused = _page(typed) if "text/html" in headers.get("accept", "") else _UNKNOWN
                await refused(scope, receive, send)
                return
        await self.app(scope, receive, send)

    def _knows(self, name: str) -> bool:
        if name in _HERE:
            return True
        open_to_others = self._reach.address is not None
        # The names of a house at home follow its machine, so they are asked for each time.
        return (open_to_others and is_bare_address(name)) or name in self._reach.answers_to()


_UNKNOWN: Final = problem(400, "This house is not called that here.")


def _page(address: str) -> Response:
    """For whoever typed a name into a browser.

    It says none of the names that the house does have: a stranger's page whose
    name was made to lead here would read them.
    """
    told = address if _TYPED.fullmatch(address) else "https://THAT-NAME"
    words = {"name": escape(address[:80]), "address": told, "style": STYLE.read_text("utf-8")}
    return HTMLResponse(_PAGE.substitute(words), 400)


#: Addresses that may stand in a line to be typed.
_TYPED: Final = re.compile(r"https?://[A-Za-z0-9][A-Za-z0-9.-]{0,80}(:\d{1,5})?")
_PAGE: Final = Template("""<!doctype html>
<html lang="en"><head><meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="color-scheme" content="light dark"><title>Sandboa goes by another name</title>
<style>$style</style></head><body><main>
<h1>Sandboa goes by another name here</h1>
<p>A house answers only to names it was told, so that no page of a stranger can pass for it.
“$name” is none of them.</p>
<p>Open it under the address that was printed where Sandboa was started; Settings lists every
name under Phones.</p>
<p>If this name shall lead to the house, start it with the name beside its others:</p>
<code>sandboa serve --address $address</code>
</main></body></html>
""")


def reached_at(request: Request, house: House) -> str:
    """Scheme, host and path under which a phone reaches the house: for codes that are scanned.

    Asked from the machine itself it is the address given to others, if there is one.
    """
    asked = f"{request.url.scheme}://{request.url.netloc}{sub_path(request.scope)}"
    if house.address is not None and name_in(request.url.netloc) in _HERE:
        return house.address
    return asked


def is_here(address: str) -> bool:
    """Whether an address like http://127.0.0.1:8350 leads to the machine that follows it."""
    return urlsplit(address).hostname in _HERE


def is_bare_address(name: str) -> bool:
    """Whether a host is an IP address rather than a name."""
    try:
        ipaddress.ip_address(name)
    except ValueError:
        return False
    return True
