"""What the machine of the house is called, and at which addresses its network reaches it."""

import ipaddress
import re
import socket
from dataclasses import dataclass
from typing import Final

import ifaddr

_LABEL: Final = re.compile(r"[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?")
_NAMELESS: Final = frozenset({"localhost", "localhost.localdomain"})


@dataclass(frozen=True, slots=True)
class HomeNames:
    """Names in lower case, the first for cards and codes; IPv4 addresses as text."""

    names: tuple[str, ...]
    addresses: tuple[str, ...]

    @property
    def all(self) -> tuple[str, ...]:
        """Names, then addresses."""
        return self.names + self.addresses


def machine_names() -> tuple[str, ...]:
    """The machine's own name and the same under `.local`; nothing for a nameless machine.

    Either may be typed at a phone. Neither can be the name of a stranger's page.
    """
    name = socket.gethostname().lower().rstrip(".")
    if name in _NAMELESS or not all(_LABEL.fullmatch(part) for part in name.split(".")):
        return ()
    first = name.partition(".")[0]
    return tuple(dict.fromkeys((name, first, f"{first}.local")))


def names_here(house_name: str, more: tuple[str, ...] = ()) -> HomeNames:
    """Names and addresses of the house now: `more` first, then `house_name`, then the machine's."""
    names = dict.fromkeys((*more, house_name, *machine_names()))
    return HomeNames(tuple(names), own_addresses())


def own_addresses() -> tuple[str, ...]:
    """IPv4 addresses of this machine's adapters that others can ask, in the system's order."""
    found = (
        ip.ip
        for adapter in ifaddr.get_adapters()
        for ip in adapter.ips
        if isinstance(ip.ip, str) and not ipaddress.ip_address(ip.ip).is_loopback
    )
    # What an adapter gave itself comes after what a router gave it.
    return tuple(
        sorted(dict.fromkeys(found), key=lambda one: ipaddress.ip_address(one).is_link_local)
    )
