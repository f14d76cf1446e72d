"""Cabinets, their shelves and set points, and where boxes stand."""
