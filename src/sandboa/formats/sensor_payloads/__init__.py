"""What sensors and hubs send in words of their own: numbers, JSON of many shapes, forms."""

from sandboa.formats.sensor_payloads.payload import of_words, understood

__all__ = ["of_words", "understood"]
