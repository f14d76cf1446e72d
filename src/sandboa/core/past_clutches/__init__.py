"""Clutches of before Sandboa: what of a card can be true, and what its days teach."""
