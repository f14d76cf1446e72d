"""Taking the served house back to a copy, beside the requests that read it meanwhile."""

import logging
from dataclasses import dataclass, field
from threading import Lock, Thread
from typing import TYPE_CHECKING

from sandboa.services.acts.errors import Conflict
from sandboa.services.safekeeping import security_log
from sandboa.services.safekeeping.house_file import let_go
from sandboa.services.safekeeping.restores import RestorableCopy, take_back
from sandboa.web.requests.exclusive_use import HouseClosed

if TYPE_CHECKING:
    from sandboa.web.house import House

_log = logging.getLogger(__name__)


@dataclass(frozen=True, slots=True)
class RestoreUnderWay:
    """A restore; `ended_s` is None while it runs. `problem` says why the house is as it was."""

    copy: str
    begun_s: float
    ended_s: float | None = None
    problem: str | None = None
    aside: str | None = None


@dataclass
class Restoring:
    """At most one restore at a time, and what became of the last."""

    state: RestoreUnderWay | None = None
    _lock: Lock = field(default_factory=Lock)

    def begin(self, house: "House", copy: RestorableCopy, by: security_log.By) -> Thread:
        """Start taking the house back; Conflict while one runs. Nothing is stored meanwhile."""
        now_s = house.clock.now_s()
        with self._lock:
            if self.state is not None and self.state.ended_s is None:
                raise Conflict("the house is being restored already")
            self.state = RestoreUnderWay(copy.name, now_s)
        house.access.only_read = "The house is being restored from a copy: nothing was stored."
        thread = Thread(target=self._run, args=(house, copy, by, now_s), name="restore")
        thread.start()
        return thread

    def _run(self, house: "House", copy: RestorableCopy, by: security_log.By, now_s: float) -> None:
        problem, aside = None, None
        try:
            moved = take_back(copy, now_s, house.access.alone)
            aside = str(moved) if moved else None
            house.forget()
            security_log.note(
                security_log.Kind.RESTORED, f"the house was restored from {copy.name}", by, now_s
            )
        except (Conflict, HouseClosed) as error:
            problem = str(error)
        except Exception as error:
            # It runs in a thread of its own: whoever asked is told here or nowhere.
            _log.exception("the house could not be restored from %s", copy.name)
            problem = f"it failed: {error}"
        finally:
            let_go()
            self.state = RestoreUnderWay(copy.name, now_s, house.clock.now_s(), problem, aside)
            house.access.only_read = None
            house.live.changed_elsewhere()
