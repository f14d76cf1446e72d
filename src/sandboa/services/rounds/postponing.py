"""Putting off what is due at a box: for how long, and why it stays due."""

from collections.abc import Sequence

from sandboa.core.act_kinds import ActKind
from sandboa.core.rounds import DueKind
from sandboa.core.rounds.due import POSTPONE_DAYS
from sandboa.core.units import SECONDS_PER_DAY, require_range
from sandboa.records.facts import Act
from sandboa.records.rounds import Postponement
from sandboa.services.acts.preconditions import box_called
from sandboa.services.acts.recording import act, together
from sandboa.services.rounds.due_now import KIND_WORDS


def postpone(name: str, kind: DueKind, days: float, now_s: float) -> Act:
    """Put a reason off for 1-14 days; NotFound for an unknown box, NotPlausible beyond."""
    box = box_called(name)
    require_range("days", days, POSTPONE_DAYS, "days")
    until_s = int(now_s + days * SECONDS_PER_DAY)
    words = f"Box {box.name}: put off {KIND_WORDS[kind]} for {_days(days)}"
    with act(ActKind.POSTPONE, words, now_s) as putting_off:
        key = {"box_id": box.entity_id, "kind": kind.value}
        Postponement.put(putting_off, key, at_s=int(now_s), until_s=until_s)
    return putting_off


def postpone_several(reasons: Sequence[tuple[str, DueKind]], days: float, now_s: float) -> Act:
    """Put off reasons at several boxes, by name, for 1-14 days: in one act, all or none.

    Raises as `postpone` does, for the first that cannot be.
    """
    boxes = {name for name, _ in reasons}
    at = f"{len(boxes)} boxes" if len(boxes) != 1 else f"box {min(boxes)}"
    what = ", ".join(dict.fromkeys(KIND_WORDS[kind] for _, kind in reasons))
    words = f"Put off {what} at {at} for {_days(days)}"
    with together(ActKind.POSTPONE, words, now_s, None) as putting_off:
        for name, kind in reasons:
            postpone(name, kind, days, now_s)
    return putting_off


def _days(days: float) -> str:
    return f"{days:g} {'day' if days == 1 else 'days'}"
