"""Clutch: where it stands, its eggs, and what is recorded at the box."""
