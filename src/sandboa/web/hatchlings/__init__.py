"""Hatchlings of the house: what they weigh, eat and need, held back or gone."""
