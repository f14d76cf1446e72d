"""Lines of checklists, ticked and unticked; a tick is a fact with its moment."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.facts import Act
from sandboa.records.house import Task
from sandboa.services.acts.recording import act


def tick(
    subject: int, name: str, done: bool, now_s: float, *, whose: str, clutch: int | None = None
) -> Act:
    """Tick a line of `subject`'s list, or take the tick back; NotPlausible where there is none."""
    held = Task.current(subject_id=subject, name=name)
    with act(
        ActKind.TASK, f"{whose}: {name} {'done' if done else 'not done'}", now_s, clutch
    ) as ticking:
        for old in held:
            old.retire(ticking)
        if done:
            Task.record(ticking, subject_id=subject, name=name, done_s=int(now_s))
        elif not held:
            raise NotPlausible("task", "that is not ticked")
    return ticking


def ticked(subject: int) -> dict[str, float]:
    """When each ticked line of a subject was done (s), by name."""
    return {task.name: float(task.done_s) for task in Task.current(subject_id=subject)}
