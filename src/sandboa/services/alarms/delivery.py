"""What each messenger has to send, when, and what became of it.

Every messenger stands for itself: what one cannot send keeps no other from
sending, and is tried again after pauses that grow.
"""

import json
import logging
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime, tzinfo
from enum import StrEnum
from typing import Any, Final, Protocol
from zoneinfo import ZoneInfo

from tenacity import RetryCallState, Retrying, wait_exponential

from sandboa.core.messages import Message, Moment, Words
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records import keys
from sandboa.records.alarms import (
    Alarm,
    Messenger,
    SentMessage,
    ended_since,
    latest_messages,
    messages_lately,
    messages_of_alarms,
    open_alarms,
)
from sandboa.services.alarms.monitor import acknowledged_at
from sandboa.services.alarms.trouble import Severity

#: s after which an emergency that nobody acknowledged is told again (assumption).
REPEAT_S: Final = 900.0
#: s after which a message that could not be sent is tried again; doubled with each failure.
RETRY_S: Final = 120.0
#: s between two tries at the most: an emergency waits no longer than for its repetition.
LONGEST_RETRY_S: Final = {
    Severity.EMERGENCY: REPEAT_S,
    Severity.ALARM: 3_600.0,
    Severity.NOTICE: 3 * 3_600.0,
}
#: s after its end within which an alarm is said to be over: later it is no news (assumption).
_OVER_WITHIN_S: Final = SECONDS_PER_DAY
#: Failures that are counted: beyond them the pause is as long as it gets.
_COUNTED: Final = 12
_MINUTES_PER_DAY: Final = 1440
_GRAVITY: Final = (Severity.NOTICE, Severity.ALARM, Severity.EMERGENCY)
_GRAVE: Final = {
    Severity.EMERGENCY: "Emergency",
    Severity.ALARM: "Alarm",
    Severity.NOTICE: "Notice",
}

#: Of a target, what is kept sealed and apart; the address of a webhook often holds a key.
SECRETS: Final = ("password", "secret", "url")
#: In a recorded target: the names of the secrets it has.
SEALED: Final = "sealed"

_log = logging.getLogger(__name__)


class NotSent(Exception):
    """The message did not get out; the text says why."""


class Carrier(Protocol):
    """A way out: e-mail, a webhook, or the one that only records what would be sent."""

    def check(self, target: Mapping[str, Any]) -> dict[str, Any]:
        """The target as it will be kept; NotPlausible for what cannot be one."""
        ...

    def send(self, target: Mapping[str, Any], about: str, text: str) -> str:
        """Send; returns what to note of it. NotSent when it did not get out."""
        ...


class LetterKind(StrEnum):
    """What a message tells: something is wrong, it is over, all is running, or only a trial."""

    ALARM = "alarm"
    OVER = "over"
    LIFE = "life"
    TRIAL = "trial"


@dataclass(frozen=True, slots=True)
class Letter:
    """One message to be sent, and the alarm it is about."""

    kind: LetterKind
    about: str
    text: Words
    alarm: int | None = None


@dataclass(frozen=True, slots=True)
class MessengerState:
    """When a messenger last got something out, when it last failed and why, and when it is tried
    again (s); None for never."""

    sent_s: int | None
    failed_s: int | None
    failure: str | None
    next_try_s: float | None


class Speak(Protocol):
    """Makes what is said a sentence for a reader in that unit ("C" or "F") and zone (IANA)."""

    def __call__(self, said: Words, unit: str, zone: str) -> str: ...


@dataclass(frozen=True, slots=True)
class Post:
    """What messages go out with: a carrier for each kind of messenger, and who words them."""

    carriers: Mapping[str, Carrier]
    speak: Speak


def deliver(post: Post, now_s: float) -> int:
    """Send what is due by every messenger in turn; returns how many messages got out."""
    return sum(send_due(post, messenger, now_s) for messenger in Messenger.current())


def send_due(post: Post, messenger: Messenger, now_s: float) -> int:
    """Send what is due by one messenger; returns how many messages got out.

    The gravest comes first. When one cannot be sent the others wait with it.
    """
    sent = 0
    for letter in due(messenger, now_s):
        if not try_to_send(post, messenger, letter, now_s):
            break
        sent += 1
    return sent


def due(messenger: Messenger, now_s: float) -> list[Letter]:
    """What the messenger has to send at `now_s`, the gravest first.

    An alarm is told once, outside quiet hours, where it is as grave as the
    messenger is for; one that may come at any hour, and an emergency, at once.
    An emergency is told again every 15 minutes until it is acknowledged. Who
    was told of an alarm is told when it is over. After a failure everything
    waits, longer each time.
    """
    if _wait_s(messenger, now_s) > 0.0:
        return []
    asked = _open(messenger)
    told = messages_of_alarms([alarm.id for alarm in asked], messenger.entity_id)
    seen = acknowledged_at(asked)
    ready = [
        alarm
        for alarm in asked
        if alarm.id not in seen and _to_be_told(messenger, alarm, told.get(alarm.id, []), now_s)
    ]
    ready.sort(key=lambda alarm: -_GRAVITY.index(Severity(alarm.severity)))
    letters = [alarm_letter(alarm) for alarm in ready]
    return [*letters, *_over(messenger, now_s), *_life(messenger, now_s)]


def try_to_send(post: Post, messenger: Messenger, letter: Letter, now_s: float) -> bool:
    """Send one message and note what became of it, whatever goes wrong."""
    text = post.speak(letter.text, messenger.temperature_unit, messenger.zone)
    outcome, sent = _send(post, messenger, letter.about, text)
    SentMessage.create(
        messenger_id=messenger.entity_id, kind=letter.kind.value, alarm_id=letter.alarm,
        about=letter.about, text=text, at_s=int(now_s), sent=int(sent),
        outcome=" ".join(outcome.split())[:500],
    )  # fmt: skip
    return sent


#: When each messenger was last told of damage (s): a damaged house keeps no note of it.
_told_of_damage: dict[int, float] = {}
_DAMAGE_AGAIN_S: Final = SECONDS_PER_DAY


def tell_of_damage(post: Post, damage: tuple[str, ...], now_s: float) -> None:
    """Send word of a damaged house by every messenger, at any hour, once a day."""
    about = "Sandboa emergency: the house's file is damaged"
    text = (
        f"Emergency. The file with everything recorded is damaged ({damage[0]}). Nothing new is "
        "stored, no alarm can be raised. Restore the house from a backup, in Settings."
    )
    for messenger in Messenger.current():
        last_s = _told_of_damage.get(messenger.entity_id)
        if last_s is None or now_s - last_s >= _DAMAGE_AGAIN_S:
            _told_of_damage[messenger.entity_id] = now_s
            _send(post, messenger, about, text)


def target_of(messenger: Messenger) -> dict[str, Any]:
    """Where a messenger's messages go, secrets and all.

    Raises NotSent when a secret is not here: it was removed, or the house came
    here without its key.
    """
    target: dict[str, Any] = json.loads(messenger.target)
    needed = target.pop(SEALED, [])
    secrets = keys.secrets_of(messenger.entity_id)
    lacking = [name for name in needed if not secrets.get(name)]
    if lacking:
        what = {"url": "address"}.get(lacking[0], lacking[0])
        raise NotSent(f"its {what} is not here any more: give it again in Settings")
    return {**dict.fromkeys(SECRETS, ""), **target, **{n: secrets[n] for n in needed}}


def _send(post: Post, messenger: Messenger, about: str, text: str) -> tuple[str, bool]:
    """What became of a message, in words, and whether it got out."""
    try:
        carrier = post.carriers[messenger.kind]
        return carrier.send(target_of(messenger), about, text), True
    except NotSent as why:
        return str(why), False
    except Exception as why:
        # Whatever a server, a name or a password makes of a library must harm no other messenger.
        _log.exception("messenger %s failed", messenger.name)
        return f"{type(why).__name__}: {why}", False


def sent_lately(limit: int = 50) -> list[SentMessage]:
    """What was sent or tried last, newest first."""
    return messages_lately(limit)


def state_of(messenger: Messenger, now_s: float) -> MessengerState:
    """How a messenger fares."""
    rows = latest_messages(messenger.entity_id, _COUNTED)
    failed = next((row for row in rows if not row.sent), None)
    wait_s = _wait_s(messenger, now_s)
    return MessengerState(
        next((row.at_s for row in rows if row.sent), None),
        failed.at_s if failed else None,
        failed.outcome if failed else None,
        now_s + wait_s if wait_s > 0 else None,
    )


def trial_letter() -> Letter:
    """What is sent to see whether it arrives."""
    return Letter(
        LetterKind.TRIAL,
        "Sandboa: trial",
        "This is a trial: alarms of your cabinets will reach you like this.",
    )


def alarm_letter(alarm: Alarm) -> Letter:
    """What is said of an alarm while it goes on."""
    grave = _GRAVE[Severity(alarm.severity)]
    text = Message(
        "{grave}. {alarm}{stop} Since {since}.",
        grave=grave, alarm=alarm.said, stop=_stop(alarm), since=Moment(alarm.began_s),
    )  # fmt: skip
    return Letter(LetterKind.ALARM, f"Sandboa {grave.lower()}: {_subject(alarm)}", text, alarm.id)


def quiet(messenger: Messenger, now_s: float) -> bool:
    """Whether it is the messenger's quiet time; a span over midnight is one span."""
    start, end = messenger.quiet_from_min, messenger.quiet_until_min
    if start is None or end is None or start == end:
        return False
    minute = _minute_of_day(now_s, ZoneInfo(messenger.zone))
    return (minute - start) % _MINUTES_PER_DAY < (end - start) % _MINUTES_PER_DAY


def _open(messenger: Messenger) -> list[Alarm]:
    least = _GRAVITY.index(Severity(messenger.gravity))
    return [a for a in open_alarms() if _GRAVITY.index(Severity(a.severity)) >= least]


def _to_be_told(messenger: Messenger, alarm: Alarm, told: list[SentMessage], now_s: float) -> bool:
    emergency = alarm.severity == Severity.EMERGENCY
    if not emergency and not alarm.any_hour and quiet(messenger, now_s):
        return False
    sent = [message.at_s for message in told if message.sent]
    if not sent:
        return True
    return emergency and now_s - max(sent) >= REPEAT_S


def _wait_s(messenger: Messenger, now_s: float) -> float:
    """s until the messenger is tried again; 0 or less when it may be tried now.

    The pause doubles with each failure, up to what the gravest open alarm allows.
    """
    failures = _failures(messenger)
    if not failures:
        return 0.0
    last = latest_messages(messenger.entity_id, 1)[0]
    gravest = max((_GRAVITY.index(Severity(a.severity)) for a in _open(messenger)), default=0)
    return last.at_s + min(_pause_s(failures), LONGEST_RETRY_S[_GRAVITY[gravest]]) - now_s


def _failures(messenger: Messenger) -> int:
    """How often it failed in a row, up to now."""
    rows = latest_messages(messenger.entity_id, _COUNTED)
    return next((n for n, row in enumerate(rows) if row.sent), len(rows))


def _pause_s(failures: int) -> float:
    """s to wait after so many failures in a row: 2 min, 4, 8 ... as retrying is commonly done."""
    asked = RetryCallState(Retrying(), None, (), {})
    asked.attempt_number = failures
    longest_s = max(LONGEST_RETRY_S.values())
    return float(wait_exponential(multiplier=RETRY_S, max=longest_s)(asked))


def _over(messenger: Messenger, now_s: float) -> Iterator[Letter]:
    """Alarms this messenger told of that have ended since."""
    ended = ended_since(now_s - _OVER_WITHIN_S)
    told = messages_of_alarms([alarm.id for alarm in ended], messenger.entity_id)
    for alarm in ended:
        rows = told.get(alarm.id, [])
        known = any(m.sent and m.kind == LetterKind.ALARM for m in rows)
        if not known or any(m.sent and m.kind == LetterKind.OVER for m in rows):
            continue
        if quiet(messenger, now_s) and alarm.severity != Severity.EMERGENCY:
            continue
        text = Message(
            "It is over, from {since} to {until}: {alarm}{stop}",
            since=Moment(alarm.began_s), until=Moment(alarm.ended_s or now_s),
            alarm=alarm.said, stop=_stop(alarm),
        )  # fmt: skip
        yield Letter(LetterKind.OVER, f"Sandboa, over: {_subject(alarm)}", text, alarm.id)


def _life(messenger: Messenger, now_s: float) -> Iterator[Letter]:
    """Once a day, from its hour on: that Sandboa runs, and how many alarms are open."""
    if messenger.life_at_min is None:
        return
    zone = ZoneInfo(messenger.zone)
    since = (_minute_of_day(now_s, zone) - messenger.life_at_min) % _MINUTES_PER_DAY
    begins_s = now_s - 60.0 * (since + 1)
    rows = latest_messages(messenger.entity_id, 200)
    if any(m.kind == LetterKind.LIFE and m.sent and m.at_s >= begins_s for m in rows):
        return
    alarms = [a for a in open_alarms() if a.severity != Severity.NOTICE]
    said = "no alarm is open" if not alarms else f"{len(alarms)} open: {_subject(alarms[0])}"
    yield Letter(
        LetterKind.LIFE,
        "Sandboa is running",
        f"A sign of life: Sandboa watches the cabinets, {said}. "
        "When this message does not come one day, look whether it still runs.",
    )


def _subject(alarm: Alarm) -> str:
    return str(alarm.text.split(":")[0])


def _stop(alarm: Alarm) -> str:
    return "" if alarm.text.endswith("?") else "."


def _minute_of_day(now_s: float, zone: tzinfo) -> int:
    local = datetime.fromtimestamp(now_s, zone)
    return local.hour * 60 + local.minute
