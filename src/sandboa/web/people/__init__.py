"""People of the house, and signing in."""
