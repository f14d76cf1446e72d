"""Seeds: numbers from which everything of a session is drawn, so that it can be shared."""

import secrets
from typing import Final

import numpy as np

from sandboa.core.errors import NotPlausible

#: The largest seed: as many digits as are told over a table.
LARGEST: Final = 999_999


def seed_of(text: str) -> int:
    """The seed that was typed, 0 to `LARGEST`; NotPlausible for anything else."""
    digits = text.strip()
    if not (digits.isascii() and digits.isdigit() and int(digits[:40]) <= LARGEST):
        raise NotPlausible("seed", f"a seed is a whole number from 0 to {LARGEST}")
    return int(digits)


def any_seed() -> int:
    """A seed nobody can guess."""
    return secrets.randbelow(LARGEST + 1)


def drawn(seed: int, *more: int) -> np.random.Generator:
    """A source of chance that a seed, and what it is for, decide alone."""
    return np.random.default_rng([seed, *more])
