"""Notes in plain words, on anything in the house."""

from peewee import IntegerField, TextField

from sandboa.records.facts import Entity, Fact


class Note(Fact):
    """Words about something, written of `at_s`; its photos have it as their owner."""

    about_id = IntegerField()
    at_s = IntegerField()
    text = TextField()


def kind_of(entity: int) -> str | None:
    """What an id is of, by the name of its table; None for no such id."""
    found: Entity | None = Entity.get_or_none(Entity.id == entity)
    return found.kind if found is not None else None
