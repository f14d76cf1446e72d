"""Watching the cabinets: what is wrong now, raised as alarms, ended when it is over."""

from collections.abc import Iterable
from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.messages import Message
from sandboa.records.alarms import Acknowledgement, alarm_numbered, end_alarm
from sandboa.records.alarms import Alarm as Alarm
from sandboa.records.alarms import alarms_between as alarms_between
from sandboa.records.alarms import open_alarms as open_alarms
from sandboa.records.database import transaction
from sandboa.records.facts import Act
from sandboa.records.said import kept
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act
from sandboa.services.alarms.trouble import Trouble
from sandboa.services.alarms.troubles import look
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class Changes:
    """Alarms raised and ended by one look."""

    raised: tuple[Alarm, ...]
    ended: tuple[Alarm, ...]

    def __bool__(self) -> bool:
        return bool(self.raised or self.ended)


def update_alarms(snapshot: Snapshot, now_s: float, further: Iterable[Trouble] = ()) -> Changes:
    """Look, raise an alarm for what is new, and end those that are over.

    `further` are troubles of the house itself, besides those in its cabinets.
    """
    troubles = {trouble.key: trouble for trouble in (*look(snapshot, now_s), *further)}
    held = {(a.kind, a.cabinet_id or 0, a.probe_id or 0): a for a in open_alarms()}
    gone = [alarm for key, alarm in held.items() if key not in troubles]
    new = [trouble for key, trouble in troubles.items() if key not in held]
    if not gone and not new:
        return Changes((), ())
    with transaction():
        for alarm in gone:
            end_alarm(alarm, now_s)
        raised = [_raise(trouble, now_s) for trouble in new]
    return Changes(tuple(raised), tuple(gone))


def acknowledge(alarm_id: int, now_s: float) -> Act:
    """Record that the keeper has seen an alarm. It stays in the log.

    Raises NotFound for an unknown alarm, Conflict when it was seen before.
    """
    alarm = alarm_numbered(alarm_id)
    if alarm is None:
        raise NotFound("there is no such alarm")
    if Acknowledgement.only(alarm_id=alarm_id) is not None:
        raise Conflict("that alarm is acknowledged already")
    with act(ActKind.ALARM_SEEN, Message("Seen: {alarm}", alarm=alarm.said), now_s) as seeing:
        Acknowledgement.record(seeing, alarm_id=alarm_id, at_s=int(now_s))
    return seeing


def acknowledged_at(alarms: Iterable[Alarm]) -> dict[int, int]:
    """When those alarms were acknowledged (s), by alarm; those that were not are absent."""
    ids = [alarm.id for alarm in alarms]
    rows = Acknowledgement.current(alarm_id=ids) if ids else []
    return {row.alarm_id: row.at_s for row in rows}


def _raise(trouble: Trouble, now_s: float) -> Alarm:
    raised: Alarm = Alarm.create(
        kind=trouble.kind,
        severity=trouble.severity.value,
        cabinet_id=trouble.cabinet,
        probe_id=trouble.probe,
        text=str(trouble.text),
        message=kept(trouble.text),
        began_s=int(trouble.began_s),
        any_hour=int(trouble.any_hour),
        raised_s=int(now_s),
    )
    return raised
