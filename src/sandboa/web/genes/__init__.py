"""The keeper's list of traits, what a pair can produce by it, and what hatched."""
