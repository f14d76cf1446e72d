"""MQTT, the second way in: a client of a broker, and a small broker for development."""

from sandboa.devices.mqtt.subscriber import MqttIntake, Taking, require_broker

__all__ = ["MqttIntake", "Taking", "require_broker"]
