"""Headers on every answer, refusals too: what a browser may do with it, and keep of it."""

from typing import Final

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

_POLICY: Final = "Content-Security-Policy"
_ALWAYS: Final = {
    # Everything ships with the application; the browser is told to fetch nothing else.
    _POLICY: (
        "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; "
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    ),
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Permissions-Policy": "camera=(self), geolocation=(), microphone=(), payment=(), usb=()",
}
#: A browser that came by https comes by https for a year, whatever a network says.
_BY_HTTPS: Final = ("Strict-Transport-Security", "max-age=31536000")
#: What the house tells is for whoever asked, and for now.
_OF_THE_API: Final = ("Cache-Control", "no-store")


class SecurityHeaders:
    """ASGI middleware, outermost; an answer that says something itself is left as it is."""

    def __init__(self, app: ASGIApp, *, https_for_good: bool = True, asks: str = "") -> None:
        """`asks` is where its pages may ask beside the application itself, in a policy's words."""
        self.app = app
        self._https_for_good = https_for_good
        self._always = dict(_ALWAYS)
        if asks:
            self._always[_POLICY] += f"; connect-src 'self' {asks}"

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def sending(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in self._always.items():
                    headers.setdefault(name, value)
                if self._https_for_good and scope["scheme"] == "https":
                    headers.setdefault(*_BY_HTTPS)
                if scope["path"].startswith("/api/"):
                    headers.setdefault(*_OF_THE_API)
            await send(message)

        await self.app(scope, receive, sending)
