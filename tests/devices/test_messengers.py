"""The real ways out, against a real SMTP server and a real web server on this machine."""

import json
import socket
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, HTTPServer
from threading import Thread
from typing import Any, ClassVar

import pytest
from aiosmtpd.controller import Controller

from sandboa.core.errors import NotPlausible
from sandboa.devices.messengers import CARRIERS
from sandboa.journal.messages import NotSent

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


def test_a_mail_server_that_is_not_there_is_named() -> None:
    target = CARRIERS["email"].check({**MAIL, "port": 9})
    with pytest.raises(NotSent, match=r"127\.0\.0\.1"):
        CARRIERS["email"].send(target, "a", "b")


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
    """Takes one message; answers what it is told to."""

    taken: ClassVar[list[tuple[dict[str, Any], str | None]]] = []
    status: ClassVar[int] = 200

    def do_POST(self) -> None:
        body = self.rfile.read(int(self.headers["content-length"]))
        Hook.taken.append((json.loads(body), self.headers.get("authorization")))
        self.send_response(Hook.status)
        self.end_headers()

    def log_message(self, *_: object) -> None:
        pass


@pytest.fixture
def hook() -> Iterator[str]:
    Hook.taken.clear()
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


def test_the_shelf_sends_nothing() -> None:
    shelf = CARRIERS["shelf"]
    assert shelf.check({"url": "x"}) == {}
    assert shelf.send({}, "a", "b") == "kept here, sent nowhere"
