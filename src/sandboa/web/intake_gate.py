"""How many deliveries are taken at a time: whoever comes too fast is told to come again."""

import asyncio
from collections import defaultdict
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Final

#: Deliveries of one device, and of all, that may wait at a time (assumption).
MOST_OF_ONE_DEVICE: Final = 8
MOST_WAITING: Final = 64
#: Deliveries written at a time; SQLite has one writer, the others validate meanwhile.
WRITING: Final = 4
#: s after which a refused device may try again.
RETRY_AFTER_S: Final = 1


class TooMany(Exception):
    """Nothing of this delivery was looked at; the device keeps it and sends it again."""


class IntakeGate:
    """Back-pressure instead of loss: what is refused was not acknowledged.

    Used from the event loop only, so its counts need no lock.
    """

    def __init__(self) -> None:
        self._waiting: dict[int, int] = defaultdict(int)
        self._writing = asyncio.Semaphore(WRITING)

    @contextmanager
    def queueing(self, device: int) -> Iterator[None]:
        """Stand in the queue; TooMany when that of this device or of all is full."""
        if self._waiting[device] >= MOST_OF_ONE_DEVICE:
            raise TooMany("this device sends faster than its readings can be stored")
        if sum(self._waiting.values()) >= MOST_WAITING:
            raise TooMany("more devices send at once than can be answered")
        self._waiting[device] += 1
        try:
            yield
        finally:
            self._waiting[device] -= 1
            if not self._waiting[device]:
                del self._waiting[device]

    def turn(self) -> asyncio.Semaphore:
        """To be held while writing, once the body is here: a slow sender keeps nobody waiting."""
        return self._writing
