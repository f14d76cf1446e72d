"""What sensors and hubs send in words of their own: numbers, JSON of many shapes, forms."""

from sandboa.formats.sensor_payloads.discovery import Announced, announced
from sandboa.formats.sensor_payloads.payload import json_of_words, understood
from sandboa.formats.sensor_payloads.values import Seems, SensorMessage, Value, values_in

__all__ = [
    "Announced",
    "Seems",
    "SensorMessage",
    "Value",
    "announced",
    "json_of_words",
    "understood",
    "values_in",
]
