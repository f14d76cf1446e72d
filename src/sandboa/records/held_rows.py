"""The rows of facts that hold, kept at hand: a later act costs what it changed, not the house.

Rows are never changed in place. An act adds rows and supersedes others, both in an index, so that
what came and went since the last look is two short questions a table.
"""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, TypeVar, cast

from sandboa.records.facts import Fact

FactT = TypeVar("FactT", bound=Fact)
#: How the rows of a table are grouped: the column of what they belong to, and that of their order.
_Grouping = tuple[str, str]


@dataclass
class _Held:
    """Rows of one table by id, and grouped as they were asked for; all replaced, never changed."""

    rows: dict[int, Fact]
    groups: dict[_Grouping, dict[int, list[Fact]]] = field(default_factory=dict)
    #: Rows that came or went with the last step forward.
    changed: tuple[Fact, ...] = ()


class HeldRows:
    """Current rows as of `version`, the id of an act; not safe to share between threads.

    What it returns belongs to whoever asked: a step forward puts other objects in its place,
    and the same ones where nothing changed. KeyError for a table that is not among those held.
    """

    def __init__(self, version: int, tables: Iterable[type[Fact]]) -> None:
        self.version = version
        self._tables = {
            table: _Held({row.id: row for row in table.as_of(version)})
            for table in dict.fromkeys(tables)
        }

    def of(self, table: type[FactT]) -> list[FactT]:
        """Every row of a table, in the order they were recorded."""
        return cast(list[FactT], list(self._tables[table].rows.values()))

    def grouped(
        self, table: type[FactT], owner: str, order: str = "id"
    ) -> Mapping[int, list[FactT]]:
        """The rows of a table by what they belong to, each group in order."""
        held = self._tables[table]
        key = (owner, order)
        if key not in held.groups:
            held.groups[key] = _grouped(held.rows.values(), owner, order)
        return cast(dict[int, list[FactT]], held.groups[key])

    def changed(self, table: type[Fact], column: str) -> set[int]:
        """What that column held in the rows that came or went with the last step forward."""
        return {getattr(row, column) for row in self._tables[table].changed}

    def forward(self, version: int) -> None:
        """Step forward to a later act."""
        for table, held in self._tables.items():
            came = table.between(self.version, version)
            went = [held.rows[id_] for id_ in table.ended_between(self.version, version)
                    if id_ in held.rows]  # fmt: skip
            held.changed = (*came, *went)
            if held.changed:
                _replace(held, came, went)
        self.version = version


def _replace(held: _Held, came: list[Any], went: list[Fact]) -> None:
    gone = {row.id for row in went}
    rows = {id_: row for id_, row in held.rows.items() if id_ not in gone}
    rows.update((row.id, row) for row in came)
    held.rows = rows
    for (owner, order), groups in held.groups.items():
        touched = {getattr(row, owner) for row in held.changed}
        renewed = dict(groups)
        for one in touched:
            kept = [row for row in groups.get(one, []) if row.id not in gone]
            own = [*kept, *(row for row in came if getattr(row, owner) == one)]
            renewed.pop(one, None)
            if own:
                renewed[one] = sorted(own, key=_by(order))
        held.groups[(owner, order)] = renewed


def _grouped(rows: Iterable[Fact], owner: str, order: str) -> dict[int, list[Fact]]:
    groups: dict[int, list[Fact]] = {}
    for row in sorted(rows, key=_by(order)):
        groups.setdefault(getattr(row, owner), []).append(row)
    return groups


def _by(order: str) -> Callable[[Fact], tuple[Any, int]]:
    return lambda row: (getattr(row, order), row.id)
