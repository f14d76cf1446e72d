"""Lines of checklists, ticked and unticked; a tick is a fact with its moment."""

from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.facts import Act
from sandboa.records.house import Task
from sandboa.services.acts.preconditions import require_not_ahead
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


def ticked(subject: int) -> dict[str, float]:
    """When each ticked line of a subject was done (s), by name."""
    return {task.name: float(task.done_s) for task in Task.current(subject_id=subject)}
