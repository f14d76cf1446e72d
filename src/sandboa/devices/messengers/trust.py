"""Whom a messenger believes: the authorities of this machine, and one of the keeper's own."""

import ssl
from collections.abc import Mapping
from typing import Any, Final

from sandboa.core.errors import NotPlausible

#: Characters of a certificate in PEM, a chain of several among them (assumption).
LARGEST_PEM: Final = 40_000


def clean_authority(target: Mapping[str, Any]) -> str:
    """The authority's certificate as it is kept, "" for none; NotPlausible for what is none."""
    pem = str(target.get("authority") or "").strip()
    if not pem:
        return ""
    try:
        if len(pem) > LARGEST_PEM:
            raise ValueError("too long")
        ssl.create_default_context().load_verify_locations(cadata=pem)
    except (ValueError, ssl.SSLError) as error:
        raise NotPlausible(
            "authority",
            "that is no certificate in PEM: it begins with -----BEGIN CERTIFICATE-----",
        ) from error
    return pem + "\n"


def trusting(target: Mapping[str, Any]) -> ssl.SSLContext:
    """Checks certificates and names, by this machine's authorities and the one named."""
    context = ssl.create_default_context()
    if target.get("authority"):
        context.load_verify_locations(cadata=str(target["authority"]))
    return context
