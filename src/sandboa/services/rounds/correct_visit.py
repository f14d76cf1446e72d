"""A visit corrected whole: what it recorded is taken back, and what is told now is put there."""

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.records.clutches import Box, EggStay
from sandboa.records.facts import Act
from sandboa.records.rounds import Visit
from sandboa.services.acts.recording import act
from sandboa.services.rounds.box_under_visit import BoxUnderVisit
from sandboa.services.rounds.recorded_visit import FINDINGS, recorded_by, visit_numbered
from sandboa.services.rounds.visit import BoxVisit, visit_words
from sandboa.services.rounds.visit_checks import check_visit
from sandboa.services.rounds.write_visit import write_findings


def correct_visit(visit_id: int, visit: BoxVisit, now_s: float) -> Act:
    """Correct a visit: its time, what was seen and what was done; the earlier one stays in the log.

    A box that it set up stays, with its name, as long as anything is recorded of it.
    Raises NotFound for a visit that is not there, or was undone; NotPlausible for another box
    than it was to, and as `close_visit` does. Nothing is changed then.
    """
    held = visit_numbered(visit_id)
    with act(ActKind.VISIT, "", now_s) as correcting:
        set_up = recorded_by(held, Box)
        for table in FINDINGS:
            for row in recorded_by(held, table):
                row.retire(correcting)
        for box in set_up:
            if box.from_s == held.closed_s != int(visit.closed_s):
                box.correct(correcting, from_s=int(visit.closed_s))
        at = BoxUnderVisit.of(visit, now_s)
        if at.box.entity_id != held.box_id:
            raise NotPlausible("box", "that visit was to another box: undo it and enter it there")
        check_visit(at)
        held.correct(
            correcting,
            opened_s=int(visit.opened_s),
            closed_s=at.at_s,
            rest_as_before=int(visit.rest_as_before),
        )
        write_findings(correcting, at, held.entity_id)
        for box in set_up:
            _take_away_unused(correcting, box)
        words = "; ".join(visit_words(visit))
        correcting.say(f"Corrected: {words[0].lower()}{words[1:]}")
        correcting.clutch_id = at.clutches[0].entity_id if len(at.clutches) == 1 else None
    return correcting


def _take_away_unused(correcting: Act, box: Box) -> None:
    """A box that no egg was put into after all, and that nobody opened, was not set up."""
    own = box.entity_id
    if EggStay.current(box_id=own) or Visit.current(box_id=own):
        return
    held = Box.now(own)
    if held is not None:
        held.retire(correcting)
