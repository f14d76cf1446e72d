"""Headers on every answer, refusals too: what a browser may do with it, and keep of it."""

from typing import Final

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

_ALWAYS: Final = {
    # Everything ships with the application; the browser is told to fetch nothing else.
    "Content-Security-Policy": (
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

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def sending(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in _ALWAYS.items():
                    headers.setdefault(name, value)
                if scope["scheme"] == "https":
                    headers.setdefault(*_BY_HTTPS)
                if scope["path"].startswith("/api/"):
                    headers.setdefault(*_OF_THE_API)
            await send(message)

        await self.app(scope, receive, sending)
