"""What was worked out of clutches that share boxes, with the readings it was made of."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from typing import TypeVar

from sandboa.services.series.readings_used import Used, noting
from sandboa.services.snapshot.kept import Kept

ResultT = TypeVar("ResultT")


@dataclass
class WorkedOut:
    """Results by name; at worst two threads make the same one."""

    readings: set[Used] = field(default_factory=set)
    _results: Kept = field(default_factory=Kept)

    def once(self, name: Hashable, make: Callable[[], ResultT]) -> ResultT:
        """What `make` returns, made when it is first asked for."""
        return self.held(name, None, make)

    def held(self, name: Hashable, stamp: Hashable, make: Callable[[], ResultT]) -> ResultT:
        """What `make` returns, kept under `name` while the stamp is the same."""

        def noted() -> ResultT:
            with noting(self.readings):
                return make()

        return self._results.held(name, stamp, noted)

    def copy(self) -> "WorkedOut":
        """The same results, to which others may come."""
        return WorkedOut(set(self.readings), self._results.copy())
