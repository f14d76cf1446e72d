"""Copies of a whole house: made before a migration, every night or on demand, and put back."""
