"""Messages out of the house: which alarm is told by which messenger, when, and how often."""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, tzinfo
from typing import Any, Final, Protocol
from zoneinfo import ZoneInfo

from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_name
from sandboa.journal.acts import act
from sandboa.journal.errors import Conflict, NotFound
from sandboa.journal.watch import Severity, acknowledged_at
from sandboa.records.alarms import Alarm, Message, Messenger, open_alarms
from sandboa.records.facts import Act

#: s after which an emergency that nobody acknowledged is told again (assumption).
REPEAT_S: Final = 900.0
#: s after which a message that could not be sent is tried again.
RETRY_S: Final = 120.0
_MINUTES_PER_DAY: Final = 1440


class NotSent(Exception):
    """The message did not get out; the text says why."""


class Carrier(Protocol):
    """A way out: e-mail, a webhook, or the shelf that only shows what would be sent."""

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        """The target as it will be kept; NotPlausible for what cannot be one."""
        ...

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        """Send; returns what to note of it. NotSent when it did not get out."""
        ...


@dataclass(frozen=True, slots=True)
class MessengerSaid:
    """What a keeper says of a messenger; quiet hours as minutes after midnight in `zone`."""

    kind: str
    name: str
    zone: str
    target: Mapping[str, Any]
    quiet_from_min: int | None = None
    quiet_until_min: int | None = None


def add_messenger(said: MessengerSaid, carriers: Mapping[str, Carrier], now_s: float) -> Act:
    """Record a messenger. NotPlausible at its field, Conflict when the name is taken."""
    name = _free_name(said.name)
    values = _checked(said, carriers)
    with act("messenger", f"Alarms go out by {said.kind}: {name}", now_s) as adding:
        Messenger.record(adding, name=name, **values)
    return adding


def correct_messenger(
    entity: int, said: MessengerSaid, carriers: Mapping[str, Carrier], now_s: float
) -> Act:
    """Correct a messenger; what is left empty stays as it is, secrets above all."""
    held = find_messenger(entity)
    kept = {k: v for k, v in json.loads(held.target).items() if said.target.get(k) in (None, "")}
    filled = MessengerSaid(
        said.kind, said.name, said.zone, {**said.target, **kept},
        said.quiet_from_min, said.quiet_until_min,
    )  # fmt: skip
    name = _free_name(said.name, besides=entity)
    with act("messenger", f"Messenger {name} corrected", now_s) as correcting:
        held.correct(correcting, name=name, **_checked(filled, carriers))
    return correcting


def remove_messenger(entity: int, now_s: float) -> Act:
    """Send nothing more by a messenger."""
    held = find_messenger(entity)
    with act("messenger", f"Messenger {held.name} removed", now_s) as removing:
        held.retire(removing)
    return removing


def find_messenger(entity: int) -> Messenger:
    """The messenger with that id; NotFound otherwise."""
    held = Messenger.now(entity)
    if held is None:
        raise NotFound("there is no such messenger")
    return held


def deliver(carriers: Mapping[str, Carrier], now_s: float) -> int:
    """Send what is due of the open alarms; returns how many messages got out.

    An alarm is told once by each messenger, outside its quiet hours. An
    emergency is told at once, and again every 15 minutes until it is
    acknowledged. What could not be sent is tried again after 2 minutes.
    """
    alarms = open_alarms()
    messengers = Messenger.current()
    if not alarms or not messengers:
        return 0
    seen = acknowledged_at(alarms)
    sent = 0
    for messenger in messengers:
        for alarm in alarms:
            if alarm.id not in seen and _due(messenger, alarm, now_s):
                sent += try_to_send(
                    carriers,
                    messenger,
                    *words(alarm, ZoneInfo(messenger.zone)),
                    now_s=now_s,
                    alarm=alarm.id,
                )
    return sent


def try_to_send(
    carriers: Mapping[str, Carrier],
    messenger: Messenger,
    about: str,
    text: str,
    *,
    now_s: float,
    alarm: int | None = None,
) -> bool:
    """Send one message and note what became of it."""
    try:
        outcome, sent = (
            carriers[messenger.kind].send(json.loads(messenger.target), about, text),
            True,
        )
    except NotSent as why:
        outcome, sent = str(why), False
    Message.create(
        messenger=messenger.entity, alarm=alarm, about=about, text=text, at_s=int(now_s),
        sent=int(sent), outcome=outcome[:500],
    )  # fmt: skip
    return sent


def sent_lately(limit: int = 50) -> list[Message]:
    """What was sent or tried last, newest first."""
    return list(Message.select().order_by(Message.id.desc()).limit(limit))


def words(alarm: Alarm, zone: tzinfo) -> tuple[str, str]:
    """Subject and text of an alarm's message, its time as it is in `zone`."""
    grave = {Severity.EMERGENCY: "Emergency", Severity.ALARM: "Alarm", Severity.NOTICE: "Notice"}
    since = datetime.fromtimestamp(alarm.began_s, zone).strftime("%-d %b, %H:%M")
    about = f"Sandboa {grave[Severity(alarm.severity)].lower()}: {alarm.text.split(':')[0]}"
    stop = "" if alarm.text.endswith("?") else "."
    return about, f"{grave[Severity(alarm.severity)]}. {alarm.text}{stop} Since {since}."


def quiet(messenger: Messenger, now_s: float) -> bool:
    """Whether it is the messenger's quiet time; a span over midnight is one span."""
    start, end = messenger.quiet_from_min, messenger.quiet_until_min
    if start is None or end is None or start == end:
        return False
    local = datetime.fromtimestamp(now_s, ZoneInfo(messenger.zone))
    minute = local.hour * 60 + local.minute
    return (minute - start) % _MINUTES_PER_DAY < (end - start) % _MINUTES_PER_DAY


def _due(messenger: Messenger, alarm: Alarm, now_s: float) -> bool:
    emergency = alarm.severity == Severity.EMERGENCY
    if not emergency and quiet(messenger, now_s):
        return False
    told = list(
        Message.select()
        .where((Message.alarm == alarm.id) & (Message.messenger == messenger.entity))
        .order_by(Message.id.desc())
        .limit(1)
    )
    if not told:
        return True
    waited_s = now_s - told[0].at_s
    if not told[0].sent:
        return waited_s >= RETRY_S
    return emergency and waited_s >= REPEAT_S


def _free_name(said: str, besides: int | None = None) -> str:
    name = clean_name("messenger", said)
    for other in Messenger.current():
        if other.entity != besides and other.name.casefold() == name.casefold():
            raise Conflict(f"there is a messenger {name} already")
    return name


def _checked(said: MessengerSaid, carriers: Mapping[str, Carrier]) -> dict[str, Any]:
    carrier = carriers.get(said.kind)
    if carrier is None:
        raise NotPlausible("kind", f'"{said.kind[:40]}" is no way out')
    try:
        ZoneInfo(said.zone)
    except (KeyError, ValueError, OSError) as error:
        raise NotPlausible("zone", f'"{said.zone[:60]}" is not a time zone') from error
    if (said.quiet_from_min is None) != (said.quiet_until_min is None):
        raise NotPlausible("quiet_until_min", "quiet hours have a beginning and an end")
    return {
        "kind": said.kind,
        "zone": said.zone,
        "quiet_from_min": said.quiet_from_min,
        "quiet_until_min": said.quiet_until_min,
        "target": json.dumps(carrier.check(said.target)),
    }
