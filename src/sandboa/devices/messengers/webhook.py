"""A webhook: the message as JSON, posted to an address of the keeper's choice."""

from collections.abc import Mapping
from typing import Any, Final
from urllib.parse import urlsplit

import httpx2

from sandboa.core.errors import NotPlausible
from sandboa.journal.messages import NotSent

_TIMEOUT_S: Final = 15.0


class Webhook:
    """Target: `url`, and `secret`, sent as a bearer token when there is one.

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
        if not known or len(url) > 2000:
            raise NotPlausible("url", f'"{url[:60]}" is not a web address: https://...')
        return {"url": url, "secret": str(target.get("secret") or "")}

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        secret = target.get("secret")
        headers = {"Authorization": f"Bearer {secret}"} if secret else {}
        try:
            answer = httpx2.post(
                target["url"],
                json={"title": about, "message": text},
                headers=headers,
                timeout=_TIMEOUT_S,
            )
        except httpx2.HTTPError as error:
            raise NotSent(f"{urlsplit(target['url']).hostname}: {error}"[:300]) from error
        if answer.is_error:
            raise NotSent(f"{urlsplit(target['url']).hostname} answered {answer.status_code}")
        return f"taken with {answer.status_code}"
