"""How long a page may take: what is not done by then is asked for again."""

import time
from collections.abc import Callable
from typing import Final

#: s after which a page is answered with what is worked out by then (product requirement).
PATIENCE_S: Final = 1.0


def for_seconds(seconds: float) -> Callable[[], bool]:
    """True until so many seconds have passed since now."""
    until_s = time.monotonic() + seconds
    return lambda: time.monotonic() < until_s
