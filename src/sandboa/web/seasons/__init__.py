"""Seasons: hatch rates with intervals, losses by cause, and what the season taught."""
