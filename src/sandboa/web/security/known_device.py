"""A mark on devices somebody was signed in with: guesses made elsewhere do not shut them out.

It lets nobody in; it only has its own tries counted apart from everybody's.
"""

import secrets
from typing import Final

from fastapi import Request, Response

from sandboa.core.units import SECONDS_PER_DAY
from sandboa.services.safekeeping import house_file

COOKIE: Final = "sandboa_device"
#: Days a device stays known (assumption: longer than a season and the winter after it).
_DAYS: Final = 400
_BEGINS: Final = "device"


def mark_device(response: Response, person: int, *, secure: bool) -> None:
    """Let this device be known as one that person was signed in with."""
    said = f"{_BEGINS}:{person}:{secrets.token_urlsafe(12)}"
    response.set_cookie(
        COOKIE,
        house_file.sealed(said),
        max_age=int(_DAYS * SECONDS_PER_DAY),
        httponly=True,
        samesite="strict",
        secure=secure,
    )


def known_device(request: Request, person: int | None) -> str | None:
    """The device's own mark when that person was signed in with it before, else None."""
    sealed = request.cookies.get(COOKIE)
    if person is None or not sealed or len(sealed) > 1_000:
        return None
    said = house_file.unsealed(sealed)
    parts = said.split(":") if said else []
    fits = len(parts) == 3 and parts[0] == _BEGINS and parts[1] == str(person)
    return parts[2] if fits else None
