"""Publishes at a broker what simulated sensors say."""

from collections.abc import Iterable
from threading import Event
from typing import Final

from sandboa.core.errors import NotPlausible
from sandboa.devices.mqtt.address import Broker
from sandboa.devices.simulation.broker_speech import Published

#: s to wait for a broker, and for a message to arrive there.
_PATIENCE_S: Final = 15.0


class Publisher:
    """A connection to a broker; NotPlausible where none answers."""

    def __init__(self, broker: Broker) -> None:
        self._client = broker.client("")
        connected = Event()
        refused: list[str] = []

        def on_connect(*told: object) -> None:
            reason = told[3]
            if getattr(reason, "is_failure", False):
                refused.append(str(reason))
            connected.set()

        self._client.on_connect = on_connect
        broker.begin(self._client)
        if not connected.wait(_PATIENCE_S) or refused:
            self.close()
            why = refused[0] if refused else "nobody answers"
            raise NotPlausible("mqtt", f"the broker {broker.address}: {why}")

    def publish(self, messages: Iterable[Published]) -> None:
        """Publish, each message when the broker has acknowledged the one before."""
        for said in messages:
            sent = self._client.publish(said.topic, said.payload, qos=1, retain=said.retained)
            sent.wait_for_publish(_PATIENCE_S)

    def close(self) -> None:
        """Leave the broker."""
        self._client.disconnect()
        self._client.loop_stop()
