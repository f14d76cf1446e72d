"""Schemas that several places share."""
