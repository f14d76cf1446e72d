"""What the house does with messages of a broker; called from the connection's own threads."""

from contextlib import AbstractContextManager
from dataclasses import dataclass

from pydantic import ValidationError

from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Words
from sandboa.formats.delivery import refusal_words
from sandboa.formats.sensor_payloads import values_in
from sandboa.services.probes import heard_values
from sandboa.services.probes.devices import Device
from sandboa.services.probes.heard_values import Source
from sandboa.services.readings.intake import TakenIn
from sandboa.web.background.named_messages import take_in_message
from sandboa.web.house import House


@dataclass(frozen=True)
class MqttMessages:
    """A `devices.mqtt.subscriber.TheHouse` over the house of the application."""

    house: House

    def now_s(self) -> float:
        return self.house.clock.now_s()

    def using(self) -> AbstractContextManager[None]:
        return self.house.access.use_when_open()

    def taken(self, device: Device, _: TakenIn) -> None:
        self.house.senders.take(Source(device=device.entity_id))
        self.house.live.readings_came_elsewhere()

    def refused(self, device: Device, reason: Words) -> None:
        self.house.senders.refuse(Source(device=device.entity_id), reason, self.now_s())

    def named_topics(self) -> set[str]:
        return heard_values.named_topics()

    def take_named(self, topic: str, payload: bytes, kept: bool) -> None:
        source, now_s = Source(topic=topic), self.now_s()
        try:
            # What the broker kept was sent nobody knows when.
            taken = take_in_message(self.house, source, values_in(payload), None if kept else now_s)
        except (NotPlausible, ValidationError) as error:
            self.house.senders.refuse(source, refusal_words(error), now_s)
            return
        if taken is None:
            return
        self.house.senders.take(source)
        if taken.new:
            self.house.live.readings_came_elsewhere()

    def heard(self, topic: str, payload: bytes, kept: bool) -> None:
        """A message of any topic, for the page that shows what speaks."""
        self.house.heard.topic(topic, payload, self.now_s(), kept)
