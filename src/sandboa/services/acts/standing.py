"""Which version of a fact stands, where later acts changed it and were taken back again."""

from collections.abc import Sequence

from sandboa.records.facts import Act, FactT, act_numbered, undoers_of


def undone_among(acts: list[Act]) -> set[int]:
    """Ids of those acts that are taken back now."""
    undoers: dict[int, list[int]] = {}
    asked = {row.id for row in acts}
    while asked:
        rows = undoers_of(asked)
        for row in rows:
            undoers.setdefault(row.undoes_id or 0, []).append(row.id)
        asked = {row.id for row in rows}

    def undone(act_id: int) -> bool:
        return any(not undone(undoer) for undoer in undoers.get(act_id, []))

    return {row.id for row in acts if undone(row.id)}


def standing_version(table: type[FactT], row: FactT) -> tuple[FactT | None, Act | None]:
    """The row that stands for `row`: itself, or the one that an undo put back in its place.

    None and the act that changed it since, where one did and holds.
    """
    while row.superseded_by_id is not None:
        later = act_numbered(row.superseded_by_id)
        restored = _put_back(table, row, later) if later is not None else None
        if restored is None:
            return None, later
        row = restored
    return row, None


def standing_of(table: type[FactT], act_ids: Sequence[int]) -> list[tuple[int, FactT]]:
    """What stands of a table as one of those acts recorded it, each with the act's id."""
    found = []
    for version in table.ever(act_id=list(act_ids)):
        row, _ = standing_version(table, version)
        if row is not None:
            found.append((version.act_id, row))
    return found


def _put_back(table: type[FactT], row: FactT, later: Act) -> FactT | None:
    """The version of the same fact that the undo of a later act recorded, the newest of them."""
    undoers = undoers_of([later.id])
    undone = undone_among(undoers)
    holding = [act.id for act in undoers if act.id not in undone]
    if not holding:
        return None
    restored = table.ever(entity_id=row.entity_id, act_id=holding)
    return restored[-1] if restored else None
