"""The plain-http page that hands out the house's authority and leads on to https."""

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Final

from starlette.applications import Starlette
from starlette.middleware import Middleware
from starlette.requests import Request
from starlette.responses import JSONResponse, Response
from starlette.routing import Mount, Route
from starlette.staticfiles import StaticFiles

from sandboa.web.security.security_headers import SecurityHeaders

PAGE: Final = Path(__file__).parent / "page"
#: Of every page that is shown before the application is.
STYLE: Final = PAGE / "page.css"


def front_door(
    certificate: bytes, begins_with: str, leads_to: Callable[[], Sequence[str]]
) -> Starlette:
    """The page's application.

    `certificate` is the authority's (DER), `begins_with` what is compared of its fingerprint.
    `leads_to` gives the house's https addresses now, the one to keep first.
    """

    def get_house(_: Request) -> Response:
        return JSONResponse(
            {"addresses": list(leads_to()), "begins_with": begins_with},
            headers={"Cache-Control": "no-store"},
        )

    def get_certificate(_: Request) -> Response:
        return Response(
            certificate,
            # Under this type phones offer to keep it, rather than show it.
            media_type="application/x-x509-ca-cert",
            headers={
                "Content-Disposition": 'attachment; filename="sandboa-house.crt"',
                "Cache-Control": "no-store",
            },
        )

    return Starlette(
        routes=[
            Route("/house.json", get_house),
            Route("/sandboa-house.crt", get_certificate),
            Mount("/", StaticFiles(directory=PAGE, html=True)),
        ],
        # It asks the house's https addresses whether they are trusted, and nobody else.
        middleware=[Middleware(SecurityHeaders, asks="https:")],
    )
