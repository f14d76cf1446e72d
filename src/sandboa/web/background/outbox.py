"""Messages on their way out: a thread for each messenger, so that none holds up another."""

import logging
from threading import Lock, Thread
from typing import Final

from sandboa.services.alarms.delivery import Post, due, send_due
from sandboa.services.alarms.messengers import Messenger, messengers_now
from sandboa.services.safekeeping.house_file import let_go
from sandboa.web.requests.exclusive_use import Access

#: s the house waits for messages under way when it closes.
_PATIENCE_S: Final = 5.0

_log = logging.getLogger(__name__)


class Outbox:
    """Sends what is due by every messenger, each in a thread of its own while it has something."""

    def __init__(self, post: Post, access: Access | None = None) -> None:
        self._post = post
        self._access = access or Access()
        self._under_way: dict[int, Thread] = {}
        self._lock = Lock()

    def deliver(self, now_s: float) -> None:
        """Begin sending what is due; who is still sending is left alone."""
        for messenger in messengers_now():
            if self._sends(messenger.entity_id) or not due(messenger, now_s):
                continue
            thread = Thread(
                target=self._send, args=(messenger, now_s), daemon=True,
                name=f"messenger {messenger.name}",
            )  # fmt: skip
            with self._lock:
                self._under_way[messenger.entity_id] = thread
            thread.start()

    def close(self, patience_s: float = _PATIENCE_S) -> None:
        """Wait a little for what is on its way."""
        with self._lock:
            under_way = list(self._under_way.values())
        for thread in under_way:
            thread.join(patience_s)

    def _sends(self, messenger: int) -> bool:
        with self._lock:
            thread = self._under_way.get(messenger)
        return thread is not None and thread.is_alive()

    def _send(self, messenger: Messenger, now_s: float) -> None:
        try:
            with self._access.use_when_open():
                send_due(self._post, messenger, now_s)
        except Exception:
            # A locked or closing database: the next look finds the same letters due.
            _log.exception("messages of %s could not be noted", messenger.name)
        finally:
            # The connection of this thread ends with it.
            let_go()
