"""The code on a card: a QR that opens the clutch."""

import io
from typing import Annotated

import segno
from fastapi import APIRouter, Path, Request
from starlette.responses import Response

from sandboa.journal.errors import NotFound
from sandboa.records.clutches import clutch_coded
from sandboa.web.hosts import reached_at
from sandboa.web.house import TheHouse

router = APIRouter(prefix="/api", tags=["card"])


@router.get("/clutches/{code}/qr.svg", response_class=Response)
def get_qr(
    code: Annotated[str, Path(max_length=20)], request: Request, house: TheHouse
) -> Response:
    """The address of the clutch's page as a QR code (SVG)."""
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    address = f"{reached_at(request, house)}/clutches/{clutch.code}"
    out = io.BytesIO()
    segno.make_qr(address, error="m").save(out, kind="svg", border=2, xmldecl=False, scale=4)
    return Response(out.getvalue(), media_type="image/svg+xml")
