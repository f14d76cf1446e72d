"""Lay day: what can be chosen, a suggestion from the count, and the record itself."""
