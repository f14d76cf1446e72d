"""Where the application listens, and how others reach it."""

import argparse
import ipaddress
import os
import re
import socket
import ssl
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Final
from urllib.parse import urlsplit

from sandboa.core.errors import NotPlausible
from sandboa.devices.home_network import HomeNetwork, machine_names
from sandboa.web.house import Reach

#: A path a house may be under: none, or names a browser sends as they are.
_PATH: Final = re.compile(r"(?:/[A-Za-z0-9._~-]{1,60}){0,4}")
#: An address kept for documentation: asking the way there sends nothing.
_FAR_AWAY = "192.0.2.1"
#: This machine only, unless told otherwise.
_LOOPBACK = "127.0.0.1"
_PORT = 8350


@dataclass(frozen=True, slots=True)
class Place:
    """Host and port to listen on (0 takes a free port).

    `named` is the address for others, `names` what it answers to beside; `paths` are the paths it
    is under, by name.
    """

    host: str
    port: int
    named: str | None = None
    certificate: Path | None = None
    key: Path | None = None
    proxies: frozenset[str] = frozenset()
    names: tuple[str, ...] = ()
    paths: tuple[tuple[str, str], ...] = ()

    @property
    def listens_to_others(self) -> bool:
        """Whether other machines reach this port."""
        return not _is_loopback(self.host)

    @property
    def open(self) -> bool:
        """Whether other machines can get in here, be it through a proxy on this machine."""
        return self.listens_to_others or self.named is not None

    def reach(self, port: int, home: HomeNetwork | None = None) -> Reach:
        """How others reach the house that listens on `port`."""
        own = machine_names() if self.open else ()
        names = frozenset((*self.names, *own))
        return Reach(self._address(port), names, self.proxies, home, dict(self.paths))

    def at_home(self, home: HomeNetwork) -> "Place":
        """The same with the certificate and names that it has at home."""
        path = home.certificate.path
        named = self.named or home.addresses()[0]
        return replace(self, certificate=path, key=path, named=named)

    def _address(self, port: int) -> str | None:
        if self.named is not None or not self.listens_to_others:
            return self.named
        return self._url(_own_address() if _is_everywhere(self.host) else self.host, port)

    def here(self, port: int) -> str:
        """Where the machine itself reaches it."""
        return self._url(_LOOPBACK if _is_everywhere(self.host) else self.host, port)

    def _url(self, host: str, port: int) -> str:
        bracketed = f"[{host}]" if ":" in host else host
        return f"{'https' if self.certificate else 'http'}://{bracketed}:{port}"


def add_place(command: argparse.ArgumentParser) -> None:
    """Add the flags that say where to listen, each also settable in the environment."""
    command.add_argument(
        "--host", default=_LOOPBACK, metavar="ADDRESS",
        help="listen there; 0.0.0.0 lets other machines in, once a keeper has a passphrase",
    )  # fmt: skip
    command.add_argument(
        "--port", type=int, default=_PORT,
        help=f"0 takes a free one; {_PORT} unless told otherwise",
    )  # fmt: skip
    command.add_argument(
        "--address", metavar="URL",
        help="how other machines reach this one, as printed on cards; also behind a proxy and "
        "under a path of it, once a keeper has a passphrase; several with commas between, the one "
        "for cards first",
    )  # fmt: skip
    command.add_argument(
        "--proxy", metavar="ADDRESS",
        help="a reverse proxy whose word for where a request comes from is taken, several with "
        "commas between; nobody else's word is",
    )  # fmt: skip
    command.add_argument(
        "--certificate", type=Path, metavar="PEM",
        help="answer by https",
    )  # fmt: skip
    command.add_argument(
        "--key", type=Path, metavar="PEM",
        help="the certificate's private key",
    )  # fmt: skip


def _proxies(named: str | None) -> frozenset[str]:
    """Addresses of reverse proxies, as they are said with commas between."""
    found = frozenset(part.strip() for part in (named or "").split(",") if part.strip())
    for address in found:
        try:
            ipaddress.ip_address(address)
        except ValueError as error:
            raise NotPlausible("proxy", f'--proxy "{address[:60]}" is not an address') from error
    return found


def place_of(asked: argparse.Namespace) -> Place:
    """The place asked for on the command line; NotPlausible when it cannot be one."""
    _require_certificate(asked.certificate, asked.key)
    addresses = [_clean_address(one.strip()) for one in (asked.address or "").split(",") if one]
    parts = [urlsplit(one) for one in addresses]
    names = tuple(part.hostname or "" for part in parts)
    return Place(
        asked.host,
        asked.port,
        named=addresses[0] if addresses else None,
        certificate=asked.certificate,
        key=asked.key,
        proxies=_proxies(asked.proxy),
        names=names,
        paths=tuple((part.hostname or "", part.path) for part in parts if part.path),
    )


def listen(place: Place) -> socket.socket:
    """Listen before saying so: whoever reads the address can connect at once."""
    # Named as TCP, or asyncio leaves small answers waiting 40 ms for their acknowledgement.
    family = socket.AF_INET6 if ":" in place.host else socket.AF_INET
    listening = socket.socket(family, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    if os.name != "nt":
        # On Windows it would let two houses listen at one port.
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((place.host, place.port))
    except (OSError, OverflowError) as error:
        listening.close()
        raise NotPlausible(
            "port", f"cannot listen on {place.host}:{place.port}: {error}"
        ) from error
    listening.listen(128)
    return listening


def _clean_address(text: str) -> str:
    parts = urlsplit(text)
    path = parts.path.rstrip("/")
    if parts.scheme not in ("http", "https") or not parts.hostname or not _PATH.fullmatch(path):
        raise NotPlausible(
            "address",
            f'--address "{text[:60]}" is not like https://sandboa.home:8350 or '
            "https://home.example/sandboa",
        )
    return f"{parts.scheme}://{parts.netloc}{path}"


def _require_certificate(certificate: Path | None, key: Path | None) -> None:
    if certificate is None and key is None:
        return
    if certificate is None or key is None:
        raise NotPlausible("certificate", "--certificate and --key belong together")
    try:
        ssl.create_default_context(ssl.Purpose.CLIENT_AUTH).load_cert_chain(certificate, key)
    except (OSError, ssl.SSLError) as error:
        raise NotPlausible(
            "certificate", f"{certificate} and {key} are no certificate and its key: {error}"
        ) from error


def _own_address() -> str:
    """The address of this machine in its network, or its name when it has none."""
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as asking:
        try:
            asking.connect((_FAR_AWAY, 9))
        except OSError:
            return socket.gethostname()
        return str(asking.getsockname()[0])


def _is_loopback(host: str) -> bool:
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return host == "localhost"


def _is_everywhere(host: str) -> bool:
    try:
        return ipaddress.ip_address(host).is_unspecified
    except ValueError:
        return False
