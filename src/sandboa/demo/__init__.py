"""Demo data: the garden room, told through the real use cases."""

from sandboa.demo.garden_room import furnish

__all__ = ["furnish"]
