"""Readings kept at hand: the means that development is summed over, single ones, humidity."""
