"""What each route may be asked by: declared at the route, and found by whatever stands before it.

A route is declared with one of the dependencies here, `dependencies=[RECORD]`.
They ask nothing themselves: `authorization` does before a byte of the body is
read, and the API's description names them.
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from fastapi import APIRouter, Depends, Security, params
from fastapi.routing import APIRoute
from fastapi.security import APIKeyCookie, HTTPBearer
from starlette.routing import Match
from starlette.types import Scope

from sandboa.core.people import Deed

COOKIE: Final = "sandboa_session"
SESSION_SCHEME: Final = "session"

_session = APIKeyCookie(
    name=COOKIE,
    scheme_name=SESSION_SCHEME,
    description="Given by signing in; as long as nobody has a passphrase none is needed.",
    auto_error=False,
)
_device = HTTPBearer(scheme_name="device", description="A device's own token.", auto_error=False)


def _anyone() -> None:
    """Nothing is asked."""


#: Everybody of the house may look.
LOOK: Final = Security(_session, scopes=[Deed.LOOK.value])
#: Keepers and helpers record.
RECORD: Final = Security(_session, scopes=[Deed.RECORD.value])
#: Only keepers change how the house is run, or see its people and copies.
RUN: Final = Security(_session, scopes=[Deed.RUN.value])
#: Everybody changes what is their own, as their session or calendar link.
OWN: Final = Security(_session, scopes=[Deed.LOOK.value])
#: A device with a token of its own, and no person.
DEVICE: Final = Security(_device)
#: Answered without anybody being signed in: signing in itself, and what an address is a key to.
ANYONE: Final = Depends(_anyone)


class Undeclared(RuntimeError):
    """A route says not what it may be asked by: the application does not start."""


@dataclass(frozen=True, slots=True)
class _Declared:
    route: APIRoute
    deed: Deed | None


class Permissions:
    """The deeds that routes ask for, by method and path."""

    def __init__(self, routers: Sequence[APIRouter]) -> None:
        """Raises Undeclared for a route that is not declared, or twice."""
        self._declared = tuple(
            _Declared(route, _deed_of(route))
            for router in routers
            for route in router.routes
            if isinstance(route, APIRoute)
        )

    def deed(self, scope: Scope) -> Deed | None:
        """What a request means to do; None where it needs nobody. Looking, where no route is."""
        for declared in self._declared:
            if declared.route.matches(scope)[0] is Match.FULL:
                return declared.deed
        return Deed.LOOK


def _deed_of(route: APIRoute) -> Deed | None:
    found = list(_permissions(route.dependencies))
    if len(found) != 1:
        raise Undeclared(f"{sorted(route.methods or ())} {route.path} declares {len(found)}")
    (permission,) = found
    scopes = permission.scopes if isinstance(permission, params.Security) else ()
    return Deed(scopes[0]) if scopes else None


def _permissions(dependencies: Iterable[params.Depends]) -> Iterable[params.Depends]:
    known = (_session, _device, _anyone)
    return (given for given in dependencies if given.dependency in known)
