"""What stands before every request: size limits, and where a page that asks comes from."""

from collections.abc import Awaitable, Callable
from typing import Final

from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from sandboa.formats.data_package import LARGEST_PACKED_BYTES
from sandboa.formats.delivery import LARGEST_DELIVERY_BYTES
from sandboa.formats.logger_files import LARGEST_FILE_BYTES
from sandboa.formats.old_records import LARGEST_LIST_BYTES
from sandboa.formats.pictures import LARGEST_PHOTO_BYTES
from sandboa.web.problems.handlers import problem

#: Bytes of a request body of which nothing else is known (assumption: the longest form, a lay
#: day of twenty eggs, is some 20 kB).
LARGEST_BODY_BYTES: Final = 256 * 1024
#: Bytes of a name and a passphrase (product requirement).
SIGNING_IN_BYTES: Final = 4 * 1024
#: Bytes that may come in at paths that take more, or less.
LIMITS: Final = (
    ("/api/session", SIGNING_IN_BYTES),
    ("/api/people", SIGNING_IN_BYTES),
    ("/api/house/package", LARGEST_PACKED_BYTES),
    ("/api/readings/files", LARGEST_FILE_BYTES),
    ("/api/bench/forecast", LARGEST_FILE_BYTES),
    ("/api/old-records", LARGEST_LIST_BYTES),
    ("/api/photos", LARGEST_PHOTO_BYTES),
    ("/api/readings", LARGEST_DELIVERY_BYTES),
)

#: What a browser says of a request of the house's own pages, or of somebody who typed its address.
_OWN_SITE: Final = ("same-origin", "none")


class RequestLimits:
    """ASGI middleware; refuses before the application reads a byte too many."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        headers = Headers(scope=scope)
        if _from_elsewhere(scope, headers):
            await problem(403, "this request came from another site")(scope, receive, send)
            return
        limit = _limit(scope["path"])
        declared = headers.get("content-length", "")
        if declared.isdigit() and int(declared) > limit:
            await _too_large(int(declared), limit)(scope, receive, send)
            return
        try:
            await self.app(scope, _counting(receive, limit), send)
        except BodyTooLargeError:
            await _too_large(limit, limit)(scope, receive, send)


class BodyTooLargeError(HTTPException):
    """A body without a declared length went over the limit.

    An HTTPException, as FastAPI takes any other error while it reads a body
    for a fault of the body.
    """

    def __init__(self, limit: int) -> None:
        super().__init__(413, _too_large_words(limit, limit))


def _limit(path: str) -> int:
    return next((most for start, most in LIMITS if path.startswith(start)), LARGEST_BODY_BYTES)


def _from_elsewhere(scope: Scope, headers: Headers) -> bool:
    """Whether a page of another site asks; what its links lead to may be looked at."""
    site = headers.get("sec-fetch-site")
    if site is not None and scope["path"].startswith("/api/"):
        return site not in _OWN_SITE
    origin = headers.get("origin")
    if origin is None or scope["method"] in ("GET", "HEAD"):
        return False
    return origin.partition("://")[2] != headers.get("host")


def _too_large(size: int, limit: int) -> Callable[[Scope, Receive, Send], Awaitable[None]]:
    return problem(413, _too_large_words(size, limit))


def _too_large_words(size: int, limit: int) -> str:
    return f"{_bytes(size)} is too large: {_bytes(limit)} fit. Nothing was stored."


def _bytes(size: int) -> str:
    return f"{size / 1e6:.0f} MB" if size >= 1_000_000 else f"{size / 1024:.0f} kB"


def _counting(receive: Receive, limit: int) -> Receive:
    taken = 0

    async def counted() -> Message:
        nonlocal taken
        message = await receive()
        taken += len(message.get("body", b""))
        if taken > limit:
            raise BodyTooLargeError(limit)
        return message

    return counted
