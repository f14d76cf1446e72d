"""What every request works with: the house's knowledge and the clock."""

from dataclasses import dataclass, field
from typing import Annotated, cast

from fastapi import Depends, Request

from sandboa.journal.cabinet_faults import FaultsNow
from sandboa.journal.house_now import HouseNow
from sandboa.journal.signing_in import SignedIn
from sandboa.web.attempts import Attempts
from sandboa.web.clock import Clock
from sandboa.web.intake_gate import IntakeGate
from sandboa.web.live_state import LiveState


@dataclass
class House:
    clock: Clock
    demo: bool = False
    now: HouseNow = field(default_factory=HouseNow)
    gate: IntakeGate = field(default_factory=IntakeGate)
    live: LiveState = field(default_factory=LiveState)
    faults: FaultsNow = field(default_factory=FaultsNow)
    attempts: Attempts = field(default_factory=Attempts)
    #: Where others reach the house, like https://192.168.1.20:8350; None: at this machine alone.
    address: str | None = None


def _house(request: Request) -> House:
    return cast(House, request.app.state.house)


def _now_s(request: Request) -> float:
    return _house(request).clock.now_s()


def _asking(request: Request) -> SignedIn | None:
    return cast("SignedIn | None", request.state.person)


TheHouse = Annotated[House, Depends(_house)]
#: Who is signed in where the request comes from; None as long as nobody has to be.
Asking = Annotated[SignedIn | None, Depends(_asking)]
NowS = Annotated[float, Depends(_now_s)]
