"""Use cases: what a keeper does, one transaction each, and what the house knows now."""
