"""Alarms: what is wrong now, the log of what was, and the stream that tells of changes."""
