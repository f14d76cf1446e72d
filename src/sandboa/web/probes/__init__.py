"""Probes: where they hang, checks and offsets, readings left out."""
