"""Time zones by name."""

from zoneinfo import available_timezones

from sandboa.core.errors import NotPlausible


def known_zone(name: str) -> str:
    """The name when it is a zone of the IANA database; NotPlausible otherwise."""
    if name not in available_timezones():
        raise NotPlausible("zone", f'"{name[:40]}" is not a time zone: write it like Europe/Berlin')
    return name
