"""All of the house's standing in its network, kept true while it runs."""

import logging
from datetime import UTC, datetime
from pathlib import Path
from types import TracebackType

from sandboa.devices.home_network.announcement import Announcement, Multicast
from sandboa.devices.home_network.authority import Authority, HouseCertificate
from sandboa.devices.home_network.names import HomeNames, names_here, own_addresses

_log = logging.getLogger(__name__)


class HomeNetwork:
    """Names, certificate and announcement of a house answering by https at home.

    `folder` keeps the authority; `ports` are the house's and the first
    page's; `more` are names its keeper gave it, before its own. `multicast`
    opens the way by which names are made known.

    Raises Unreadable when the authority's file is damaged and OSError when
    the folder cannot be written.
    """

    def __init__(
        self,
        folder: Path,
        ports: tuple[int, int],
        multicast: Multicast,
        more: tuple[str, ...] = (),
    ) -> None:
        self.port, self.door_port = ports
        self._more = more
        self._announcement = Announcement(multicast, self.port, self.door_port)
        self._house_name = self._announcement.free_name(own_addresses())
        self.home: HomeNames = self._names()
        now = datetime.now(UTC)
        self.authority = Authority.kept_in(folder, now, self.home.names)
        self.certificate = HouseCertificate(folder, self.authority)
        self.certificate.renewed(self.home, now)
        self._announcement.tell(self._house_name, self.home)

    def __enter__(self) -> "HomeNetwork":
        return self

    def __exit__(
        self,
        _: type[BaseException] | None,
        __: BaseException | None,
        ___: TracebackType | None,
    ) -> None:
        self._announcement.close()

    @property
    def name_is_known(self) -> bool:
        """Whether the network is told the house's name."""
        return self._announcement.heard

    def addresses(self) -> list[str]:
        """The house's https addresses that phones can believe, the one to keep first."""
        return [
            f"https://{name}:{self.port}"
            for name in self.home.all
            if self.authority.may_certify(name)
        ]

    def unbelieved(self) -> list[str]:
        """Names its keeper gave the house that its authority may not certify."""
        return [name for name in self._more if not self.authority.may_certify(name)]

    def door(self) -> str:
        """The first page's address for a phone.

        By number: a phone may not hear names made known in the network, and
        goes by https alone to names it went to by https.
        """
        host = next(iter(self.home.addresses), self.home.names[0])
        return f"http://{host}:{self.door_port}/"

    def refresh(self) -> bool:
        """Follow the machine to new names and addresses; whether the certificate was made anew.

        What cannot be written is noted and tried again with the next call.
        """
        home = self._names()
        try:
            renewed = self.certificate.renewed(home, datetime.now(UTC))
        except OSError as error:
            _log.warning("the house's certificate could not be made anew: %s", error)
            return False
        if home != self.home:
            self.home = home
            self._announcement.tell(self._house_name, home)
        return renewed

    def _names(self) -> HomeNames:
        return names_here(self._house_name, self._more)
