"""Devices that may send readings, and their tokens."""
