"""Responses of this place."""

from pydantic import BaseModel

from sandboa.web.schemas.common import Moment


class CertificateResponse(BaseModel):
    """The authority of a house at home: what phones compare, and until when they can trust it.

    `begins_with` are the first digits of the SHA-256 of its certificate.
    """

    begins_with: str
    ends_at: Moment


class HomeNetworkResponse(BaseModel):
    """`address` is the one on cards and codes; None: the house answers its own machine alone.

    `names` are all it answers to, beside bare addresses. `door` is the first
    page of a new phone and `certificate` the house's own, with `serve --home`;
    `name_is_known` says whether the network is told the house's name.
    """

    address: str | None
    names: list[str]
    door: str | None
    certificate: CertificateResponse | None
    name_is_known: bool
