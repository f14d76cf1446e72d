"""Pairings, lay windows and their preparation, what a pair produced, the dam afterwards."""
