"""E-mail by SMTP, with STARTTLS or TLS from the start, and a password when there is one."""

import base64
import smtplib
from collections.abc import Mapping
from email.errors import MessageError
from email.message import EmailMessage
from email.utils import format_datetime, localtime, make_msgid, parseaddr
from typing import Any, Final

from sandboa.core.errors import NotPlausible
from sandboa.devices.messengers.reason import reason
from sandboa.devices.messengers.trust import clean_authority, trusting
from sandboa.services.alarms.delivery import NotSent

_SECURITY: Final = ("starttls", "tls", "none")
_TIMEOUT_S: Final = 15.0


class Email:
    """Target: `server`, `port`, `security`, `user`, `password`, `sender`, `to`, `authority`.

    The server's certificate is checked, by this machine's authorities or by the
    one given as `authority` (PEM).
    """

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        server = str(target.get("server") or "").strip()
        if not server or any(c.isspace() or c in "/@" for c in server):
            raise NotPlausible("server", "which mail server? A name like mail.example.org")
        port = target.get("port") or 587
        if not isinstance(port, int) or not 1 <= port <= 65_535:
            raise NotPlausible("port", "a port is a number from 1 to 65535")
        security = target.get("security") or "starttls"
        if security not in _SECURITY:
            raise NotPlausible("security", f"is one of {', '.join(_SECURITY)}")
        return {
            "server": server,
            "port": port,
            "security": security,
            "user": str(target.get("user") or ""),
            "password": str(target.get("password") or ""),
            "sender": _address("sender", target.get("sender")),
            "to": _address("to", target.get("to")),
            "authority": clean_authority(target),
        }

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        message = EmailMessage()
        try:
            message["From"], message["To"], message["Subject"] = (
                target["sender"],
                target["to"],
                about,
            )
            message["Date"] = format_datetime(localtime())
            message["Message-ID"] = make_msgid(domain=target["sender"].rpartition("@")[2])
            message.set_content(text)
            with _connected(target) as server:
                server.send_message(message)
        except (OSError, smtplib.SMTPException, MessageError) as error:
            raise NotSent(f"{target['server']}: {reason(error)}") from error
        return f"sent to {target['to']}"


def _connected(target: Mapping[str, Any]) -> smtplib.SMTP:
    where = (target["server"], target["port"])
    server: smtplib.SMTP
    if target["security"] == "tls":
        server = smtplib.SMTP_SSL(*where, timeout=_TIMEOUT_S, context=trusting(target))
    else:
        server = smtplib.SMTP(*where, timeout=_TIMEOUT_S)
    try:
        if target["security"] == "starttls":
            server.starttls(context=trusting(target))
        if target["user"]:
            _log_in(server, target["user"], target["password"])
    except BaseException:
        server.close()
        raise
    return server


def _log_in(server: smtplib.SMTP, user: str, password: str) -> None:
    if (user + password).isascii():
        server.login(user, password)
        return
    # The standard library speaks ASCII only; AUTH PLAIN is UTF-8 (RFC 4616).
    server.ehlo_or_helo_if_needed()
    said = base64.b64encode(f"\0{user}\0{password}".encode()).decode()
    code, answer = server.docmd("AUTH", f"PLAIN {said}")
    if code != 235:
        raise smtplib.SMTPAuthenticationError(code, answer)


def _address(field: str, value: object) -> str:
    text = str(value or "").strip()
    _, address = parseaddr(text)
    if address != text or "@" not in address.strip("@"):
        raise NotPlausible(field, f'"{text[:60]}" is not an e-mail address')
    return address
