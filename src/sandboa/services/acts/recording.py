"""Acts: one transaction each, and each can be undone."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.messages import Message, Words
from sandboa.records import (
    animals,
    clutches,
    hatching,
    house,
    methods,
    notes,
    people,
    photos,
    readings,
    rounds,
)
from sandboa.records.database import IntegrityError, transaction
from sandboa.records.facts import Act as Act
from sandboa.records.facts import (
    FactT,
    act_numbered,
    fact_tables,
    superseded_by,
)
from sandboa.records.readings import Batch
from sandboa.records.said import kept
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.standing import standing_of, standing_version, undone_among
from sandboa.services.acts.undo_constraints import (
    SHARED,
    must_stay,
    refusal,
    require_keeper_left,
    require_open_for,
)

#: Every module of facts is loaded, so that an undo finds whatever an act recorded.
_LOADED = (animals, clutches, hatching, house, methods, notes, people, photos, readings, rounds)


#: The act under which others are recorded that are begun meanwhile, and whether it takes its
#: words from them: one that corrects another does, one that records several things does not.
_under_way: ContextVar[tuple[Act, bool] | None] = ContextVar("under_way", default=None)


@contextmanager
def act(kind: ActKind, summary: Words, now_s: float, clutch: int | None = None) -> Iterator[Act]:
    """Open an act: everything recorded inside holds together or not at all.

    The body may `say` another summary and set `clutch_id` on the act it is given. Inside
    `correcting` or `together` it is the act of those that is given.
    """
    if (joined := _under_way.get()) is not None:
        made, takes_words = joined
        if takes_words:
            made.say(Message("Corrected: {what}", what=summary))
        yield made
        return
    with transaction():
        made = Act.create(
            kind=kind.value,
            summary=str(summary),
            message=kept(summary),
            recorded_s=int(now_s),
            clutch_id=clutch,
            person_id=people.recorded_by.get(),
        )
        yield made
        made.close()


@contextmanager
def correcting(target: Act, now_s: float) -> Iterator[Act]:
    """Open an act in place of another: what that recorded is taken back, and what commands in the
    body record stands under this one.

    Raises Conflict where the act may not change because its clutch was closed after it.
    """
    require_open_for(target)
    with act(ActKind.stored_as(target.kind), "", now_s, target.clutch_id) as made:
        for table in fact_tables():
            for _, row in standing_of(table, [target.id]):
                row.retire(made)
        with _joined(made, takes_words=True):
            yield made


@contextmanager
def together(kind: ActKind, summary: Words, now_s: float, clutch: int | None) -> Iterator[Act]:
    """Open an act under which the commands of the body record: all of them or none."""
    with act(kind, summary, now_s, clutch) as made, _joined(made, takes_words=False):
        yield made


@contextmanager
def _joined(made: Act, *, takes_words: bool) -> Iterator[None]:
    token = _under_way.set((made, takes_words))
    try:
        yield
    finally:
        _under_way.reset(token)


def undo(act_id: int, now_s: float) -> Act:
    """Take an act back: what it recorded is superseded, what it superseded holds again.

    Undoing an undo does the first act again. Raises NotFound for an unknown
    act, Conflict when it is undone already, or when a later act has changed
    what it recorded.
    """
    with transaction():
        target = act_numbered(act_id)
        if target is None:
            raise NotFound(f"there is no act {act_id}")
        if undone_among([target]):
            raise Conflict("that is undone already")
        first, takes_back = _first_act(target)
        if first.kind == ActKind.CLEARED:
            raise Conflict("what a new version took out of the house is in the copy made before it")
        require_open_for(first)
        summary = _taken_back(first) if takes_back else _done_again(first)
        undoing = Act.create(
            kind=(ActKind.UNDO if takes_back else ActKind.REDO).value,
            summary=str(summary),
            message=kept(summary),
            recorded_s=int(now_s),
            clutch_id=target.clutch_id,
            undoes_id=act_id,
            person_id=people.recorded_by.get(),
        )
        try:
            _take_back(target, undoing)
        except IntegrityError as error:
            raise Conflict(
                "its name or code has been given to something else since; change that first"
            ) from error
        require_keeper_left()
        undoing.close()
    return undoing


def touched_by_undoing(act_id: int) -> Touch:
    """What the act at the bottom of a chain of undos touches; nothing for an unknown act."""
    target = act_numbered(act_id)
    if target is None:
        return Touch.NOTHING
    return ActKind.touched_by(_first_act(target)[0].kind)


def _take_back(target: Act, undoing: Act) -> None:
    own = [table for table in fact_tables() if table not in SHARED]
    for table in (*own, *SHARED):
        recorded, superseded = _changed_by(table, target)
        # What was corrected gets its earlier version back; only what was new may have to stay.
        corrected = {row.entity_id for row in superseded}
        for version in recorded:
            row, later = standing_version(table, version)
            if row is None:
                raise Conflict(
                    Message(
                        'changed since by "{what}": undo that first',
                        what=later.said if later else "another act",
                    )
                )
            if row.entity_id in corrected or not must_stay(row):
                row.retire(undoing)
            elif (why := refusal(row)) is not None:
                raise Conflict(why)
        for row in superseded:
            table.create(entity_id=row.entity_id, act_id=undoing.id, **row.values())
        if table is Batch:
            # A batch carries its readings with it, in and out.
            for row in recorded:
                readings.withdraw(row.entity_id)
            for row in superseded:
                readings.restore(row.entity_id)


def _changed_by(table: type[FactT], target: Act) -> tuple[list[FactT], list[FactT]]:
    """The rows an act recorded, and those of before it that it superseded.

    Where it changed a row twice, its own version in between is neither.
    """
    own = [row for row in table.ever(act_id=target.id) if row.superseded_by_id != target.id]
    return own, [row for row in superseded_by(table, target) if row.act_id != target.id]


def _taken_back(first: Act) -> Words:
    return Message("Undone: {what}", what=first.said)


def _done_again(first: Act) -> Words:
    return Message("Done again: {what}", what=first.said)


def _first_act(target: Act) -> tuple[Act, bool]:
    """The act a chain of undos began with, and whether undoing `target` takes it back."""
    takes_back = True
    while target.undoes_id is not None and (before := act_numbered(target.undoes_id)) is not None:
        target = before
        takes_back = not takes_back
    return target, takes_back
