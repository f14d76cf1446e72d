"""Past clutches as they are recorded: listed, corrected, taken away."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM, SIRE
from sandboa.core.clutch_count import ClutchCount
from sandboa.core.past_clutches.card import ClutchCard, check_past_clutch
from sandboa.records.clutches import PastClutch
from sandboa.records.facts import Act
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.recording import act
from sandboa.services.acts.revisions import Form
from sandboa.services.animals.commands import animal_named, find_animal
from sandboa.services.lay_day.day import require_two
from sandboa.services.old_records.lines import ClutchLine
from sandboa.services.old_records.store import values_of
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class PastClutchEntry:
    """A past clutch and its id, with its parents by name."""

    id: int
    line: ClutchLine


def past_clutches(snapshot: Snapshot) -> list[PastClutchEntry]:
    """Those of the house, the latest first."""
    names = {entity: row.name for entity, row in snapshot.animals.items()}
    return [
        PastClutchEntry(row.entity_id, _line(row, names))
        for row in reversed(snapshot.past_clutches)
    ]


def past_clutch_form(entity: int) -> Form:
    """What the form of a past clutch holds now; NotFound where there is none."""
    row = _row(entity)
    parents = [find_animal(own) for own in (row.dam_id, row.sire_id) if own is not None]
    return form_of_past(_line(row, {animal.entity_id: animal.name for animal in parents}))


def form_of_past(line: ClutchLine) -> Form:
    """A past clutch as its form has it: days and the count as texts, °C."""
    told = line.told
    return {
        "dam": line.dam,
        "sire": line.sire,
        "laid": told.laid.isoformat(),
        "count": str(told.count),
        "hatched": told.hatched,
        "first_pip": None if told.first_pip is None else told.first_pip.isoformat(),
        "kept_c": told.kept_c,
        "code": line.code,
    }


def correct_past_clutch(entity: int, line: ClutchLine, now_s: float) -> Act:
    """Correct a past clutch; what was recorded before stays in the log.

    A dam or sire that is not known is recorded. Raises NotFound; NotPlausible at its field for what
    cannot be; Conflict for a name that belongs to an animal of the other role.
    """
    row = _row(entity)
    check_past_clutch(line.told, now_s)
    require_two(line.dam, line.sire)
    with act(ActKind.OLD_RECORDS, "", now_s) as correcting:
        dam = animal_named(correcting, DAM, line.dam)
        sire = None if line.sire is None else animal_named(correcting, SIRE, line.sire)
        values = values_of(line, dam.entity_id, sire.entity_id if sire else None)
        row.correct(correcting, **values)
        correcting.say(f"Past clutch {line.told.count} of {dam.name} corrected")
        correcting.is_of_no_moment()
    return correcting


def remove_past_clutch(entity: int, now_s: float) -> Act:
    """Take a past clutch away again; NotFound where there is none."""
    row = _row(entity)
    dam = find_animal(row.dam_id)
    words = f"Past clutch {row.eggs}-{row.slugs} of {dam.name} taken away"
    with act(ActKind.OLD_RECORDS, words, now_s) as removing:
        row.retire(removing)
    return removing


def _row(entity: int) -> PastClutch:
    row = PastClutch.now(entity)
    if row is None:
        raise NotFound("there is no such past clutch")
    return row


def _line(row: PastClutch, names: dict[int, str]) -> ClutchLine:
    pipped = row.first_pip_s
    told = ClutchCard(
        datetime.fromtimestamp(row.laid_s, UTC).date(),
        ClutchCount(row.eggs, row.slugs),
        row.hatched,
        None if pipped is None else datetime.fromtimestamp(pipped, UTC).date(),
        row.kept_c,
    )
    sire = None if row.sire_id is None else names[row.sire_id]
    return ClutchLine(names[row.dam_id], sire, told, row.code)
