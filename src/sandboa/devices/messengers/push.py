"""A phone's or a browser's own notifications, through the push service of its maker.

What goes out is readable to that phone alone (RFC 8291); the service sees where
it goes and how large it is.
"""

import base64
import binascii
import ipaddress
from collections.abc import Mapping
from typing import Any, Final
from urllib.parse import urlsplit

import httpx2

from sandboa.core.errors import NotPlausible
from sandboa.devices.messengers.push_keys import push_keys
from sandboa.devices.messengers.reason import reason
from sandboa.services.alarms.delivery import NotSent

_TIMEOUT_S: Final = 15.0
#: s a service keeps a message for a phone that is off (assumption: a night and a day).
_KEPT_S: Final = 36 * 3_600
#: Bytes of a text: a message of 4,096 in all is taken everywhere.
_LONGEST: Final = 3_000
#: Whom a service may ask about what it gets; a house has no address of its own to give.
_SUBJECT: Final = "house@sandboa.invalid"
_KEY_BYTES, _SECRET_BYTES = 65, 16


class Push:
    """Target: `url`, where the phone's service takes messages, `phone_key` and `secret`, which its
    browser made for this house."""

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        url, key, secret = (str(target.get(of) or "") for of in ("url", "phone_key", "secret"))
        if not _is_safe(url):
            raise NotPlausible("url", "add the phone from its own browser: it knows the address")
        if len(_decoded(key)) != _KEY_BYTES or len(_decoded(secret)) != _SECRET_BYTES:
            raise NotPlausible("phone_key", "that is no key of a browser: add the phone again")
        return {"url": url, "phone_key": key, "secret": secret}

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        """Hand it to the service; NotSent where the phone has ended it, or nobody answers."""
        from webpush import WebPush
        from webpush.types import (
            WebPushKeys,
            WebPushSubscription,
        )

        keys = push_keys()
        to = WebPushSubscription(
            endpoint=target["url"],
            keys=WebPushKeys(auth=target["secret"], p256dh=target["phone_key"]),
        )
        short = text.encode()[:_LONGEST].decode(errors="ignore")
        sealed = WebPush(keys.private, keys.public, _SUBJECT, ttl=_KEPT_S).get(
            {"about": about, "text": short}, to
        )
        host = urlsplit(target["url"]).hostname
        headers = {**sealed.headers, "Urgency": "high", "Content-Type": "application/octet-stream"}
        try:
            with httpx2.Client(timeout=_TIMEOUT_S) as client:
                answer = client.post(target["url"], content=sealed.encrypted, headers=headers)
        except (httpx2.HTTPError, httpx2.InvalidURL) as error:
            raise NotSent(f"{host}: {reason(error)}") from error
        if answer.status_code in (404, 410):
            raise NotSent("the phone takes no more messages: remove it here and add it again there")
        if answer.status_code in (401, 403):
            raise NotSent(f"{host} does not know this house any more: add the phone again")
        if not answer.is_success:
            raise NotSent(f"{host} answered {answer.status_code}")
        return f"taken with {answer.status_code}"


def _is_safe(url: str) -> bool:
    """Whether it is an https address; http only on this machine, where a stand-in may answer."""
    try:
        parts = urlsplit(url)
        _ = parts.port
    except ValueError:
        return False
    if len(url) > 2000 or not url.isascii() or any(c.isspace() for c in url) or not parts.hostname:
        return False
    return parts.scheme == "https" or (parts.scheme == "http" and _is_here(parts.hostname))


def _is_here(host: str) -> bool:
    try:
        return ipaddress.ip_address(host).is_loopback
    except ValueError:
        return False


def _decoded(text: str) -> bytes:
    try:
        return base64.urlsafe_b64decode(text + "=" * (-len(text) % 4))
    except (binascii.Error, ValueError):
        return b""
