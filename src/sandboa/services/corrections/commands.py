"""What an act recorded, as a form and corrected: one thing, by the command that records it."""

from collections.abc import Mapping

from sandboa.core.errors import NotPlausible
from sandboa.records.facts import Act, Fact, act_numbered
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import correcting
from sandboa.services.acts.single_records import several_stand, standing_single, tables_of
from sandboa.services.acts.undo_constraints import require_open_for
from sandboa.services.corrections.fields import Answers, Fields, RecordField, Value
from sandboa.services.corrections.in_place import (
    correct_in_place,
    fields_in_place,
    stays_in_place,
)
from sandboa.services.corrections.told_anew import fields_of, tell_again


def recorded_fields(act_id: int) -> tuple[RecordField, ...]:
    """The fields of what an act recorded, as it stands.

    Raises NotFound for an unknown act, Conflict for one that recorded several things, or whose
    thing was undone or corrected since.
    """
    _, row = _standing(act_id)
    return _fields(row)


def correct_record(act_id: int, values: Mapping[str, Value], now_s: float) -> Act:
    """Correct what an act recorded; the earlier entry stays in the log.

    `values` are by field. Raises as `recorded_fields`; NotPlausible, with the field, for a value
    that cannot be or a field there is not, and as the command that records such a thing.
    Nothing is changed then.
    """
    act, row = _standing(act_id)
    fields = _fields(row)
    strange = values.keys() - {field.name for field in fields}
    if strange:
        raise NotPlausible(min(strange), f'there is no "{min(strange)[:40]}" to correct here')
    held = {field.name: field.value for field in fields}
    answers = Answers(fields, {**held, **values})
    if stays_in_place(row):
        require_open_for(act)
        return correct_in_place(row, answers, now_s)
    with correcting(act, now_s) as made:
        tell_again(row, answers, now_s)
    return made


def _fields(row: Fact) -> Fields:
    return fields_in_place(row) if stays_in_place(row) else fields_of(row)


def _standing(act_id: int) -> tuple[Act, Fact]:
    act = act_numbered(act_id)
    if act is None:
        raise NotFound(f"there is no act {act_id}")
    if not tables_of(act.kind):
        raise Conflict("that is corrected on its own page, or undone and entered again")
    row = standing_single([act]).get(act_id)
    if row is None and several_stand(act):
        raise Conflict("several things were recorded at once: correct them on their own page")
    if row is None:
        raise Conflict("that was undone or corrected since: look at the newest entry of it")
    return act, row
