"""The security log: who came in or tried to, and what keys were made, changed or ended."""

from peewee import AutoField, IntegerField, TextField

from sandboa.records.facts import Sealed


class SecurityEvent(Sealed):
    """Something a keeper wants to know of afterwards.

    `address` and `device` are where it came from. `person` is whom it is about
    or who did it; null where nobody is known.
    """

    id = AutoField()
    at_s = IntegerField()
    kind = TextField()
    person_id = IntegerField(null=True)
    text = TextField()
    address = TextField()
    device = TextField()


def events_lately(limit: int, before: int | None = None) -> list[SecurityEvent]:
    """The newest events, or those before the event with that id."""
    rows = SecurityEvent.select().order_by(SecurityEvent.id.desc()).limit(limit)
    return list(rows if before is None else rows.where(SecurityEvent.id < before))


def forget_events_before(at_s: float) -> None:
    """Let go of what is older."""
    SecurityEvent.delete().where(SecurityEvent.at_s < int(at_s)).execute()
