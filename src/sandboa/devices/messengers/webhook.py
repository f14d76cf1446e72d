"""A webhook: the message as JSON, posted to an address of the keeper's choice."""

from collections.abc import Mapping
from typing import Any, Final
from urllib.parse import urlsplit

import httpx2

from sandboa.core.errors import NotPlausible
from sandboa.devices.messengers.reason import reason
from sandboa.devices.messengers.trust import clean_authority, trusting
from sandboa.services.alarms.delivery import NotSent

_TIMEOUT_S: Final = 15.0
_REDIRECTS: Final = (301, 302, 303, 307, 308)


class Webhook:
    """Target: `url`, `secret`, sent as a bearer token when there is one, and `authority` (PEM).

    The body is {"title", "message"}: most notification services take that as it is.
    """

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        url = str(target.get("url") or "").strip()
        try:
            parts = urlsplit(url)
            known = parts.scheme in ("http", "https") and bool(parts.hostname)
            _ = parts.port
        except ValueError:
            known = False
        if not known or len(url) > 2000 or any(c.isspace() or ord(c) < 32 for c in url):
            raise NotPlausible("url", f'"{url[:60]}" is not a web address: https://...')
        secret = str(target.get("secret") or "")
        if not secret.isascii() or not secret.isprintable():
            raise NotPlausible("secret", "a secret has no accents, tabs or line ends")
        return {"url": url, "secret": secret, "authority": clean_authority(target)}

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        """Post it; a redirect is followed once, to the same scheme or to https, else it failed."""
        first = httpx2.URL(target["url"])
        body = {"title": about, "message": text}
        try:
            with httpx2.Client(timeout=_TIMEOUT_S, verify=trusting(target)) as client:
                answer = client.post(first, json=body, headers=_headers(target))
                if answer.status_code in _REDIRECTS:
                    there = _redirected(first, answer.headers.get("location", ""))
                    # The secret is the first host's alone.
                    headers = _headers(target) if there.host == first.host else {}
                    answer = client.post(there, json=body, headers=headers)
        except (httpx2.HTTPError, httpx2.InvalidURL) as error:
            raise NotSent(f"{first.host}: {reason(error)}") from error
        if answer.status_code in _REDIRECTS:
            raise NotSent(f"{first.host} sent it on twice: name the last address itself")
        if answer.is_error:
            raise NotSent(f"{first.host} answered {answer.status_code}")
        return f"taken with {answer.status_code}"


def _headers(target: Mapping[str, Any]) -> dict[str, str]:
    secret = target.get("secret")
    return {"Authorization": f"Bearer {secret}"} if secret else {}


def _redirected(first: httpx2.URL, location: str) -> httpx2.URL:
    there = first.join(location) if location else first
    if there.scheme not in (first.scheme, "https") or there.scheme not in ("http", "https"):
        raise NotSent(f"{first.host} sends it on to {location[:80]}, which is less safe")
    if there == first:
        raise NotSent(f"{first.host} sends it on to nowhere")
    return there
