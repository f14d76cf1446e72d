"""Subscribes to a broker and stores what devices publish; acknowledged when it is stored.

Devices publish to `sandboa/NAME/readings` with QoS 1, NAME as in Settings, or to
`sandboa/NAME/readings/PROBE`; the payload is anything POST /api/readings takes. What
cannot be taken is answered on `sandboa/NAME/problems`. Who may publish where is the
broker's to decide.
"""

import json
import logging
from collections.abc import Callable
from contextlib import AbstractContextManager, nullcontext
from threading import Event
from typing import Any, Final
from urllib.parse import unquote, urlsplit

import paho.mqtt.client as mqtt
from paho.mqtt.enums import CallbackAPIVersion
from pydantic import ValidationError

from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Words
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
from sandboa.services.readings.intake import TakenIn, take_in, take_in_as_said

#: The topic itself, and all below it.
TOPIC: Final = "sandboa/+/readings/#"
#: s after which a delivery that could not be stored is tried again.
_RETRY_S: Final = 1.0

_log = logging.getLogger(__name__)

#: Called with the device after a delivery was stored.
Taking = Callable[[Device, TakenIn], None]
#: Called with the device and the reason, when one was refused.
Refusing = Callable[[Device, Words], None]


class MqttIntake:
    """A connection to a broker, kept up until it is closed; its session outlives a restart."""

    def __init__(
        self,
        url: str,
        now_s: Callable[[], float],
        taken: Taking,
        using: Callable[[], AbstractContextManager[None]] = nullcontext,
        refused: Refusing = lambda *_: None,
    ) -> None:
        """`using` is held while the house is used: it may wait while somebody has it alone."""
        self._now_s, self._taken, self._using, self._refused = now_s, taken, using, refused
        self._problem: str | None = None
        self._closing, self.subscribed = Event(), Event()
        where = require_broker(url)
        port = where.port or (8883 if where.scheme == "mqtts" else 1883)
        #: As it is told: without the password.
        self._address = f"{where.hostname}:{port}"
        self._client = mqtt.Client(
            CallbackAPIVersion.VERSION2,
            client_id="sandboa-house",
            clean_session=False,
            manual_ack=True,
        )
        if where.username:
            self._client.username_pw_set(unquote(where.username), unquote(where.password or ""))
        if where.scheme == "mqtts":
            self._client.tls_set()
        self._client.on_connect = self._on_connect
        self._client.on_connect_fail = self._on_connect_fail
        self._client.on_disconnect = self._on_disconnect
        self._client.on_subscribe = lambda *_: self.subscribed.set()
        self._client.on_message = self._on_message
        self._client.reconnect_delay_set(1, 60)
        self._client.connect_async(where.hostname or "", port)
        self._client.loop_start()

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
        name, _, sensor = message.topic.removeprefix("sandboa/").partition("/readings")
        while not self._closing.is_set():
            try:
                with self._using():
                    self._take(name, sensor.strip("/"), message)
            except Unavailable:
                # Not stored, so not acknowledged: the broker keeps it while we try again.
                self._closing.wait(_RETRY_S)
                continue
            except (NotPlausible, NotAllowed, ValidationError) as error:
                # Sending it again would not help: the device is told why.
                problem = json.dumps({"detail": str(refusal_words(error))})
                client.publish(f"sandboa/{name}/problems", problem, qos=0)
            client.ack(message.mid, message.qos)
            return

    def _take(self, name: str, sensor: str, message: mqtt.MQTTMessage) -> None:
        device = device_called(name)
        try:
            taken = self._store(device, sensor, message)
        except (NotPlausible, ValidationError) as error:
            self._refused(device, refusal_words(error))
            raise
        self._taken(device, taken)

    def _store(self, device: Device, sensor: str, message: mqtt.MQTTMessage) -> TakenIn:
        payload, now_s = bytes(message.payload), self._now_s()
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


def require_broker(url: str) -> Any:
    """The parts of a broker's address; NotPlausible when it is none."""
    try:
        where = urlsplit(url)
        known = where.scheme in ("mqtt", "mqtts") and bool(where.hostname)
        _ = where.port
    except ValueError:
        known = False
    if not known:
        raise NotPlausible("mqtt", f'"{url[:60]}" is not a broker: mqtt://host:1883')
    return where
