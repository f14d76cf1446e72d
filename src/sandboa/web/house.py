"""What every request works with: the house's knowledge and the clock."""

import math
from asyncio import Semaphore
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Annotated, cast
from urllib.parse import urlsplit
from uuid import uuid4

from fastapi import Depends, Request

from sandboa.devices.home_network import HomeNetwork
from sandboa.services.people.signing_in import SignedIn
from sandboa.services.readings.named_values import LoneHumidities
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.services.snapshot.snapshot import Snapshot
from sandboa.web.background.heard import Heard
from sandboa.web.background.live_state import LiveState
from sandboa.web.background.long_work import LongWork
from sandboa.web.background.restoring import Restoring
from sandboa.web.background.senders import Senders
from sandboa.web.clock import Clock
from sandboa.web.requests.concurrency import (
    Bounded,
    deliveries,
    pages_that_listen,
    photos_that_come,
    writing,
)
from sandboa.web.requests.connections import Ledger
from sandboa.web.requests.exclusive_use import Access
from sandboa.web.rounds.shares import RoundShares
from sandboa.web.security.sign_in_attempts import Attempts


@dataclass(frozen=True, slots=True)
class Reach:
    """How others reach the house; by itself: not at all.

    `address` is the one for cards and codes, like https://192.168.1.20:8350.
    `names` are those it answers to beside that one's and bare addresses.
    `proxies` are the addresses whose word is taken for where a request comes
    from. `home` is its standing in the network with `serve --home`. `paths` are
    those it is under, like /sandboa, by the names of the hosts.
    """

    address: str | None = None
    names: frozenset[str] = frozenset()
    proxies: frozenset[str] = frozenset()
    home: HomeNetwork | None = None
    paths: Mapping[str, str] = field(default_factory=dict)

    def answers_to(self) -> frozenset[str]:
        """Every name the house answers to from elsewhere."""
        named = urlsplit(self.address).hostname if self.address else None
        known = frozenset(self.home.home.all) if self.home is not None else frozenset()
        return self.names | known | ({named} if named else frozenset())


def _follow_nothing() -> None:
    """No broker was asked for."""


@dataclass
class House:
    clock: Clock
    demo: bool = False
    snapshots: SnapshotCache = field(default_factory=SnapshotCache)
    live: LiveState = field(default_factory=LiveState)
    deliveries: Bounded = field(default_factory=deliveries)
    writing: Semaphore = field(default_factory=writing)
    listening: Bounded = field(default_factory=pages_that_listen)
    photos: Bounded = field(default_factory=photos_that_come)
    attempts: Attempts = field(default_factory=Attempts)
    reach: Reach = field(default_factory=Reach)
    #: Where backups go when that was said at the start; None: as set in Settings.
    backups: Path | None = None
    #: The file of the log; None: none is kept.
    log: Path | None = None
    access: Access = field(default_factory=Access)
    long_work: LongWork = field(init=False)
    shares: RoundShares = field(default_factory=RoundShares)
    connections: Ledger = field(default_factory=Ledger)
    restoring: Restoring = field(default_factory=Restoring)
    senders: Senders = field(default_factory=Senders)
    heard: Heard = field(default_factory=Heard)
    lone_humidities: LoneHumidities = field(default_factory=LoneHumidities)
    #: Called when other topics are to be followed than before.
    follow_named: Callable[[], None] = _follow_nothing
    #: What the last night found not to be as it was recorded.
    problems: tuple[str, ...] = ()
    #: When the watch last looked at the cabinets, s; None: not yet.
    looked_s: float | None = None
    #: When the application was started, s.
    begun_s: float = field(init=False)
    #: Changes when another house stands in the place of this one: pages read everything anew.
    generation: str = field(default_factory=lambda: uuid4().hex)

    def __post_init__(self) -> None:
        self.begun_s = self.clock.now_s()
        self.long_work = LongWork(self.access)

    @property
    def address(self) -> str | None:
        """Where others reach the house; None: at this machine alone."""
        return self.reach.address

    def snapshot(self) -> Snapshot:
        """What the house knows now."""
        return self.snapshots.current()

    def moment_s(self) -> float:
        """The end of this minute (s): what is recorded or read in it has been by then.

        Pages asked for one after another, by however many, then share what was worked out.
        """
        return math.ceil(self.clock.now_s() / 60.0) * 60.0

    def forget(self) -> None:
        """Another house was put in place: nothing that was known of the one before holds."""
        self.snapshots = SnapshotCache()
        self.problems = ()
        self.shares = RoundShares()
        self.lone_humidities = LoneHumidities()
        self.generation = uuid4().hex
        self.follow_named()


def _house(request: Request) -> House:
    return cast(House, request.app.state.house)


def _now_s(request: Request) -> float:
    return _house(request).clock.now_s()


def _moment_s(request: Request) -> float:
    return _house(request).moment_s()


def _asking(request: Request) -> SignedIn | None:
    return cast("SignedIn | None", request.state.person)


TheHouse = Annotated[House, Depends(_house)]
#: Who is signed in where the request comes from; None as long as nobody has to be.
Asking = Annotated[SignedIn | None, Depends(_asking)]
NowS = Annotated[float, Depends(_now_s)]
#: The end of this minute, for answers that only look.
MomentS = Annotated[float, Depends(_moment_s)]
