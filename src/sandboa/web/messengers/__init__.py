"""Messengers: the ways alarms leave the house, and what they sent."""
