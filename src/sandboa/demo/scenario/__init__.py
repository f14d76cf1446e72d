"""The scenario of the demo: its animals, cabinets, two seasons, and what the keeper did in them."""
