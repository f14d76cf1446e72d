"""Names made known in the network by multicast DNS, so that nobody types an address."""

import logging
import socket
from collections.abc import Callable
from typing import Final

from zeroconf import (  # type: ignore[attr-defined]
    AddressResolverIPv4,
    InterfaceChoice,
    IPVersion,
    ServiceInfo,
    Zeroconf,
)
from zeroconf import Error as ZeroconfError

from sandboa.devices.home_network.names import HomeNames

#: What the house is called where nobody else is.
HOUSE_NAME: Final = "sandboa.local"
#: ms to wait for another house of that name to speak up (RFC 6762 asks for 750 at least).
_ASKED_MS: Final = 1_000
_HIGHEST: Final = 9
_FAULTS: Final = (OSError, ZeroconfError)

_log = logging.getLogger(__name__)


def _free_name(zeroconf: Zeroconf | None, own: tuple[str, ...]) -> str:
    if zeroconf is None:
        return HOUSE_NAME
    stem, _, end = HOUSE_NAME.partition(".")
    for number in range(1, _HIGHEST + 1):
        name = HOUSE_NAME if number == 1 else f"{stem}-{number}.{end}"
        asking = AddressResolverIPv4(f"{name}.")
        try:
            answered = asking.request(zeroconf, _ASKED_MS)
        except _FAULTS:
            return name
        if not answered or set(asking.parsed_addresses()) <= set(own):
            return name
    return HOUSE_NAME


def multicast(interfaces: list[str] | None = None) -> Zeroconf | None:
    """The way to speak to the network (by `interfaces`, else all); None where there is none."""
    try:
        return Zeroconf(interfaces=interfaces or InterfaceChoice.All, ip_version=IPVersion.V4Only)
    except _FAULTS as error:
        _log.warning("no names can be made known in the network: %s", error)
        return None


#: Opens the way to speak to the network; None where there is none now.
Multicast = Callable[[], Zeroconf | None]


class Announcement:
    """The house's page under its name, and the first page for phones under the machine's."""

    def __init__(self, multicast: Multicast, port: int, door_port: int) -> None:
        self._multicast = multicast
        self._zeroconf = multicast()
        self._ports = (port, door_port)
        self._told: tuple[ServiceInfo, ...] = ()
        self._addresses: tuple[str, ...] | None = None

    def free_name(self, own: tuple[str, ...]) -> str:
        """`sandboa.local`, or the first like `sandboa-2.local` that no other machine answers to.

        `own` are this machine's addresses: an answer with one of those is our own.
        """
        return _free_name(self._zeroconf, own)

    @property
    def heard(self) -> bool:
        """Whether the names are made known."""
        return bool(self._told)

    def tell(self, house_name: str, home: HomeNames) -> None:
        """Make the names known at the addresses the machine has now; what was told is taken back.

        Where that fails the house is reached by its address all the same, so
        it is only noted.
        """
        self._take_back()
        if self._addresses not in (None, home.addresses):
            # It speaks by the adapters there were when it was opened: at boot, often by none.
            self._close()
            self._zeroconf = self._multicast()
        self._addresses = home.addresses
        if self._zeroconf is None or not home.addresses:
            return
        addresses = [socket.inet_aton(one) for one in home.addresses]
        local = next(
            (one for one in home.names if one.endswith(".local") and one != house_name), house_name
        )
        services = (
            ("_https._tcp.local.", "Sandboa", self._ports[0], house_name),
            ("_http._tcp.local.", "Sandboa for a new phone", self._ports[1], local),
        )
        for kind, title, port, name in services:
            service = ServiceInfo(
                kind, f"{title}.{kind}", port=port, server=f"{name}.", addresses=addresses
            )
            try:
                self._zeroconf.register_service(service, allow_name_change=True)
            except _FAULTS as error:
                _log.warning("%s could not be made known in the network: %s", name, error)
                continue
            self._told = (*self._told, service)

    def _take_back(self) -> None:
        told, self._told = self._told, ()
        for service in told:
            try:
                self._zeroconf.unregister_service(service)  # type: ignore[union-attr]
            except _FAULTS as error:
                _log.warning("%s could not be taken back: %s", service.server, error)

    def close(self) -> None:
        """Say goodbye, so that phones do not ask an address that answers no more."""
        self._take_back()
        self._close()

    def _close(self) -> None:
        if self._zeroconf is not None:
            self._zeroconf.close()
            self._zeroconf = None
