"""Wakes whoever watches: the evaluation of alarms, and open pages."""

import asyncio
from dataclasses import dataclass, field


@dataclass
class LiveState:
    """Counters that rise with every change worth looking at, and those who wait for one.

    `change` rises with anything that open pages are told of, `revision` when alarms change. `came`
    is set when readings came in. Used from the event loop, but for `*_elsewhere`.
    """

    change: int = 0
    revision: int = 0
    loop: asyncio.AbstractEventLoop | None = None
    came: asyncio.Event = field(default_factory=asyncio.Event)
    _changed: asyncio.Event = field(default_factory=asyncio.Event)
    _closed: bool = False

    def readings_came(self) -> None:
        """Readings were stored: look again whether all is well."""
        self.came.set()

    def readings_came_elsewhere(self) -> None:
        """As `readings_came`, from another thread."""
        if self.loop is not None:
            self.loop.call_soon_threadsafe(self.came.set)

    def tell(self) -> None:
        """Alarms have changed, or another house stands here."""
        self.revision += 1
        self.recorded()

    def recorded(self) -> None:
        """Something was recorded or read: pages look at what, and whether it is theirs."""
        self.change += 1
        self._wake()

    def changed_elsewhere(self) -> None:
        """As `tell`, from another thread."""
        if self.loop is not None:
            self.loop.call_soon_threadsafe(self.tell)

    async def after(self, change: int) -> int | None:
        """Wait until there is a change after the one given; None when the house closes."""
        while self.change <= change and not self._closed:
            await self._changed.wait()
        return None if self._closed else self.change

    def close_elsewhere(self) -> None:
        """Let those go who wait, from another thread or a signal: the application stops."""
        self._closed = True
        if self.loop is not None:
            self.loop.call_soon_threadsafe(self._wake)

    def _wake(self) -> None:
        woken, self._changed = self._changed, asyncio.Event()
        woken.set()
