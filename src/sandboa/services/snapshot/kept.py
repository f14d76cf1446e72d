"""Results kept under a name for as long as their stamp is the same."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from operator import is_
from typing import Any, TypeVar

ResultT = TypeVar("ResultT")


class Same:
    """Part of a stamp: the same objects, which a snapshot passes on while nothing of them changed.

    Numbers and words are no such objects: equal ones may be others.
    """

    __slots__ = ("_held",)

    def __init__(self, *held: object) -> None:
        self._held = held

    def __eq__(self, other: object) -> bool:
        return (
            isinstance(other, Same)
            and len(other._held) == len(self._held)
            and all(map(is_, other._held, self._held))
        )

    def __hash__(self) -> int:
        return hash(tuple(map(id, self._held)))


@dataclass
class Kept:
    """Safe to share between threads: at worst two of them make the same result."""

    _results: dict[Hashable, tuple[Hashable, Any]] = field(default_factory=dict)

    def copy(self) -> "Kept":
        """The same results, to which others may come."""
        return Kept(dict(self._results))

    def holds(self, name: Hashable, stamp: Hashable) -> bool:
        """Whether something is kept under `name` with that stamp."""
        known = self._results.get(name)
        return known is not None and known[0] == stamp

    def held(self, name: Hashable, stamp: Hashable, make: Callable[[], ResultT]) -> ResultT:
        """What `make` returns, kept under `name` while the stamp is the same."""
        known = self._results.get(name)
        if known is None or known[0] != stamp:
            known = self._results[name] = (stamp, make())
        made: ResultT = known[1]
        return made
