"""Errors as RFC 9457 problem details, in one table."""
