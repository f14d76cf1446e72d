"""The house's own authority: what phones believe by it, what they never may, and how it lasts."""

import socket
import ssl
import threading
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from zeroconf import AddressResolverIPv4, IPVersion, Zeroconf

from sandboa.devices.home_network import announcement, names
from sandboa.devices.home_network.announcement import Announcement, multicast
from sandboa.devices.home_network.authority import (
    AUTHORITY_DAYS,
    CERTIFICATE_DAYS,
    RENEWED_BEFORE_DAYS,
    Authority,
    HouseCertificate,
    Unreadable,
)
from sandboa.devices.home_network.names import HomeNames

NOW = datetime.now(UTC)
HOME = HomeNames(("sandboa.local", "shed", "shed.local"), ("192.168.1.20",))
LOOPBACK = ["127.0.0.1"]


@pytest.fixture
def authority(tmp_path: Path) -> Authority:
    return Authority.kept_in(tmp_path, NOW, HOME.names)


def trusting(authority: Authority) -> ssl.SSLContext:
    context = ssl.create_default_context()
    context.load_verify_locations(cadata=authority.der)
    return context


@contextmanager
def answering(path: Path):
    """A port of this machine where TLS is spoken with the certificate in `path`."""
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    context.load_cert_chain(path)
    with socket.create_server(("127.0.0.1", 0)) as listening:

        def serve() -> None:
            try:
                with context.wrap_socket(listening.accept()[0], server_side=True) as there:
                    there.recv(1)
            except (OSError, ssl.SSLError):
                return

        thread = threading.Thread(target=serve)
        thread.start()
        try:
            yield listening.getsockname()[1]
        finally:
            thread.join()


def believed(path: Path, name: str, context: ssl.SSLContext) -> bool:
    """Whether whoever trusts as `context` does believes the certificate about `name`."""
    with answering(path) as port, socket.create_connection(("127.0.0.1", port)) as plain:
        try:
            with context.wrap_socket(plain, server_hostname=name):
                return True
        except ssl.SSLCertVerificationError:
            return False


@pytest.mark.parametrize("name", [*HOME.all, "localhost", "127.0.0.1"])
def test_a_phone_that_trusts_the_authority_believes_each_name(
    tmp_path: Path, authority: Authority, name: str
) -> None:
    certificate = HouseCertificate(tmp_path, authority)
    certificate.renewed(HOME, NOW)
    assert believed(certificate.path, name, trusting(authority))
    assert not believed(certificate.path, name, ssl.create_default_context())


def test_it_is_believed_about_no_name_that_a_home_has_not(
    tmp_path: Path, authority: Authority, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Even with its key in hand: the authority itself says what it is for."""
    abroad = HomeNames(("bank.example", "shed.bank.example"), ("203.0.113.9",))
    assert not any(authority.may_certify(name) for name in abroad.all)
    monkeypatch.setattr(Authority, "may_certify", lambda *_: True)
    certificate = HouseCertificate(tmp_path, authority)
    certificate.renewed(abroad, NOW)
    for name in abroad.all:
        assert not believed(certificate.path, name, trusting(authority))


def test_what_it_may_not_certify_is_left_out_and_the_rest_is_made(
    tmp_path: Path, authority: Authority
) -> None:
    certificate = HouseCertificate(tmp_path, authority)
    mixed = HomeNames(("sandboa.local", "bank.example"), ("203.0.113.9", "10.0.0.4"))
    assert certificate.renewed(mixed, NOW)
    assert believed(certificate.path, "10.0.0.4", trusting(authority))
    # Nor is it made anew each time for what it can never hold.
    assert not certificate.renewed(mixed, NOW)


def test_it_is_kept_and_each_house_has_its_own(tmp_path: Path, authority: Authority) -> None:
    assert Authority.kept_in(tmp_path, NOW, ()).fingerprint == authority.fingerprint
    assert Authority.kept_in(tmp_path / "other", NOW, ()).fingerprint != authority.fingerprint
    assert (tmp_path / "authority.pem").stat().st_mode & 0o077 == 0


@pytest.mark.parametrize(
    ("home", "after_days", "anew"),
    [
        (HOME, 0, False),
        (HOME, CERTIFICATE_DAYS - RENEWED_BEFORE_DAYS - 1, False),
        (HOME, CERTIFICATE_DAYS - RENEWED_BEFORE_DAYS + 1, True),
        # The router gave another address.
        (HomeNames(HOME.names, ("192.168.1.77",)), 0, True),
        (HomeNames(HOME.names[:1], HOME.addresses), 0, False),
    ],
)
def test_the_certificate_follows_the_names_and_is_renewed_in_time(
    tmp_path: Path, authority: Authority, home: HomeNames, after_days: int, anew: bool
) -> None:
    certificate = HouseCertificate(tmp_path, authority)
    certificate.renewed(HOME, NOW)
    later = NOW + timedelta(days=after_days)
    assert certificate.renewed(home, later) is anew
    assert not certificate.renewed(home, later)


def test_an_authority_at_its_end_is_followed_by_another(
    tmp_path: Path, authority: Authority
) -> None:
    certificate = HouseCertificate(tmp_path, authority)
    certificate.renewed(HOME, NOW)
    late = NOW + timedelta(days=AUTHORITY_DAYS - RENEWED_BEFORE_DAYS + 1)
    another = Authority.kept_in(tmp_path, late, HOME.names)
    assert another.fingerprint != authority.fingerprint
    # What the one before signed is not believed any more.
    assert HouseCertificate(tmp_path, another).renewed(HOME, NOW)


@given(cut=st.integers(0, 900))
def test_a_damaged_authority_is_said_and_a_damaged_certificate_made_anew(
    tmp_path_factory: pytest.TempPathFactory, cut: int
) -> None:
    folder = tmp_path_factory.mktemp("home")
    authority = Authority.kept_in(folder, NOW, HOME.names)
    certificate = HouseCertificate(folder, authority)
    certificate.renewed(HOME, NOW)
    whole = certificate.path.read_bytes()
    certificate.path.write_bytes(whole[: min(cut, len(whole) - 40)])
    assert certificate.renewed(HOME, NOW)
    path = folder / "authority.pem"
    whole = path.read_bytes()
    path.write_bytes(whole[: min(cut, len(whole) - 40)])
    with pytest.raises(Unreadable, match="every phone has to trust once more"):
        Authority.kept_in(folder, NOW, HOME.names)
    # Nothing was put over it: it may come back from a copy.
    assert path.read_bytes() == whole[: min(cut, len(whole) - 40)]


@pytest.mark.parametrize(
    ("said", "known"),
    [
        ("Shed", ("shed", "shed.local")),
        ("shed.lan", ("shed.lan", "shed", "shed.local")),
        ("localhost", ()),
        ("the shed!", ()),
        ("", ()),
    ],
)
def test_the_machine_is_known_by_its_own_name(
    monkeypatch: pytest.MonkeyPatch, said: str, known: tuple[str, ...]
) -> None:
    monkeypatch.setattr(names.socket, "gethostname", lambda: said)
    assert names.machine_names() == known


@contextmanager
def heard_from():
    """A machine in the same network: this one's loopback."""
    listening = Zeroconf(interfaces=LOOPBACK, ip_version=IPVersion.V4Only)
    try:
        yield listening
    finally:
        listening.close()


def addresses_of(name: str, listening: Zeroconf) -> list[str]:
    asking = AddressResolverIPv4(f"{name}.")
    return asking.parsed_addresses() if asking.request(listening, 3_000) else []


def test_another_machine_hears_the_names_and_a_second_house_takes_another() -> None:
    def loopback() -> Zeroconf | None:
        return multicast(LOOPBACK)

    first = Announcement(loopback, 8350, 8351)
    second = Announcement(loopback, 8360, 8361)
    try:
        first.tell("sandboa.local", HOME)
        assert first.heard
        with heard_from() as listening:
            assert addresses_of("sandboa.local", listening) == ["192.168.1.20"]
            assert addresses_of("shed.local", listening) == ["192.168.1.20"]
        assert second.free_name(("192.168.1.20",)) == "sandboa.local"
        assert second.free_name(("192.168.1.31",)) == "sandboa-2.local"
        first.tell("sandboa.local", HomeNames(HOME.names, ("192.168.1.77",)))
        with heard_from() as listening:
            assert addresses_of("sandboa.local", listening) == ["192.168.1.77"]
    finally:
        first.close()
        second.close()


def test_a_network_that_comes_after_the_house_is_told_too() -> None:
    """At boot a small computer has no address yet, and nothing to speak by."""
    opened = iter([None, multicast(LOOPBACK)])
    house = Announcement(lambda: next(opened), 8350, 8351)
    try:
        house.tell("sandboa.local", HomeNames(HOME.names, ()))
        assert not house.heard
        house.tell("sandboa.local", HOME)
        assert house.heard
        with heard_from() as listening:
            assert addresses_of("sandboa.local", listening) == ["192.168.1.20"]
    finally:
        house.close()


def test_without_multicast_the_house_goes_by_its_address(
    monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def refused(**_: object) -> Zeroconf:
        raise OSError("no such device")

    monkeypatch.setattr(announcement, "Zeroconf", refused)
    assert multicast() is None
    assert "no such device" in caplog.text
    silent = Announcement(multicast, 8350, 8351)
    silent.tell("sandboa.local", HOME)
    assert not silent.heard
    assert silent.free_name(()) == "sandboa.local"
    silent.close()
