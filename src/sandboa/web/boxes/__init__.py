"""Boxes: set up, corrected, watered, moved, put away."""
