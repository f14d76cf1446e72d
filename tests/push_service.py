"""A push service that stands in for that of a phone's maker, and the phone it sends to.

It takes what a house sends as RFC 8030 has it, checks who sends by RFC 8292 and
reads it with the phone's own key by RFC 8291, all written anew here.
"""

import base64
import json
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from http.server import BaseHTTPRequestHandler, HTTPServer
from threading import Thread
from typing import Any

import jwt
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.ciphers.aead import AESGCM
from cryptography.hazmat.primitives.hashes import SHA256
from cryptography.hazmat.primitives.kdf.hkdf import HKDF
from cryptography.hazmat.primitives.serialization import Encoding, PublicFormat

_POINT = (Encoding.X962, PublicFormat.UncompressedPoint)
_CURVE = ec.SECP256R1()


def told(raw: bytes) -> str:
    return base64.urlsafe_b64encode(raw).rstrip(b"=").decode()


def raw(told: str) -> bytes:
    return base64.urlsafe_b64decode(told + "=" * (-len(told) % 4))


@dataclass
class Phone:
    """A phone that subscribed; `status` is what its service answers."""

    private: ec.EllipticCurvePrivateKey = field(
        default_factory=lambda: ec.generate_private_key(_CURVE)
    )
    secret: bytes = b"sixteen bytes of"
    status: int = 201
    url: str = ""
    #: What came, read; the headers of each, and what it was sealed.
    messages: list[dict[str, Any]] = field(default_factory=list)
    headers: list[dict[str, str]] = field(default_factory=list)
    bodies: list[bytes] = field(default_factory=list)

    @property
    def public(self) -> bytes:
        return self.private.public_key().public_bytes(*_POINT)

    @property
    def target(self) -> dict[str, str]:
        """As its browser tells it to the house."""
        return {"url": self.url, "phone_key": told(self.public), "secret": told(self.secret)}

    def take(self, headers: dict[str, str], body: bytes) -> None:
        self.headers.append(headers)
        self.bodies.append(body)
        self.messages.append(json.loads(self.read(body)))

    def read(self, body: bytes) -> bytes:
        salt, length = body[:16], body[20]
        sender, sealed = body[21 : 21 + length], body[21 + length :]
        key = ec.EllipticCurvePublicKey.from_encoded_point(_CURVE, sender)
        shared = self.private.exchange(ec.ECDH(), key)
        both = b"WebPush: info\x00" + self.public + sender
        master = HKDF(SHA256(), 32, self.secret, both).derive(shared)
        opener = HKDF(SHA256(), 16, salt, b"Content-Encoding: aes128gcm\x00").derive(master)
        nonce = HKDF(SHA256(), 12, salt, b"Content-Encoding: nonce\x00").derive(master)
        return AESGCM(opener).decrypt(nonce, sealed, None).rstrip(b"\x00")[:-1]


def sender_of(headers: dict[str, str]) -> tuple[str, dict[str, Any]]:
    """The key that a message was sent with, as browsers take it, and what its token says.

    Raises what `jwt` does where the token is not signed with that key.
    """
    token, key = (part.split("=", 1)[1] for part in headers["authorization"][6:].split(", "))
    public = ec.EllipticCurvePublicKey.from_encoded_point(_CURVE, raw(key))
    options = {"verify_aud": False}
    return key, jwt.decode(token, public, algorithms=["ES256"], options=options)


@contextmanager
def push_service() -> Iterator[Phone]:
    """A phone whose service listens on this machine."""
    phone = Phone()

    class Service(BaseHTTPRequestHandler):
        def do_POST(self) -> None:
            body = self.rfile.read(int(self.headers["content-length"]))
            phone.take({name.lower(): value for name, value in self.headers.items()}, body)
            self.send_response(phone.status)
            self.end_headers()

        def log_message(self, *_: object) -> None:
            pass

    server = HTTPServer(("127.0.0.1", 0), Service)
    phone.url = f"http://127.0.0.1:{server.server_port}/send/f3b1"
    Thread(target=server.serve_forever, daemon=True).start()
    try:
        yield phone
    finally:
        server.shutdown()
        server.server_close()
