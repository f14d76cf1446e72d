"""Where a device's token may stand: in a header, as a password, or in the address."""

import base64
import binascii
from typing import Annotated

from fastapi import Header, Query

from sandboa.services.people.tokens import NotAllowed

Authorization = Annotated[str, Header(max_length=600)]
TokenInAddress = Annotated[str, Query(max_length=200)]


def device_token(authorization: str, in_address: str) -> str:
    """The token a device sent; empty for none. NotAllowed for a header that carries none.

    As `Bearer TOKEN`, as `Basic` with the token for a password and any name, or as `token` in the
    address.
    """
    scheme, _, said = authorization.partition(" ")
    match scheme.casefold():
        case "":
            return in_address.strip()
        case "bearer":
            return said.strip()
        case "basic":
            try:
                _, _, password = base64.b64decode(said, validate=True).decode().partition(":")
            except (binascii.Error, UnicodeDecodeError) as error:
                raise NotAllowed("the basic authorization cannot be read") from error
            return password.strip()
        case _:
            raise NotAllowed("send the token as Authorization: Bearer ..., or as its password")
