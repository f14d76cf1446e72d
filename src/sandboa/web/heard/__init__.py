"""Heard: every topic and device that speaks, and what its values are."""
