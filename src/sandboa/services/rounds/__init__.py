"""Rounds: what is due, a box as it is found, and the visit that closes it."""
