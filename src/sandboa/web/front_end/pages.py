"""Pages, scripts and styles of the built front end, and what they are told of where they are."""

import os
from html import escape
from pathlib import Path
from typing import Final

from starlette.datastructures import Headers
from starlette.exceptions import HTTPException
from starlette.responses import FileResponse, Response
from starlette.staticfiles import StaticFiles
from starlette.types import Scope

from sandboa.web.front_end.sub_path import sub_path

STATIC: Final = Path(__file__).parents[1] / "static"
#: Forms that scripts and styles are built in, by encoding, the smallest first. Browsers take the
#: first on https and on this machine only.
_COMPRESSED: Final = (("br", ".br"), ("gzip", ".gz"))
PathLike = str | os.PathLike[str]


class FrontEnd(StaticFiles):
    """The built front end; a path that is no file is a place of the single page."""

    async def get_response(self, path: str, scope: Scope) -> Response:
        response = await self._file(path, scope)
        under = sub_path(scope)
        if under and isinstance(response, FileResponse) and _names_paths(response):
            return _moved(Path(response.path), under, response.media_type)
        return response

    async def _file(self, path: str, scope: Scope) -> Response:
        try:
            response = await super().get_response(path, scope)
        except HTTPException as error:
            if error.status_code != 404 or path.startswith(("api/", "assets/")):
                raise
            response = FileResponse(STATIC / "index.html")
        hashed = path.startswith("assets/")
        response.headers["Cache-Control"] = (
            "public, max-age=31536000, immutable" if hashed else "no-cache"
        )
        return response

    def file_response(
        self, full_path: PathLike, stat_result: os.stat_result, scope: Scope, status_code: int = 200
    ) -> Response:
        """Of what was compressed when it was built, the smallest form that is taken."""
        taken = Headers(scope=scope).get("accept-encoding", "")
        for encoding, suffix in _COMPRESSED:
            smaller = Path(f"{os.fspath(full_path)}{suffix}")
            if encoding in (one.partition(";")[0].strip() for one in taken.split(",")) and (
                smaller.is_file()
            ):
                response = super().file_response(smaller, smaller.stat(), scope, status_code)
                response.headers["Content-Encoding"] = encoding
                response.headers.add_vary_header("Accept-Encoding")
                return response
        return super().file_response(full_path, stat_result, scope, status_code)


def _names_paths(response: FileResponse) -> bool:
    """Whether a file names paths from the root of its host: the page and the manifest do."""
    return Path(response.path).suffix in (".html", ".webmanifest")


def _moved(file: Path, under: str, media_type: str | None) -> Response:
    """The file for a house under a path: what it names is there, and it says so to the page."""
    text = file.read_text("utf-8").replace('"/', f'"{under}/')
    text = text.replace("<head>", f'<head><meta name="sandboa-path" content="{escape(under)}" />')
    return Response(text, media_type=media_type, headers={"Cache-Control": "no-cache"})
