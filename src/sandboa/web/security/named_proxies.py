"""What a reverse proxy says of the requests it hands on."""

from collections.abc import Iterable
from typing import Final

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Receive, Scope, Send
from uvicorn.middleware.proxy_headers import ProxyHeadersMiddleware

#: Carries the name that was asked for, from proxies that ask under their own.
_ASKED_NAME: Final = "x-forwarded-host"


class NamedProxies:
    """ASGI middleware; takes the word of the proxies it is given, and of nobody else.

    Beside where a request comes from and by which scheme, which uvicorn reads,
    that is the name it was asked under: Apache, unless told otherwise, asks
    under its own.
    """

    def __init__(self, app: ASGIApp, addresses: Iterable[str]) -> None:
        """`addresses` are those of the proxies, single or as networks."""
        self._from_where = ProxyHeadersMiddleware(app, sorted(addresses))  # type: ignore[arg-type]

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        client = scope.get("client")
        if scope["type"] == "http" and client and client[0] in self._from_where.trusted_hosts:
            scope = _under_the_asked_name(scope)
        await self._from_where(scope, receive, send)  # type: ignore[arg-type]


def _under_the_asked_name(scope: Scope) -> Scope:
    """Of several proxies in a row each adds what it was asked under: the first heard the name."""
    asked = Headers(scope=scope).get(_ASKED_NAME, "").partition(",")[0].strip()
    if not asked:
        return scope
    headers = MutableHeaders(raw=list(scope["headers"]))
    headers["host"] = asked
    return {**scope, "headers": headers.raw}
