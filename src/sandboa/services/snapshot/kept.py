"""Results kept under a name for as long as their stamp is the same."""

from collections.abc import Callable, Hashable
from dataclasses import dataclass, field
from typing import Any, TypeVar

ResultT = TypeVar("ResultT")


class Same:
    """Part of a stamp: the same object, which a snapshot passes on while nothing of it changed."""

    __slots__ = ("_held",)

    def __init__(self, held: object) -> None:
        self._held = held

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Same) and other._held is self._held

    def __hash__(self) -> int:
        return id(self._held)


@dataclass
class Kept:
    """Safe to share between threads: at worst two of them make the same result."""

    _results: dict[str, tuple[Hashable, Any]] = field(default_factory=dict)

    def holds(self, name: str, stamp: Hashable) -> bool:
        """Whether something is kept under `name` with that stamp."""
        known = self._results.get(name)
        return known is not None and known[0] == stamp

    def held(self, name: str, stamp: Hashable, make: Callable[[], ResultT]) -> ResultT:
        """What `make` returns, kept under `name` while the stamp is the same."""
        known = self._results.get(name)
        if known is None or known[0] != stamp:
            known = self._results[name] = (stamp, make())
        made: ResultT = known[1]
        return made
