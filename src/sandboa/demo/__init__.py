"""Demo data: the garden room, told through the real use cases."""

from sandboa.demo.scenario.room import furnish

__all__ = ["furnish"]
