"""What values in sensors' messages are: named once by the keeper, held until named otherwise."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.units import celsius_from_fahrenheit, celsius_from_kelvin
from sandboa.records.facts import Act
from sandboa.records.house import HeardValue as HeardValue
from sandboa.records.house import Probe
from sandboa.services.acts.recording import act
from sandboa.services.probes.devices import find_device

#: How Sandboa's own topics begin: what comes there is of the device that is named in it.
OWN: Final = "sandboa/"
_LONGEST_TOPIC: Final = 400
_LONGEST_PATH: Final = 200
#: Values of one message that are named at most (assumption: a gateway with a sensor in each box).
_MOST: Final = 40


class Quantity(StrEnum):
    """What of a message is stored."""

    TEMPERATURE = "temperature"
    HUMIDITY = "humidity"


class ValueUnit(StrEnum):
    """How a message writes it."""

    CELSIUS = "c"
    FAHRENHEIT = "f"
    KELVIN = "k"
    PERCENT = "percent"
    FRACTION = "fraction"

    @property
    def quantity(self) -> Quantity:
        humid = self in (ValueUnit.PERCENT, ValueUnit.FRACTION)
        return Quantity.HUMIDITY if humid else Quantity.TEMPERATURE

    def read(self, value: float) -> float:
        """The value in °C, or as a fraction 0-1."""
        if self is ValueUnit.FAHRENHEIT:
            return celsius_from_fahrenheit(value)
        if self is ValueUnit.KELVIN:
            return celsius_from_kelvin(value)
        return value / 100.0 if self is ValueUnit.PERCENT else value


@dataclass(frozen=True, slots=True)
class Source:
    """Where messages come from: a broker's topic, or a device that sends by HTTP."""

    topic: str | None = None
    device: int | None = None


@dataclass(frozen=True, slots=True)
class ValueCommand:
    """The value at `path` (empty: the whole message) is in `unit`, and of that probe."""

    path: str
    unit: ValueUnit
    probe: int


def name_values(source: Source, said: Sequence[ValueCommand], now_s: float) -> Act:
    """Say what the values of a source's messages are, in place of what was said before.

    Nothing said: its messages are stored no more. Raises NotFound for an
    unknown device or probe, NotPlausible for a topic with wildcards and where
    two values of a message would be the same quantity of one probe.
    """
    words = _checked(source)
    if len(said) > _MOST:
        raise NotPlausible("values", f"{_MOST} values of one message are enough")
    taken: set[tuple[Quantity, int]] = set()
    for value in said:
        _check_value(value, taken)
    with act(ActKind.HEARD, "", now_s) as naming:
        for row in values_of(source):
            row.retire(naming)
        for value in said:
            HeardValue.record(
                naming,
                topic=source.topic,
                device_id=source.device,
                path=value.path,
                quantity=value.unit.quantity.value,
                unit=value.unit.value,
                probe_id=value.probe,
            )
        naming.say(_summary(words, said))
    return naming


def values_of(source: Source) -> list[HeardValue]:
    """What is said of a source's messages now; nothing for one that nobody named."""
    if source.topic is not None:
        return list(HeardValue.current(topic=source.topic))
    return list(HeardValue.current(device_id=source.device))


def all_values() -> dict[Source, list[HeardValue]]:
    """What is said of every source's messages now."""
    found: dict[Source, list[HeardValue]] = {}
    for row in HeardValue.current():
        found.setdefault(Source(row.topic, row.device_id), []).append(row)
    return found


def named_topics() -> set[str]:
    """Topics whose messages are stored."""
    return {row.topic for row in HeardValue.current() if row.topic is not None}


def _checked(source: Source) -> str:
    """How a source is called in words; NotPlausible for none, or for a topic that is a pattern."""
    if source.device is not None:
        return find_device(source.device).name
    topic = source.topic or ""
    if not 1 <= len(topic) <= _LONGEST_TOPIC:
        raise NotPlausible("topic", f"a topic has 1 to {_LONGEST_TOPIC} letters")
    if topic.startswith(OWN):
        raise NotPlausible(
            "topic", f"topics under {OWN} are Sandboa's own: give the device's name to a probe"
        )
    if any(sign in topic for sign in "+#\0"):
        raise NotPlausible("topic", "one topic, not a pattern of topics: without + and #")
    return topic if len(topic) <= 60 else f"{topic[:57]}..."


def _check_value(value: ValueCommand, taken: set[tuple[Quantity, int]]) -> None:
    if len(value.path) > _LONGEST_PATH:
        raise NotPlausible("path", f"{_LONGEST_PATH} letters of a path are enough")
    probe = Probe.now(value.probe)
    if probe is None:
        raise NotPlausible("probe", "there is no such probe")
    if probe.by_hand:
        raise NotPlausible("probe", f"{probe.name} is read by hand: hang a probe for this sensor")
    what = (value.unit.quantity, value.probe)
    if what in taken:
        raise NotPlausible(
            "values", f"two values cannot both be the {what[0].value} of {probe.name}"
        )
    taken.add(what)


def _summary(words: str, said: Sequence[ValueCommand]) -> str:
    names = {probe.entity_id: probe.name for probe in Probe.current()}
    told = list(dict.fromkeys(names[value.probe] for value in said))
    if not told:
        return f"Messages of {words} are stored no more"
    return f"Messages of {words} are of {', '.join(told)}"
