"""MQTT, the second way in: clients of a broker, and a small broker for development."""

from sandboa.devices.mqtt.address import Broker, require_broker
from sandboa.devices.mqtt.listener import MqttListener
from sandboa.devices.mqtt.subscriber import MqttIntake

__all__ = ["Broker", "MqttIntake", "MqttListener", "require_broker"]
