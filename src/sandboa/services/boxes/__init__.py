"""A box: its climate, water, air and mass, and what is seen at it."""
