"""Anything of the house by its name, from anywhere."""
