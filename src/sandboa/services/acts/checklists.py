"""Lines of checklists, ticked and unticked; a tick is a fact with its moment."""

from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act
from sandboa.records.house import Task
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import require_between_lay_and_now, require_not_ahead
from sandboa.services.acts.recording import act


@dataclass(frozen=True, slots=True)
class Tick:
    """A line of a list, ticked as done at `done_s`, or the tick taken back."""

    line: str
    done: bool
    done_s: float


def tick(subject: int, said: Tick, now_s: float, *, whose: str, clutch: int | None = None) -> Act:
    """Tick a line of `subject`'s list, or take the tick back.

    Raises NotPlausible for a time ahead, or where there is no tick to take back.
    """
    require_not_ahead(said.done_s, now_s)
    name, done = said.line, said.done
    held = Task.current(subject_id=subject, name=name)
    with act(
        ActKind.TASK, f"{whose}: {name} {'done' if done else 'not done'}", now_s, clutch
    ) as ticking:
        for old in held:
            old.retire(ticking)
        if done:
            Task.record(ticking, subject_id=subject, name=name, done_s=int(said.done_s))
        elif not held:
            raise NotPlausible("task", "that is not ticked")
    return ticking


def correct_tick(entity: int, done_s: float, now_s: float) -> Act:
    """Correct when a line was done.

    Raises NotFound for an unknown tick; NotPlausible for a time ahead, or before the clutch was
    laid that the list is of.
    """
    held = Task.now(entity)
    if held is None:
        raise NotFound("there is no such tick")
    clutch = Clutch.now(held.subject_id)
    if clutch is not None:
        require_between_lay_and_now(clutch, done_s, now_s)
    require_not_ahead(done_s, now_s)
    of = None if clutch is None else clutch.entity_id
    with act(ActKind.TASK, f"Corrected: {held.name}, done", now_s, of) as correcting:
        held.correct(correcting, done_s=int(done_s))
    return correcting
