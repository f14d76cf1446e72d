"""Hears everything a broker passes on, so that a keeper can see what speaks. It stores nothing."""

from collections.abc import Callable
from typing import Any, Final

import paho.mqtt.client as mqtt

from sandboa.devices.mqtt.address import Broker
from sandboa.services.probes.heard_values import OWN

#: Everything but the broker's own topics.
_ALL: Final = "#"
#: Bytes of a message that are heard: more than any sensor says.
_HEARD_BYTES: Final = 16_384

#: Called with topic, payload, and whether the broker had kept the message.
Hearing = Callable[[str, bytes, bool], None]


class MqttListener:
    """A second connection, of which the broker remembers nothing: what is missed is missed."""

    def __init__(self, broker: Broker, heard: Hearing) -> None:
        self._heard = heard
        self._client = broker.client("", clean_session=True)
        self._client.on_connect = self._on_connect
        self._client.on_message = self._on_message
        broker.begin(self._client)

    def close(self) -> None:
        """Leave the broker."""
        self._client.disconnect()
        self._client.loop_stop()

    def _on_connect(self, client: mqtt.Client, _: Any, __: Any, reason: Any, ___: Any) -> None:
        if not reason.is_failure:
            client.subscribe(_ALL, qos=0)

    def _on_message(self, _: mqtt.Client, __: Any, message: mqtt.MQTTMessage) -> None:
        if not message.topic.startswith(OWN):
            self._heard(message.topic, bytes(message.payload[:_HEARD_BYTES]), message.retain)
