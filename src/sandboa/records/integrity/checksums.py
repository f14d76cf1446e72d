"""Checksums over rows of numbers: one changed bit changes them, the order of rows does not."""

from collections.abc import Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

Bits = NDArray[np.uint64]

_STEP: Final = np.uint64(0x9E3779B97F4A7C15)
_FIRST: Final = np.uint64(0xBF58476D1CE4E5B9)
_SECOND: Final = np.uint64(0x94D049BB133111EB)
#: Bits of no value at all: a not-a-number that no measurement has.
_NOTHING: Final = np.uint64(0x7FF8_0000_0000_0001)


def of_rows(columns: Sequence[Bits]) -> Bits:
    """A well-mixed number for each row of equally long columns (shape (n,)); order counts there.

    Source: the finaliser of splitmix64 (Steele, Lea, Flood 2014, OOPSLA), chained
    over the columns. It guards against damage, not against forgery.
    """
    mixed = np.zeros(len(columns[0]), dtype=np.uint64)
    for column in columns:
        mixed = (mixed ^ column) + _STEP
        mixed = (mixed ^ (mixed >> np.uint64(30))) * _FIRST
        mixed = (mixed ^ (mixed >> np.uint64(27))) * _SECOND
        mixed ^= mixed >> np.uint64(31)
    return mixed


def total(rows: Bits) -> int:
    """The sum of the rows' numbers modulo 2^64, as SQLite keeps it: -2^63 to 2^63 - 1."""
    return signed(int(rows.sum(dtype=np.uint64)))


def signed(number: int) -> int:
    """A number modulo 2^64 as a signed one."""
    number %= 2**64
    return number - 2**64 if number >= 2**63 else number


def whole_numbers(values: Sequence[int]) -> Bits:
    """Whole numbers as bits."""
    return np.asarray(values, dtype=np.int64).view(np.uint64)


def numbers(values: Sequence[float | None]) -> Bits:
    """Numbers as bits, None as bits of its own."""
    # SQLite keeps a zero without its sign.
    held = np.asarray(values, dtype=np.float64) + 0.0
    return np.where(np.isnan(held), _NOTHING, held.view(np.uint64))
