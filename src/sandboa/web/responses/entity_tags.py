"""Answers that say what they are, so that who has the same already is told only that."""

from hashlib import blake2b
from typing import Any, Final

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

_JSON: Final = "application/json"
#: What is told of people and of how the house is run, no browser keeps.
_NOT_KEPT: Final = (
    *("/api/session", "/api/people", "/api/house", "/api/devices", "/api/messengers"),
    "/api/calendar",
)
#: Headers about a body, which an answer without one does not have.
_OF_A_BODY: Final = ("content-length", "content-type")


class EntityTags:
    """ASGI middleware; tags answers of the API, and leaves the body out where it is known.

    Open pages ask again and again for what seldom changed. The tag is weak: on its way an
    answer may be compressed.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        asks = scope["type"] == "http" and scope["method"] == "GET"
        if not asks or not scope["path"].startswith("/api/"):
            await self.app(scope, receive, send)
            return
        held: Message | None = None
        body = bytearray()

        async def sending(message: Message) -> None:
            nonlocal held
            if message["type"] == "http.response.start" and _is_answer(message):
                held = message
                return
            if held is None:
                await send(message)
                return
            body.extend(message.get("body", b""))
            if not message.get("more_body", False):
                known = Headers(scope=scope).get("if-none-match", "")
                kept = not scope["path"].startswith(_NOT_KEPT)
                await _send_tagged(held, bytes(body), known, send, kept=kept)

        await self.app(scope, receive, sending)


def _is_answer(start: Message) -> bool:
    told = Headers(raw=start["headers"]).get("content-type", "")
    return bool(start["status"] == 200 and told.startswith(_JSON))


async def _send_tagged(start: Message, body: bytes, known: str, send: Send, *, kept: bool) -> None:
    tag = f'W/"{blake2b(body, digest_size=16).hexdigest()}"'
    headers = MutableHeaders(scope=start)
    headers["etag"] = tag
    if kept:
        # A browser keeps it, shows it to nobody unasked, and asks each time whether it still holds.
        headers.setdefault("Cache-Control", "private, no-cache")
    if tag in (one.strip() for one in known.split(",")):
        for name in _OF_A_BODY:
            del headers[name]
        start, body = {**start, "status": 304, "headers": headers.raw}, b""
    await send(start)
    await send(_of(body))


def _of(body: bytes) -> dict[str, Any]:
    return {"type": "http.response.body", "body": body}
