"""The house's names and the code that leads a new phone to it."""

import io

import segno
from fastapi import APIRouter
from starlette.responses import Response

from sandboa.services.acts.errors import NotFound
from sandboa.web.home_network.schemas import CertificateResponse, HomeNetworkResponse
from sandboa.web.house import TheHouse
from sandboa.web.security.known_hosts import is_bare_address
from sandboa.web.security.permissions import LOOK

router = APIRouter(prefix="/api/home-network", tags=["house"])


@router.get("", dependencies=[LOOK])
def get_home_network(house: TheHouse) -> HomeNetworkResponse:
    """How phones find the house."""
    home = house.reach.home
    return HomeNetworkResponse(
        address=house.address,
        names=sorted(one for one in house.reach.answers_to() if not is_bare_address(one)),
        door=home.door() if home is not None else None,
        certificate=None
        if home is None
        else CertificateResponse(
            begins_with=home.authority.begins_with, ends_at=home.authority.ends
        ),
        name_is_known=home is not None and home.name_is_known,
    )


_NO_CODE = {
    "description": "Phones do not reach this house yet",
    "content": {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}},
}


@router.get("/qr.svg", dependencies=[LOOK], response_class=Response, responses={404: _NO_CODE})
def get_home_network_qr(house: TheHouse) -> Response:
    """What a new phone scans (SVG): the page that makes it know the house, or the house itself."""
    home = house.reach.home
    leads_to = home.door() if home is not None else house.address
    if leads_to is None:
        raise NotFound("phones do not reach this house yet")
    out = io.BytesIO()
    segno.make_qr(leads_to, error="m").save(out, kind="svg", border=2, xmldecl=False, scale=4)
    return Response(out.getvalue(), media_type="image/svg+xml")
