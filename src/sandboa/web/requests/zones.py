"""Time zones by name."""

from typing import Annotated
from zoneinfo import available_timezones

from fastapi import Query

from sandboa.core.errors import NotPlausible

ZoneAsked = Annotated[str, Query(max_length=60, description="IANA name of the keeper's zone")]


def known_zone(name: str) -> str:
    """The name when it is a zone of the IANA database; NotPlausible otherwise."""
    if name not in available_timezones():
        raise NotPlausible("zone", f'"{name[:40]}" is not a time zone: write it like Europe/Berlin')
    return name
