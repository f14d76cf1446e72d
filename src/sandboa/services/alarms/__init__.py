"""Alarms: what is wrong now, raised, ended and sent out."""
