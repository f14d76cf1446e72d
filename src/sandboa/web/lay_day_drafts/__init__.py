"""Lay days under way: begun, carried on from any device, recorded."""
