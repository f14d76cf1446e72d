"""Tokens: what lets a device or a browser in; only their hashes are kept."""

import hashlib


class NotAllowed(Exception):
    """The token is missing, unknown or revoked; the text is a sentence."""


def hash_of(token: str) -> str:
    """What is kept of a token. It has 256 random bits: a plain hash cannot be guessed back."""
    return hashlib.sha256(token.encode()).hexdigest()
