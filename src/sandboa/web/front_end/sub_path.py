"""A house under a path of another's address, like https://home.example/sandboa.

A proxy may pass the path on or take it off: either way the application sees its own paths, and
pages learn where they are.
"""

from collections.abc import Mapping
from typing import Final
from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Receive, Scope, Send

#: Where the path is told in a request's scope; "" at a host of the house's own.
SUB_PATH: Final = "sandboa.sub_path"


class SubPath:
    """ASGI middleware; takes the path of the address a request came to off its own."""

    def __init__(self, app: ASGIApp, paths: Mapping[str, str]) -> None:
        """`paths` are those of the house's addresses, like /sandboa, by their hosts' names."""
        self.app = app
        self._paths = paths

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http":
            scope = dict(scope)
            under = self._under(scope)
            scope[SUB_PATH] = under
            if _is_under(scope["path"], under):
                scope["path"] = scope["path"][len(under) :] or "/"
                scope.pop("raw_path", None)
        await self.app(scope, receive, send)

    def _under(self, scope: Scope) -> str:
        """By the name that was asked for; where a proxy asks under its own, by the path."""
        named = name_in(Headers(scope=scope).get("host", ""))
        if named in self._paths:
            return self._paths[named]
        found = (path for path in self._paths.values() if _is_under(scope["path"], path))
        return next(found, "")


def name_in(host: str) -> str:
    """The name in a Host header, "" where there is none."""
    try:
        return urlsplit(f"//{host}").hostname or ""
    except ValueError:
        return ""


def _is_under(path: str, under: str) -> bool:
    return bool(under) and (path == under or path.startswith(f"{under}/"))


def sub_path(scope: Scope) -> str:
    """The path the house is under for whoever asks, like /sandboa; "" for none."""
    found: str = scope.get(SUB_PATH, "")
    return found
