"""Where a probe hung, corrected: its first place, and a move."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.facts import Act
from sandboa.records.house import ProbeCheck, ProbeMove
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import require_not_ahead
from sandboa.services.acts.recording import act
from sandboa.services.probes.commands import ProbePlace, find_place, logger_probe


def correct_first_place(entity: int, place: ProbePlace, since_s: float, now_s: float) -> Act:
    """Correct where and since when a probe first hung.

    Raises NotFound for an unknown probe or place; NotPlausible for a time ahead, or after it was
    hung elsewhere or checked.
    """
    probe = logger_probe(entity)
    where, words = find_place(place)
    require_not_ahead(since_s, now_s)
    if any(move.from_s <= since_s for move in ProbeMove.current(probe_id=entity)):
        raise NotPlausible("at", f"{probe.name} was hung elsewhere by then")
    if any(check.at_s < since_s for check in ProbeCheck.current(probe_id=entity)):
        raise NotPlausible("at", f"{probe.name} was checked before that")
    summary = f"Corrected: Probe {probe.name} hung in {words}"
    with act(ActKind.PROBE, summary, now_s) as correcting:
        probe.correct(correcting, place_id=where, since_s=int(since_s))
    return correcting


def correct_probe_move(move: int, place: ProbePlace | None, at_s: float, now_s: float) -> Act:
    """Correct where a probe was hung, None: taken down, and when.

    Raises NotFound for an unknown move or place; NotPlausible for a time ahead, before it first
    hung, or of another move.
    """
    held = ProbeMove.now(move)
    if held is None:
        raise NotFound("there is no such move of a probe")
    probe = logger_probe(held.probe_id)
    where, words = find_place(place) if place is not None else (None, "")
    require_not_ahead(at_s, now_s)
    if at_s <= probe.since_s:
        raise NotPlausible("at", f"that is before {probe.name} first hung anywhere")
    others = [m for m in ProbeMove.current(probe_id=probe.entity_id) if m.entity_id != move]
    if any(m.from_s == int(at_s) for m in others):
        raise NotPlausible("at", f"{probe.name} was moved at that time already")
    what = f"hung in {words}" if where is not None else "taken down"
    with act(ActKind.PROBE, f"Corrected: Probe {probe.name} {what}", now_s) as correcting:
        held.correct(correcting, place_id=where, from_s=int(at_s))
    return correcting
