"""A certificate authority for one house, and the certificate the house answers with.

Phones trust the authority once. It is bound, by name constraints (RFC 5280,
4.2.1.10), to names and addresses of a home: whoever gets hold of its key can
pretend to be a house in this network, and not a bank.
"""

import ipaddress
import os
import secrets
import tempfile
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Final

from cryptography import x509
from cryptography.exceptions import InvalidSignature
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

from sandboa.devices.home_network.names import HomeNames

#: Phones refuse longer ones for servers (825 days by themselves, 398 from public authorities).
CERTIFICATE_DAYS: Final = 397
#: Days before its end from which a certificate is made anew.
RENEWED_BEFORE_DAYS: Final = 60
#: As long as a small computer may serve; afterwards every phone has to trust a new one.
AUTHORITY_DAYS: Final = 3650
#: Letters of a fingerprint that people compare: 64 bits, which nobody meets by trying.
_COMPARED: Final = 23
#: Clocks of small computers are late until they have asked the time.
_CLOCK_DAYS: Final = 2

#: Ends of names that only a home network gives out (RFC 6762, RFC 8375, ICANN's `internal`, and
#: what routers make up).
_HOME_DOMAINS: Final = ("local", "home.arpa", "internal", "home", "lan", "localhost")
_HOME_NETWORKS: Final = (
    "10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8",
    "fc00::/7", "fe80::/10", "::1/128",
)  # fmt: skip
#: Under these the house's own machine reaches it.
_HERE: Final = HomeNames(("localhost",), ("127.0.0.1", "::1"))


class Unreadable(Exception):
    """A file of the authority is damaged; its text says what to do."""


@dataclass(frozen=True, slots=True)
class _Pair:
    key: ec.EllipticCurvePrivateKey
    certificate: x509.Certificate


class Authority:
    """The house's own authority, kept in a file of its own folder."""

    def __init__(self, pair: _Pair) -> None:
        self._pair = pair

    @classmethod
    def kept_in(cls, folder: Path, now: datetime, names: tuple[str, ...]) -> "Authority":
        """The authority of `folder`; made when there is none, or when its years are over.

        `names` may be certified beside those every home has: the machine's,
        and what its keeper calls it. Unreadable when the file is damaged,
        OSError when it cannot be written.
        """
        path = folder / "authority.pem"
        if path.exists():
            pair = _read(path)
            if now < pair.certificate.not_valid_after_utc - timedelta(days=RENEWED_BEFORE_DAYS):
                return cls(pair)
        pair = _new_authority(now, names)
        _write(path, pair)
        return cls(pair)

    @property
    def certificate(self) -> x509.Certificate:
        return self._pair.certificate

    @property
    def der(self) -> bytes:
        """The certificate as phones take it."""
        return self.certificate.public_bytes(serialization.Encoding.DER)

    @property
    def fingerprint(self) -> str:
        """SHA-256 of the certificate, in pairs of hexadecimal digits as phones show it."""
        return self.certificate.fingerprint(hashes.SHA256()).hex(":").upper()

    @property
    def begins_with(self) -> str:
        """As much of the fingerprint as people compare."""
        return self.fingerprint[:_COMPARED]

    @property
    def ends(self) -> datetime:
        return self.certificate.not_valid_after_utc

    def may_certify(self, name: str) -> bool:
        """Whether phones would believe the authority about this name or address."""
        constraints = self.certificate.extensions.get_extension_for_class(x509.NameConstraints)
        permitted = constraints.value.permitted_subtrees or []
        try:
            address = ipaddress.ip_address(name)
        except ValueError:
            domains = [one.value for one in permitted if isinstance(one, x509.DNSName)]
            return any(name == one or name.endswith(f".{one}") for one in domains)
        networks = [one.value for one in permitted if isinstance(one, x509.IPAddress)]
        return any(address in network for network in networks)  # type: ignore[operator]

    def issue(self, names: HomeNames, now: datetime) -> _Pair:
        """A certificate for those of the names that it may certify."""
        key = ec.generate_private_key(ec.SECP256R1())
        known = [one for one in (*_HERE.all, *names.all) if self.may_certify(one)]
        authority = self.certificate
        identifier = x509.AuthorityKeyIdentifier.from_issuer_public_key(self._pair.key.public_key())
        ends = min(now + timedelta(days=CERTIFICATE_DAYS), authority.not_valid_after_utc)
        certificate = (
            _begun(key, _named(names.all[0][:60]), now, ends)
            .issuer_name(authority.subject)
            .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
            .add_extension(_usage(signs_data=True), critical=True)
            .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
            .add_extension(identifier, critical=False)
            .add_extension(
                x509.SubjectAlternativeName([_general(one) for one in dict.fromkeys(known)]),
                critical=False,
            )
            .sign(self._pair.key, hashes.SHA256())
        )
        return _Pair(key, certificate)


class HouseCertificate:
    """What the house answers with: a file that follows its names and is renewed in time."""

    def __init__(self, folder: Path, authority: Authority) -> None:
        self.path = folder / "house.pem"
        self._authority = authority

    def renewed(self, names: HomeNames, now: datetime) -> bool:
        """Make it anew where it does not fit; whether it was. OSError: it could not be written."""
        if self._holds(names, now):
            return False
        _write(self.path, self._authority.issue(names, now))
        return True

    def _holds(self, names: HomeNames, now: datetime) -> bool:
        try:
            certificate = _read(self.path).certificate
            certificate.verify_directly_issued_by(self._authority.certificate)
        except (OSError, Unreadable, ValueError, TypeError, InvalidSignature):
            return False
        if now > certificate.not_valid_after_utc - timedelta(days=RENEWED_BEFORE_DAYS):
            return False
        held = certificate.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
        return all(_general(one) in held for one in names.all if self._authority.may_certify(one))


def _new_authority(now: datetime, names: tuple[str, ...]) -> _Pair:
    key = ec.generate_private_key(ec.SECP256R1())
    # Phones list authorities by name: two houses must not be taken for each other.
    name = _named(f"Sandboa house {secrets.token_hex(2)}")
    permitted = [
        *(x509.DNSName(one) for one in dict.fromkeys((*_HOME_DOMAINS, *names))),
        *(x509.IPAddress(ipaddress.ip_network(one)) for one in _HOME_NETWORKS),
    ]
    certificate = (
        _begun(key, name, now, now + timedelta(days=AUTHORITY_DAYS))
        .issuer_name(name)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(_usage(signs_data=False), critical=True)
        .add_extension(
            x509.NameConstraints(permitted_subtrees=permitted, excluded_subtrees=None),
            critical=True,
        )
        .sign(key, hashes.SHA256())
    )
    return _Pair(key, certificate)


def _begun(
    key: ec.EllipticCurvePrivateKey, name: x509.Name, now: datetime, ends: datetime
) -> x509.CertificateBuilder:
    return (
        x509.CertificateBuilder()
        .subject_name(name)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=_CLOCK_DAYS))
        .not_valid_after(ends)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
    )


def _usage(*, signs_data: bool) -> x509.KeyUsage:
    return x509.KeyUsage(
        digital_signature=signs_data,
        key_cert_sign=not signs_data,
        crl_sign=not signs_data,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        encipher_only=False,
        decipher_only=False,
    )


def _named(name: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name)])


def _general(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _read(path: Path) -> _Pair:
    text = path.read_bytes()
    try:
        key = serialization.load_pem_private_key(text, password=None)
        certificate = x509.load_pem_x509_certificate(text)
    except ValueError as error:
        raise Unreadable(_damaged(path)) from error
    if not isinstance(key, ec.EllipticCurvePrivateKey) or key.public_key() != (
        certificate.public_key()
    ):
        raise Unreadable(_damaged(path))
    return _Pair(key, certificate)


def _damaged(path: Path) -> str:
    return (
        f"{path} is damaged. Put it back from a copy of the folder; or move it away, and a new "
        "one is made, which every phone has to trust once more"
    )


def _write(path: Path, pair: _Pair) -> None:
    """Key and certificate in one file, whole or not at all, for its owner alone."""
    path.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    text = pair.key.private_bytes(
        serialization.Encoding.PEM,
        serialization.PrivateFormat.PKCS8,
        serialization.NoEncryption(),
    ) + pair.certificate.public_bytes(serialization.Encoding.PEM)
    # Made readable for its owner alone from the first byte on.
    handle, temporary = tempfile.mkstemp(dir=path.parent, prefix=f".{path.name}-")
    try:
        with os.fdopen(handle, "wb") as out:
            out.write(text)
            out.flush()
            os.fsync(out.fileno())
        Path(temporary).replace(path)
    except OSError:
        Path(temporary).unlink(missing_ok=True)
        raise
