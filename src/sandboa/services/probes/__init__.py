"""Probes: where they hang, their checks and offsets, and the devices that send for them."""
