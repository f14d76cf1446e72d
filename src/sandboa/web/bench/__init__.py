"""Bench: what-if forecast, mixing, top-up; nothing is recorded."""
