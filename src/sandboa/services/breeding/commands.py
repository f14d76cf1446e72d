"""Recorded around the eggs: lines of the lists of preparation and of aftercare."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM
from sandboa.core.dam_care import (
    AftercareTask,
)
from sandboa.core.errors import NotPlausible
from sandboa.core.laying import (
    PreparationTask,
)
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act
from sandboa.records.house import Task
from sandboa.services.acts.checklists import Tick, tick
from sandboa.services.acts.preconditions import require_between_lay_and_now
from sandboa.services.acts.recording import act
from sandboa.services.animals.commands import find_animal
from sandboa.services.breeding.aftercare import TICKED


def tick_aftercare(
    code_of: Clutch, task: AftercareTask, now_s: float, done_s: float | None = None
) -> Act:
    """Tick a line of the checklist, done at `done_s` (now where that is None).

    Weights and meals tick their own lines. NotPlausible for those, for a line that is ticked
    already, and for a time before the clutch was laid or ahead.
    """
    at_s = now_s if done_s is None else done_s
    require_between_lay_and_now(code_of, at_s, now_s)
    if task not in TICKED:
        raise NotPlausible("task", "record the weight or the meal: that ticks this line")
    her = find_animal(code_of.dam_id, DAM)
    if Task.only(subject_id=code_of.entity_id, name=task.value) is not None:
        raise NotPlausible("task", "that is ticked already")
    with act(ActKind.TASK, f"{her.name}: {task}, done", now_s, code_of.entity_id) as ticking:
        Task.record(ticking, subject_id=code_of.entity_id, name=task.value, done_s=int(at_s))
    return ticking


def tick_preparation(
    dam: int, task: PreparationTask, done: bool, now_s: float, done_s: float | None = None
) -> Act:
    """Tick a line of a dam's preparation list, done at `done_s` (now where that is None), or take
    the tick back."""
    her = find_animal(dam, DAM)
    said = Tick(task.value, done, now_s if done_s is None else done_s)
    return tick(dam, said, now_s, whose=her.name)
