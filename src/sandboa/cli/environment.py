"""What is told to the command by the environment, for services that start it."""

import os


def said(name: str) -> str | None:
    """The value of SANDBOA_`name`; None when it is not set or empty."""
    return os.environ.get(f"SANDBOA_{name}") or None
