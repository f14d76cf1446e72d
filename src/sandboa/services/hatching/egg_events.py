"""Seen and done at a hatching egg: pipped, cut, out."""

from collections.abc import Sequence

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.last_week import LastWeekTask
from sandboa.core.names import clean_name
from sandboa.core.rounds.due import which_eggs
from sandboa.records.facts import Act
from sandboa.records.hatching import Cut, Emergence, Pip
from sandboa.services.acts.checklists import Tick, tick
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.preconditions import clutch_called, require_in_box
from sandboa.services.acts.recording import act, together
from sandboa.services.clutches.clutch_view import PIP_IS_RIGHT
from sandboa.services.hatching.open_clutch import fertile_egg, open_clutch


def see_pip(code: str, number: int, seen_s: float, now_s: float) -> Act:
    """Record that an egg has pipped, as seen at `seen_s`.

    Raises NotFound for an unknown clutch or egg; NotPlausible for a slug, an
    egg that was taken out, or a time before lay, ahead, or after it came out;
    Conflict when its pip is recorded already, or the clutch is closed.
    """
    clutch = open_clutch(code, seen_s, now_s)
    egg = fertile_egg(clutch, number, "pip")
    require_in_box(egg, seen_s)
    if Pip.only(egg_id=egg.entity_id) is not None:
        raise Conflict(f"egg {number} has pipped already: undo that to correct its time")
    out = Emergence.only(egg_id=egg.entity_id)
    if out is not None and out.seen_s < seen_s:
        raise NotPlausible("at", f"egg {number} was out before that: the pip came earlier")
    with act(ActKind.PIP, f"Egg {number} pipped", now_s, clutch.entity_id) as seeing:
        Pip.record(seeing, egg_id=egg.entity_id, seen_s=int(seen_s))
    return seeing


def see_emergence(code: str, number: int, seen_s: float, now_s: float) -> Act:
    """Record that a hatchling is out of its egg, as seen at `seen_s`.

    A pip nobody saw is none: it is taken as a usual while before, and told so.
    Raises as `see_pip` does; NotPlausible for a time before the egg's pip.
    """
    clutch = open_clutch(code, seen_s, now_s)
    egg = fertile_egg(clutch, number, "hatch")
    require_in_box(egg, seen_s)
    if Emergence.only(egg_id=egg.entity_id) is not None:
        raise Conflict(f"egg {number} is out already: undo that to correct its time")
    pip = Pip.only(egg_id=egg.entity_id)
    if pip is not None and seen_s < pip.seen_s:
        raise NotPlausible("at", f"egg {number} pipped after that: it cannot have been out before")
    with act(ActKind.EMERGENCE, f"Egg {number} is out", now_s, clutch.entity_id) as seeing:
        Emergence.record(seeing, egg_id=egg.entity_id, seen_s=int(seen_s))
    return seeing


def see_several(
    code: str, numbers: Sequence[int], seen_s: float, now_s: float, *, out: bool
) -> Act:
    """Record that several eggs have pipped, or are out, in one act; all of them or none.

    Raises as `see_pip` and `see_emergence` do; NotPlausible for no egg at all, or one named twice.
    """
    if not numbers or len(set(numbers)) < len(numbers):
        raise NotPlausible("eggs", "which eggs? Each of them once")
    clutch = clutch_called(code)
    which = which_eggs(sorted(numbers))
    few = len(numbers) == 1
    words = f"{which} {('is' if few else 'are') + ' out' if out else 'pipped'}"
    kind = ActKind.EMERGENCE if out else ActKind.PIP
    see = see_emergence if out else see_pip
    with together(kind, words[0].upper() + words[1:], now_s, clutch.entity_id) as seeing:
        for number in numbers:
            see(code, number, seen_s, now_s)
    return seeing


def cut_egg(
    code: str, number: int, reason: str, at_s: float, now_s: float, *, bled: bool = False
) -> Act:
    """Record that an egg was cut open: why, and whether it bled.

    Raises as `see_pip` does; NotPlausible without a reason or once it is out.
    """
    clutch = open_clutch(code, at_s, now_s)
    egg = fertile_egg(clutch, number, "be cut for an animal")
    require_in_box(egg, at_s)
    why = clean_name("reason", reason)
    if Cut.only(egg_id=egg.entity_id) is not None:
        raise Conflict(f"egg {number} is cut already: undo that to correct it")
    out = Emergence.only(egg_id=egg.entity_id)
    if out is not None and out.seen_s <= at_s:
        raise NotPlausible("at", f"egg {number} was out by then")
    summary = f"Egg {number} cut: {why}{', it bled' if bled else ''}"
    with act(ActKind.CUT, summary, now_s, clutch.entity_id) as cutting:
        Cut.record(cutting, egg_id=egg.entity_id, at_s=int(at_s), reason=why, bled=int(bled))
    return cutting


def confirm_pip(code: str, now_s: float) -> Act:
    """Say that a first pip which cannot be by heat is right, and so is the lay date.

    Nothing more is asked about it. Raises NotFound for an unknown clutch.
    """
    clutch = clutch_called(code)
    said = Tick(PIP_IS_RIGHT, done=True, done_s=now_s)
    return tick(clutch.entity_id, said, now_s, whose=clutch.code, clutch=clutch.entity_id)


def tick_last_week(
    code: str, task: LastWeekTask, done: bool, now_s: float, done_s: float | None = None
) -> Act:
    """Tick a line of a clutch's last-week list, done at `done_s` (now where that is None), or take
    the tick back."""
    clutch = clutch_called(code)
    said = Tick(task.value, done, now_s if done_s is None else done_s)
    return tick(clutch.entity_id, said, now_s, whose=clutch.code, clutch=clutch.entity_id)
