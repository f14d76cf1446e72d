"""Readings: by hand, from a file, from a device."""
