"""Rounds: the boxes a phone carries along, visits delivered, reasons put off."""
