"""Where two answers of the services differ, down to the last number of a series."""

from collections.abc import Iterator
from dataclasses import fields, is_dataclass
from typing import Any

import numpy as np


def differences(one: Any, other: Any, where: str = "") -> Iterator[str]:
    """The places where they differ, with both values; functions are not compared."""
    if one is other or callable(one):
        return
    if isinstance(one, np.ndarray):
        if not np.array_equal(one, other, equal_nan=True):
            yield where
    elif is_dataclass(one) and type(one) is type(other):
        # What is worked out from the rest when it is asked for is no part of it.
        for field in (f.name for f in fields(one) if not f.name.startswith("_")):
            yield from differences(getattr(one, field), getattr(other, field), f"{where}.{field}")
    elif isinstance(one, list | tuple) and len(one) == len(other):
        for place, (left, right) in enumerate(zip(one, other, strict=True)):
            yield from differences(left, right, f"{where}[{place}]")
    elif one != other and not (one != one and other != other):
        yield f"{where}: {one!r} and {other!r}"
