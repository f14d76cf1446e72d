"""Subscribes to a broker and stores what devices publish; acknowledged when it is stored.

Devices publish to `sandboa/NAME/readings` with QoS 1, NAME as in Settings, or to
`sandboa/NAME/readings/PROBE`; the payload is anything POST /api/readings takes. What
cannot be taken is answered on `sandboa/NAME/problems`. Sensors that know nothing of
Sandboa publish where they do: their topics are followed once a keeper has named their
values. Who may publish where is the broker's to decide.
"""

import json
import logging
from contextlib import AbstractContextManager
from threading import Event
from typing import Any, Final, Protocol

import paho.mqtt.client as mqtt
from pydantic import ValidationError

from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Words
from sandboa.devices.mqtt.address import Broker
from sandboa.formats.delivery import (
    LARGEST_DELIVERY_BYTES,
    Delivery,
    is_delivery,
    refusal_words,
)
from sandboa.formats.sensor_payloads import understood
from sandboa.records.database import Unavailable
from sandboa.services.people.tokens import NotAllowed
from sandboa.services.probes.devices import Device, device_called
from sandboa.services.probes.heard_values import OWN
from sandboa.services.readings.intake import TakenIn, take_in, take_in_as_said

#: The topic itself, and all below it.
TOPIC: Final = f"{OWN}+/readings/#"
#: s after which a delivery that could not be stored is tried again.
_RETRY_S: Final = 1.0

_log = logging.getLogger(__name__)


class TheHouse(Protocol):
    """The house, as far as messages go; called from threads of their own."""

    def now_s(self) -> float:
        """The house's clock, s."""

    def using(self) -> AbstractContextManager[None]:
        """Held while the house is used: it may wait while somebody has it alone."""

    def taken(self, device: Device, taken: TakenIn) -> None:
        """A device's delivery was stored."""

    def refused(self, device: Device, reason: Words) -> None:
        """A device's delivery was refused."""

    def named_topics(self) -> set[str]:
        """Topics whose values a keeper has named."""

    def take_named(self, topic: str, payload: bytes, kept: bool) -> None:
        """Store a message of such a topic; a refusal is the house's to tell.

        `kept`: the broker had it from before. Raises Unavailable where it cannot be stored now.
        """


class MqttIntake:
    """A connection to a broker, kept up until it is closed; its session outlives a restart."""

    def __init__(self, broker: Broker, house: TheHouse) -> None:
        self._house = house
        self._problem: str | None = None
        self._closing, self.subscribed = Event(), Event()
        #: As it is told: without the password.
        self._address = broker.address
        self._followed: set[str] = set()
        self._client = broker.client("sandboa-house", clean_session=False, manual_ack=True)
        self._client.on_connect = self._on_connect
        self._client.on_connect_fail = self._on_connect_fail
        self._client.on_disconnect = self._on_disconnect
        self._client.on_subscribe = lambda *_: self.subscribed.set()
        self._client.on_message = self._on_message
        broker.begin(self._client)

    def close(self) -> None:
        """Leave the broker; what comes meanwhile waits there."""
        self._closing.set()
        self._client.disconnect()
        self._client.loop_stop()

    def _on_connect(self, client: mqtt.Client, _: Any, __: Any, reason: Any, ___: Any) -> None:
        if reason.is_failure:
            _log.warning("the MQTT broker refused: %s", reason)
            self._problem = f"The MQTT broker {self._address} lets nobody in: {reason}."
            return
        self._problem = None
        client.subscribe(TOPIC, qos=1)
        self._followed = set()
        with self._house.using():
            self.follow_named()

    def follow_named(self) -> None:
        """Follow the topics whose values are named now, and no others; asked while the house is
        used."""
        wanted = self._house.named_topics()
        for topic in sorted(wanted - self._followed):
            self._client.subscribe(topic, qos=1)
        for topic in sorted(self._followed - wanted):
            self._client.unsubscribe(topic)
        self._followed = wanted

    def _on_connect_fail(self, *_: Any) -> None:
        self._problem = f"The MQTT broker {self._address} does not answer."

    def _on_disconnect(self, _: Any, __: Any, ___: Any, reason: Any, ____: Any) -> None:
        # After a refusal it hangs up too: why it refused says more.
        if not self._closing.is_set() and self._problem is None:
            self._problem = f"The connection to the MQTT broker {self._address} was lost: {reason}."

    @property
    def problem(self) -> str | None:
        """Why nothing can come from the broker, in words; None where all is well."""
        return self._problem

    def _on_message(self, client: mqtt.Client, _: Any, message: mqtt.MQTTMessage) -> None:
        name, _, sensor = message.topic.removeprefix(OWN).partition("/readings")
        ours = mqtt.topic_matches_sub(TOPIC, message.topic)
        while not self._closing.is_set():
            try:
                with self._house.using():
                    if ours:
                        self._take(name, sensor.strip("/"), message)
                    else:
                        payload = bytes(message.payload)
                        self._house.take_named(message.topic, payload, message.retain)
            except Unavailable:
                # Not stored, so not acknowledged: the broker keeps it while we try again.
                self._closing.wait(_RETRY_S)
                continue
            except (NotPlausible, NotAllowed, ValidationError) as error:
                # Sending it again would not help: the device is told why.
                problem = json.dumps({"detail": str(refusal_words(error))})
                client.publish(f"{OWN}{name}/problems", problem, qos=0)
            client.ack(message.mid, message.qos)
            return

    def _take(self, name: str, sensor: str, message: mqtt.MQTTMessage) -> None:
        device = device_called(name)
        try:
            taken = self._store(device, sensor, message)
        except (NotPlausible, ValidationError) as error:
            self._house.refused(device, refusal_words(error))
            raise
        self._house.taken(device, taken)

    def _store(self, device: Device, sensor: str, message: mqtt.MQTTMessage) -> TakenIn:
        payload, now_s = bytes(message.payload), self._house.now_s()
        if len(payload) > LARGEST_DELIVERY_BYTES:
            raise NotPlausible("readings", "too large: send smaller batches")
        if is_delivery(payload):
            delivery = Delivery.model_validate_json(payload, strict=True)
            return take_in(device, delivery.rows(), now_s, delivery.sent_s)
        # What a broker kept was sent nobody knows when.
        sent = understood(payload, None if message.retain else now_s)
        if sensor:
            sent = [(said or sensor, *rest) for said, *rest in sent]  # type: ignore[misc]
        return take_in_as_said(device, sent, now_s)
