"""Subscribes to a broker and stores what devices publish; acknowledged when it is stored.

Devices publish to `sandboa/NAME/readings` with QoS 1, NAME as in Settings; the
payload is that of POST /api/readings. What cannot be taken is answered on
`sandboa/NAME/problems`. Who may publish where is the broker's to decide.
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
from sandboa.formats.delivery import LARGEST_DELIVERY_BYTES, Delivery
from sandboa.records.database import Unavailable
from sandboa.services.people.tokens import NotAllowed
from sandboa.services.probes.devices import device_called
from sandboa.services.readings.intake import TakenIn, take_in

TOPIC: Final = "sandboa/+/readings"
#: s after which a delivery that could not be stored is tried again.
_RETRY_S: Final = 1.0

_log = logging.getLogger(__name__)

#: Called after a delivery was stored.
Taking = Callable[[TakenIn], None]


class MqttIntake:
    """A connection to a broker, kept up until it is closed; its session outlives a restart."""

    def __init__(
        self,
        url: str,
        now_s: Callable[[], float],
        taken: Taking,
        using: Callable[[], AbstractContextManager[None]] = nullcontext,
    ) -> None:
        """`using` is held while the house is used: it may wait while somebody has it alone."""
        self._now_s, self._taken, self._using = now_s, taken, using
        self._closing, self.subscribed = Event(), Event()
        where = require_broker(url)
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
        self._client.on_subscribe = lambda *_: self.subscribed.set()
        self._client.on_message = self._on_message
        self._client.reconnect_delay_set(1, 60)
        port = where.port or (8883 if where.scheme == "mqtts" else 1883)
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
            return
        client.subscribe(TOPIC, qos=1)

    def _on_message(self, client: mqtt.Client, _: Any, message: mqtt.MQTTMessage) -> None:
        name = message.topic.split("/")[1]
        while not self._closing.is_set():
            try:
                with self._using():
                    taken = self._store(name, bytes(message.payload))
                self._taken(taken)
            except Unavailable:
                # Not stored, so not acknowledged: the broker keeps it while we try again.
                self._closing.wait(_RETRY_S)
                continue
            except (NotPlausible, NotAllowed, ValidationError) as error:
                # Sending it again would not help: the device is told why.
                problem = json.dumps({"detail": _reason(error)})
                client.publish(f"sandboa/{name}/problems", problem, qos=0)
            client.ack(message.mid, message.qos)
            return

    def _store(self, name: str, payload: bytes) -> TakenIn:
        device = device_called(name)
        if len(payload) > LARGEST_DELIVERY_BYTES:
            raise NotPlausible("readings", "too large: send smaller batches")
        delivery = Delivery.model_validate_json(payload, strict=True)
        return take_in(device, delivery.rows(), self._now_s(), delivery.sent_s)


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


def _reason(error: Exception) -> str:
    if isinstance(error, ValidationError):
        first = error.errors()[0]
        return f"{'.'.join(map(str, first['loc']))}: {first['msg']}"
    return str(error)
