"""Who asks, from where and with what: for the security log."""

from typing import Annotated

from fastapi import Depends, Request

from sandboa.services.safekeeping.security_log import By


def asked_by(request: Request) -> By:
    """Whoever sends this request."""
    person = getattr(request.state, "person", None)
    return By(
        person.entity if person is not None else None,
        request.client.host if request.client else "",
        request.headers.get("user-agent", ""),
    )


AskedBy = Annotated[By, Depends(asked_by)]
