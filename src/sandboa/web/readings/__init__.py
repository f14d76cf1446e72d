"""Readings: probes, by hand, from a logger's file, and live from a logger."""
