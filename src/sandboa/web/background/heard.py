"""What speaks around the house: the last message of each topic and device, held in memory."""

from collections import OrderedDict
from dataclasses import dataclass, field, replace
from threading import Lock
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.formats.sensor_payloads import Announced, SensorMessage, announced, values_in
from sandboa.services.probes.heard_values import Source

#: Topics and devices that are remembered, those that spoke last (assumption: a house full of
#: switches and lamps shares its broker with the snakes).
MOST: Final = 400
#: Bytes of a message beyond which nobody looks for a sensor in it.
LARGEST: Final = 8_192


@dataclass(frozen=True, slots=True)
class Spoken:
    """The last message of a source, when it came (s), and how many came since the start."""

    source: Source
    at_s: float
    count: int
    message: SensorMessage | None
    #: The broker had kept it: nobody knows when it was sent.
    kept: bool = False


@dataclass
class Heard:
    """Held while the application runs; safe to share between threads."""

    _spoken: OrderedDict[Source, Spoken] = field(default_factory=OrderedDict)
    _announced: OrderedDict[str, dict[str, Announced]] = field(default_factory=OrderedDict)
    _lock: Lock = field(default_factory=Lock)

    def topic(self, topic: str, payload: bytes, at_s: float, kept: bool) -> None:
        """A message came by MQTT; `kept`: the broker had it from before."""
        told = announced(topic, payload) if kept else None
        if told is not None:
            with self._lock:
                self._announced.setdefault(told.topic, {})[told.path] = told
                while len(self._announced) > MOST:
                    self._announced.popitem(last=False)
            return
        self._hear(Source(topic=topic), payload, "", at_s, kept)

    def device(self, device: int, payload: bytes, content_type: str, at_s: float) -> None:
        """A message came by HTTP."""
        self._hear(Source(device=device), payload, content_type, at_s, False)

    def spoken(self) -> list[Spoken]:
        """Every source, the one that spoke last first."""
        with self._lock:
            return list(reversed(self._spoken.values()))

    def announced(self, topic: str) -> dict[str, Announced]:
        """What sensors announced of a topic, by the path of the value."""
        with self._lock:
            return dict(self._announced.get(topic, {}))

    def announced_topics(self) -> list[str]:
        """Topics that sensors announced, in order of when."""
        with self._lock:
            return list(self._announced)

    def _hear(
        self, source: Source, payload: bytes, content_type: str, at_s: float, kept: bool
    ) -> None:
        message = None
        if 0 < len(payload) <= LARGEST:
            try:
                message = values_in(payload, content_type, source.topic or "")
            except NotPlausible:
                # It speaks, but not in numbers: a lamp, or a picture.
                message = None
        with self._lock:
            before = self._spoken.pop(source, None)
            spoken = Spoken(source, at_s, 1, message, kept)
            if before is not None:
                spoken = replace(spoken, count=before.count + 1)
            self._spoken[source] = spoken
            while len(self._spoken) > MOST:
                self._spoken.popitem(last=False)
