"""Alarms as they were raised and ended, their acknowledgement, messengers and what they sent."""

from peewee import AutoField, IntegerField, TextField

from sandboa.records.facts import Fact, Record


class Alarm(Record):
    """Something wrong in a cabinet, noticed by the machine; open while `ended_s` is null."""

    id = AutoField()
    kind = TextField()
    severity = TextField()
    cabinet = IntegerField()
    probe = IntegerField(null=True)
    text = TextField()
    began_s = IntegerField()
    raised_s = IntegerField()
    ended_s = IntegerField(null=True)


class Acknowledgement(Fact):
    """The keeper has seen an alarm: it repeats no more, and stays in the log."""

    alarm = IntegerField()
    at_s = IntegerField()


class Messenger(Fact):
    """A way out of the application; `target` is JSON, what it holds depends on `kind`.

    Quiet hours are minutes after midnight in `zone`, both null when there are none.
    """

    kind = TextField()
    name = TextField()
    zone = TextField()
    quiet_from_min = IntegerField(null=True)
    quiet_until_min = IntegerField(null=True)
    target = TextField()


class Message(Record):
    """A message sent, or tried."""

    id = AutoField()
    messenger = IntegerField()
    alarm = IntegerField(null=True)
    about = TextField()
    text = TextField()
    at_s = IntegerField()
    sent = IntegerField()
    outcome = TextField()


def open_alarms() -> list[Alarm]:
    """What is wrong now, oldest first."""
    return list(Alarm.select().where(Alarm.ended_s.is_null()).order_by(Alarm.began_s, Alarm.id))


def alarms_between(start_s: float, end_s: float, limit: int = 500) -> list[Alarm]:
    """Alarms that touch start..end, newest first."""
    touching = (Alarm.began_s <= end_s) & (Alarm.ended_s.is_null() | (Alarm.ended_s >= start_s))
    return list(Alarm.select().where(touching).order_by(Alarm.began_s.desc()).limit(limit))
