"""The real ways out, against a real SMTP server and a real web server on this machine."""

import json
import re
import socket
import ssl
from collections.abc import Iterator
from datetime import UTC, datetime
from email.utils import parsedate_to_datetime
from http.server import BaseHTTPRequestHandler, HTTPServer
from threading import Thread
from typing import Any, ClassVar

import pytest
import trustme
from aiosmtpd.controller import Controller
from aiosmtpd.smtp import AuthResult

from sandboa.core.errors import NotPlausible
from sandboa.devices.messengers import CARRIERS
from sandboa.services.alarms.delivery import NotSent

MAIL = {
    "server": "127.0.0.1", "port": 2525, "security": "none",
    "sender": "house@example.org", "to": "keeper@example.org",
}  # fmt: skip


class Mailbox:
    """What an SMTP server was handed."""

    def __init__(self) -> None:
        self.letters: list[Any] = []

    async def handle_DATA(self, server: Any, session: Any, envelope: Any) -> str:  # noqa: N802
        self.letters.append(envelope)
        return "250 taken"


@pytest.fixture
def mailbox() -> Iterator[tuple[Mailbox, int]]:
    box = Mailbox()
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    controller = Controller(box, hostname="127.0.0.1", port=port)
    controller.start()
    try:
        yield box, port
    finally:
        controller.stop()


def test_an_alarm_goes_out_as_a_letter(mailbox: tuple[Mailbox, int]) -> None:
    box, port = mailbox
    target = CARRIERS["email"].check({**MAIL, "port": port})
    assert CARRIERS["email"].send(target, "Sandboa alarm: Lower", "above 33.5 °C") == (
        "sent to keeper@example.org"
    )
    (letter,) = box.letters
    assert letter.rcpt_tos == ["keeper@example.org"]
    assert b"Subject: Sandboa alarm: Lower" in letter.content
    # Letters without these end among the unwanted.
    assert re.search(rb"^Message-ID: <\S+@example\.org>", letter.content, re.MULTILINE)
    date = re.search(rb"^Date: (.+)", letter.content, re.MULTILINE)
    assert date is not None
    age = datetime.now(UTC) - parsedate_to_datetime(date[1].decode())
    assert abs(age.total_seconds()) < 60


def test_a_mail_server_that_is_not_there_is_named() -> None:
    target = CARRIERS["email"].check({**MAIL, "port": 9})
    with pytest.raises(NotSent, match=r"127\.0\.0\.1") as failed:
        CARRIERS["email"].send(target, "a", "b")
    # In words, not by the operating system's number.
    assert "Errno" not in str(failed.value)


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"server": ""}, "server"),
        ({"server": "smtp://x"}, "server"),
        ({"port": 70_000}, "port"),
        ({"security": "maybe"}, "security"),
        ({"to": "keeper"}, "to"),
        ({"sender": "a@b\nBcc: c@d"}, "sender"),
    ],
)
def test_addresses_that_cannot_be_are_refused(changes: dict[str, Any], field: str) -> None:
    with pytest.raises(NotPlausible) as refused:
        CARRIERS["email"].check({**MAIL, **changes})
    assert refused.value.field == field


class Hook(BaseHTTPRequestHandler):
    """Takes one message; answers what it is told to, or sends it on by its path."""

    taken: ClassVar[list[tuple[dict[str, Any], str | None]]] = []
    status: ClassVar[int] = 200
    sent_on: ClassVar[dict[str, str]] = {}

    def do_POST(self) -> None:
        body = self.rfile.read(int(self.headers["content-length"]))
        if self.path in Hook.sent_on:
            self.send_response(307)
            self.send_header("location", Hook.sent_on[self.path])
            self.end_headers()
            return
        Hook.taken.append((json.loads(body), self.headers.get("authorization")))
        self.send_response(Hook.status)
        self.end_headers()

    def log_message(self, *_: object) -> None:
        pass


@pytest.fixture
def hook() -> Iterator[str]:
    Hook.taken.clear()
    Hook.sent_on.clear()
    Hook.status = 200
    server = HTTPServer(("127.0.0.1", 0), Hook)
    Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_port}/alarm"
    server.shutdown()
    server.server_close()


def test_an_alarm_goes_out_as_a_webhook(hook: str) -> None:
    target = CARRIERS["webhook"].check({"url": hook, "secret": "s3"})
    assert CARRIERS["webhook"].send(target, "Sandboa", "too hot") == "taken with 200"
    assert Hook.taken == [({"title": "Sandboa", "message": "too hot"}, "Bearer s3")]
    Hook.status = 500
    with pytest.raises(NotSent, match="answered 500"):
        CARRIERS["webhook"].send(target, "Sandboa", "too hot")
    with pytest.raises(NotSent):
        CARRIERS["webhook"].send({"url": "http://127.0.0.1:9/"}, "Sandboa", "too hot")


@pytest.mark.parametrize("url", ["", "ftp://x/y", "http://", "http://x:port/", "//x"])
def test_a_webhook_needs_a_web_address(url: str) -> None:
    with pytest.raises(NotPlausible):
        CARRIERS["webhook"].check({"url": url})


def test_one_that_only_records_sends_nothing() -> None:
    recording = CARRIERS["record only"]
    assert recording.check({"url": "x"}) == {}
    assert recording.send({}, "a", "b") == "kept here, sent nowhere"


def test_a_redirect_is_followed_once_and_to_nothing_less_safe(hook: str) -> None:
    webhook = CARRIERS["webhook"]
    base = hook.rpartition("/")[0]
    Hook.sent_on.update({"/moved": "/alarm", "/twice": "/moved", "/round": "/round"})
    assert webhook.send({"url": f"{base}/moved", "secret": "s3"}, "a", "b") == "taken with 200"
    assert Hook.taken == [({"title": "a", "message": "b"}, "Bearer s3")]
    for path, why in (("/twice", "twice"), ("/round", "nowhere")):
        with pytest.raises(NotSent, match=why):
            webhook.send({"url": base + path}, "a", "b")
    Hook.sent_on["/away"] = "ftp://127.0.0.1/alarm"
    with pytest.raises(NotSent, match="less safe"):
        webhook.send({"url": f"{base}/away"}, "a", "b")
    # The secret is for the host it was given for.
    Hook.sent_on["/elsewhere"] = base.replace("127.0.0.1", "localhost") + "/alarm"
    webhook.send({"url": f"{base}/elsewhere", "secret": "s3"}, "a", "b")
    assert Hook.taken[-1][1] is None
    assert len(Hook.taken) == 2


@pytest.mark.parametrize("secret", ["Bär", "a\tb", "a\nb"])
def test_a_secret_no_header_can_hold_is_refused(secret: str) -> None:
    with pytest.raises(NotPlausible, match="no accents"):
        CARRIERS["webhook"].check({"url": "https://x.example/", "secret": secret})


@pytest.mark.parametrize("url", ["http://in_valid_.host:1/", "http://127.0.0.1:9/\u200b"])
def test_an_unlucky_address_fails_in_words(url: str) -> None:
    with pytest.raises(NotSent):
        CARRIERS["webhook"].send({"url": url}, "a", "b")


@pytest.fixture(scope="module")
def authority() -> trustme.CA:
    return trustme.CA()


def pem_of(authority: trustme.CA) -> str:
    return authority.cert_pem.bytes().decode()


class SecureMailbox(Mailbox):
    """A mail server with a certificate, that asks for a password."""

    def __init__(self) -> None:
        super().__init__()
        self.passwords: list[bytes] = []

    def authenticate(self, server, session, envelope, mechanism, data) -> AuthResult:
        self.passwords.append(data.password)
        return AuthResult(success=True)


@pytest.fixture
def secure(authority: trustme.CA) -> Iterator[tuple[SecureMailbox, int]]:
    box = SecureMailbox()
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    authority.issue_cert("localhost").configure_cert(context)
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    controller = Controller(
        box, hostname="127.0.0.1", port=port, tls_context=context,
        authenticator=box.authenticate, auth_require_tls=True, require_starttls=True,
    )  # fmt: skip
    controller.start()
    try:
        yield box, port
    finally:
        controller.stop()


def starttls(port: int, **more: str) -> dict[str, Any]:
    told = {**MAIL, "server": "localhost", "port": port, "security": "starttls"}
    return CARRIERS["email"].check({**told, "user": "house", "password": "geheim-ä", **more})


def test_a_letter_goes_only_to_whom_a_certificate_vouches_for(secure, authority) -> None:
    box, port = secure
    with pytest.raises(NotSent, match="certificate"):
        CARRIERS["email"].send(starttls(port), "a", "b")
    assert (box.letters, box.passwords) == ([], [])
    other_name = starttls(port, server="127.0.0.1", authority=pem_of(authority))
    with pytest.raises(NotSent, match=r"certificate|match"):
        CARRIERS["email"].send(other_name, "a", "b")
    assert box.passwords == []
    # One's own authority, named; and a password with an umlaut arrives as it is.
    CARRIERS["email"].send(starttls(port, authority=pem_of(authority)), "a", "b")
    assert len(box.letters) == 1
    assert box.passwords == ["geheim-ä".encode()]


def test_a_webhook_checks_certificates_too(hook: str, authority: trustme.CA) -> None:
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    authority.issue_cert("localhost").configure_cert(context)
    server = HTTPServer(("127.0.0.1", 0), Hook)
    server.socket = context.wrap_socket(server.socket, server_side=True)
    Thread(target=server.serve_forever, daemon=True).start()
    url = f"https://localhost:{server.server_port}/alarm"
    with pytest.raises(NotSent, match=r"(?i)certificate"):
        CARRIERS["webhook"].send({"url": url}, "a", "b")
    own = CARRIERS["webhook"].check({"url": url, "authority": pem_of(authority)})
    assert CARRIERS["webhook"].send(own, "a", "b") == "taken with 200"
    server.shutdown()
    server.server_close()


@pytest.mark.parametrize("pem", ["hello", "-----BEGIN CERTIFICATE-----\nAA==\n", "x" * 50_000])
def test_an_authority_that_is_no_certificate_is_refused(pem: str) -> None:
    for kind, target in (("email", MAIL), ("webhook", {"url": "https://x.example/"})):
        with pytest.raises(NotPlausible) as refused:
            CARRIERS[kind].check({**target, "authority": pem})
        assert refused.value.field == "authority"
