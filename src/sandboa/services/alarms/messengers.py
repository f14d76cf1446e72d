"""Messengers: the ways messages leave the house, recorded, corrected and removed.

What is secret of a messenger is no fact: it is sealed, has no earlier versions
and no undo, and what is removed is gone. A fact says only which secrets there are.
"""

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from zoneinfo import ZoneInfo

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_name
from sandboa.core.units import TemperatureUnit
from sandboa.records import keys
from sandboa.records.alarms import Messenger as Messenger
from sandboa.records.alarms import names_of_messengers as names_of_messengers
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act
from sandboa.services.alarms.delivery import SEALED, SECRETS, Carrier
from sandboa.services.alarms.trouble import Severity


@dataclass(frozen=True, slots=True)
class MessengerCommand:
    """What a keeper says of a messenger; quiet hours as minutes after midnight in `zone`.

    It tells of what is at least as grave as `gravity`; `life_at_min` is the
    minute of the day at which it gives a sign of life, None for none.
    """

    kind: str
    name: str
    zone: str
    target: Mapping[str, Any]
    quiet_from_min: int | None = None
    quiet_until_min: int | None = None
    gravity: Severity = Severity.NOTICE
    life_at_min: int | None = None
    temperature_unit: TemperatureUnit = TemperatureUnit.CELSIUS


def messengers_now() -> list[Messenger]:
    """Every messenger of the house, by name."""
    return sorted(Messenger.current(), key=lambda m: m.name.casefold())


def secrets_of(messenger: Messenger) -> dict[str, str | None]:
    """A messenger's secrets by name; None for one that this machine cannot read."""
    return keys.secrets_of(messenger.entity_id)


def add_messenger(said: MessengerCommand, carriers: Mapping[str, Carrier], now_s: float) -> Act:
    """Record a messenger. NotPlausible at its field, Conflict when the name is taken."""
    name = _free_name(said.name)
    values, secrets = _checked(said, carriers)
    with act(ActKind.MESSENGER, f"Alarms go out by {said.kind}: {name}", now_s) as adding:
        made = Messenger.record(adding, name=name, **values)
        keys.keep_secrets(made.entity_id, secrets)
    return adding


def correct_messenger(
    entity: int, said: MessengerCommand, carriers: Mapping[str, Carrier], now_s: float
) -> Act:
    """Correct a messenger; what is left empty stays as it is, secrets above all.

    A secret that was given anew is the one from then on, also when this is undone.
    """
    held = find_messenger(entity)
    before = {**json.loads(held.target), **keys.secrets_of(entity)}
    kept = {k: v for k, v in before.items() if said.target.get(k) in (None, "")}
    filled = MessengerCommand(
        said.kind, said.name, said.zone, {**said.target, **kept},
        said.quiet_from_min, said.quiet_until_min, said.gravity, said.life_at_min,
        said.temperature_unit,
    )  # fmt: skip
    name = _free_name(said.name, besides=entity)
    values, secrets = _checked(filled, carriers)
    with act(ActKind.MESSENGER, f"Messenger {name} corrected", now_s) as correcting:
        held.correct(correcting, name=name, **values)
        keys.keep_secrets(entity, secrets)
    return correcting


def remove_messenger(entity: int, now_s: float) -> Act:
    """Send nothing more by a messenger. Undone, it is back and asks for its secrets again."""
    held = find_messenger(entity)
    with act(ActKind.MESSENGER, f"Messenger {held.name} removed", now_s) as removing:
        held.retire(removing)
        keys.forget_secrets(entity)
    return removing


def find_messenger(entity: int) -> Messenger:
    """The messenger with that id; NotFound otherwise."""
    held = Messenger.now(entity)
    if held is None:
        raise NotFound("there is no such messenger")
    return held


def _free_name(said: str, besides: int | None = None) -> str:
    name = clean_name("messenger", said)
    for other in Messenger.current():
        if other.entity_id != besides and other.name.casefold() == name.casefold():
            raise Conflict(f"there is a messenger {name} already")
    return name


def _checked(
    said: MessengerCommand, carriers: Mapping[str, Carrier]
) -> tuple[dict[str, Any], dict[str, str]]:
    """What is recorded of a messenger, and its secrets beside that."""
    carrier = carriers.get(said.kind)
    if carrier is None:
        raise NotPlausible("kind", f'"{said.kind[:40]}" is no way out')
    try:
        ZoneInfo(said.zone)
    except (KeyError, ValueError, OSError) as error:
        raise NotPlausible("zone", f'"{said.zone[:60]}" is not a time zone') from error
    if (said.quiet_from_min is None) != (said.quiet_until_min is None):
        raise NotPlausible("quiet_until_min", "quiet hours have a beginning and an end")
    target = carrier.check(said.target)
    secrets = {name: target.pop(name) for name in SECRETS if target.get(name)}
    target = {name: value for name, value in target.items() if name not in SECRETS}
    values = {
        "kind": said.kind,
        "zone": said.zone,
        "temperature_unit": said.temperature_unit.value,
        "quiet_from_min": said.quiet_from_min,
        "quiet_until_min": said.quiet_until_min,
        "gravity": said.gravity.value,
        "life_at_min": said.life_at_min,
        "target": json.dumps({**target, SEALED: sorted(secrets)}),
    }
    return values, secrets
