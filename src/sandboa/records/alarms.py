"""Alarms as they were raised and ended, their acknowledgement, messengers and what they sent."""

from peewee import AutoField, IntegerField, TextField

from sandboa.core.messages import Words
from sandboa.records.facts import Fact, Sealed
from sandboa.records.said import said


class Alarm(Sealed):
    """Something wrong, noticed by the machine; open while `ended_s` is null.

    `cabinet` is null where it is about the house itself. `any_hour` ones are told in quiet hours
    too.
    """

    id = AutoField()
    kind = TextField()
    severity = TextField()
    cabinet_id = IntegerField(null=True)
    probe_id = IntegerField(null=True)
    text = TextField()
    message = TextField(null=True)
    began_s = IntegerField()
    raised_s = IntegerField()
    ended_s = IntegerField(null=True)
    any_hour = IntegerField(default=0)

    @property
    def said(self) -> Words:
        """What is wrong, for whoever reads it."""
        return said(self.text, self.message)


class Acknowledgement(Fact):
    """The keeper has seen an alarm: it repeats no more, and stays in the log."""

    alarm_id = IntegerField()
    at_s = IntegerField()


class Messenger(Fact):
    """A way out of the application; `target` is JSON, what it holds depends on `kind`.

    Its reader is in `zone` and reads `temperature_unit`. Quiet hours are minutes
    after midnight, both null when there are none.
    It tells of what is at least as grave as `gravity`, and gives a sign of life at
    `life_at_min` of the day, null for none.
    """

    kind = TextField()
    name = TextField()
    zone = TextField()
    temperature_unit = TextField(default="C")
    quiet_from_min = IntegerField(null=True)
    quiet_until_min = IntegerField(null=True)
    target = TextField()
    gravity = TextField(default="notice")
    life_at_min = IntegerField(null=True)


class SentMessage(Sealed):
    """A message sent, or tried; `kind` is alarm, over, life or trial."""

    class Meta:
        table_name = "message"

    id = AutoField()
    messenger_id = IntegerField()
    kind = TextField(default="alarm")
    alarm_id = IntegerField(null=True)
    about = TextField()
    text = TextField()
    at_s = IntegerField()
    sent = IntegerField()
    outcome = TextField()


def alarm_numbered(alarm_id: int) -> Alarm | None:
    """The alarm with that id, None for no such one."""
    found: Alarm | None = Alarm.get_or_none(Alarm.id == alarm_id)
    return found


def end_alarm(alarm: Alarm, now_s: float) -> None:
    """Keep that an alarm is over."""
    alarm.ended_s = int(now_s)
    alarm.save()


def open_alarms() -> list[Alarm]:
    """What is wrong now, oldest first."""
    return list(Alarm.select().where(Alarm.ended_s.is_null()).order_by(Alarm.began_s, Alarm.id))


def alarms_between(start_s: float, end_s: float, limit: int = 500) -> list[Alarm]:
    """Alarms that touch start..end, newest first."""
    touching = (Alarm.began_s <= end_s) & (Alarm.ended_s.is_null() | (Alarm.ended_s >= start_s))
    return list(Alarm.select().where(touching).order_by(Alarm.began_s.desc()).limit(limit))


def ended_since(start_s: float) -> list[Alarm]:
    """Alarms that ended at or after `start_s`, oldest end first."""
    return list(Alarm.select().where(Alarm.ended_s >= start_s).order_by(Alarm.ended_s, Alarm.id))


def names_of_messengers() -> dict[int, str]:
    """What every messenger is or was last called, removed ones too."""
    return {row.entity_id: row.name for row in Messenger.ever()}


def messages_lately(limit: int) -> list[SentMessage]:
    """What was sent or tried last by any messenger, newest first."""
    return list(SentMessage.select().order_by(SentMessage.id.desc()).limit(limit))


def latest_messages(messenger: int, limit: int) -> list[SentMessage]:
    """What a messenger sent or tried last, newest first."""
    own = SentMessage.select().where(SentMessage.messenger_id == messenger)
    return list(own.order_by(SentMessage.id.desc()).limit(limit))


def messages_of_alarms(alarms: list[int], messenger: int) -> dict[int, list[SentMessage]]:
    """What a messenger sent or tried of those alarms, by alarm."""
    if not alarms:
        return {}
    told: dict[int, list[SentMessage]] = {}
    about = (SentMessage.alarm_id << alarms) & (SentMessage.messenger_id == messenger)
    rows = SentMessage.select().where(about)
    for row in rows:
        told.setdefault(row.alarm_id or 0, []).append(row)
    return told
