"""What an act recorded, as a form and corrected: one thing, by the command that records it."""

from collections.abc import Mapping

from sandboa.core.errors import NotPlausible
from sandboa.records.facts import Act, Fact, act_numbered
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import correcting
from sandboa.services.acts.single_records import SINGLE, standing_single
from sandboa.services.corrections.fields import Answers, RecordField, Value
from sandboa.services.corrections.told_anew import fields_of, tell_again


def recorded_fields(act_id: int) -> tuple[RecordField, ...]:
    """The fields of what an act recorded, as it stands.

    Raises NotFound for an unknown act, Conflict for one that recorded several things, or whose
    thing was undone or corrected since.
    """
    _, row = _standing(act_id)
    return fields_of(row)


def correct_record(act_id: int, values: Mapping[str, Value], now_s: float) -> Act:
    """Correct what an act recorded; the earlier entry stays in the log.

    `values` are by field. Raises as `recorded_fields`; NotPlausible, with the field, for a value
    that cannot be or a field there is not, and as the command that records such a thing.
    Nothing is changed then.
    """
    act, row = _standing(act_id)
    fields = fields_of(row)
    strange = values.keys() - {field.name for field in fields}
    if strange:
        raise NotPlausible(min(strange), f'there is no "{min(strange)[:40]}" to correct here')
    held = {field.name: field.value for field in fields}
    with correcting(act, now_s) as made:
        tell_again(row, Answers(fields, {**held, **values}), now_s)
    return made


def _standing(act_id: int) -> tuple[Act, Fact]:
    act = act_numbered(act_id)
    if act is None:
        raise NotFound(f"there is no act {act_id}")
    if act.kind not in SINGLE:
        raise Conflict("that is corrected on its own page, or undone and entered again")
    row = standing_single([act]).get(act_id)
    if row is None:
        raise Conflict("that was undone or corrected since: look at the newest entry of it")
    return act, row
