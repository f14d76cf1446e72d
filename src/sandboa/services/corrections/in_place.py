"""For each thing that other records point to: its fields, and the command that corrects it.

It stays the same thing in a new version, so that what points to it still does.
"""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Final

from sandboa.records.animals import Lock, Pairing
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.facts import Act, Fact
from sandboa.records.house import Probe, ProbeMove, Task
from sandboa.records.notes import Note
from sandboa.records.photos import Photo
from sandboa.services.acts.checklists import correct_tick
from sandboa.services.breeding.pairings import PairingTimes, correct_pairing
from sandboa.services.clutches.photos import correct_photo
from sandboa.services.corrections.fields import (
    Answers,
    FieldKind,
    Fields,
    RecordField,
    choice_field,
    moment_field,
)
from sandboa.services.corrections.things import place_words, places_to_hang
from sandboa.services.notes.commands import correct_note
from sandboa.services.probes.commands import ProbePlace
from sandboa.services.probes.corrections import correct_first_place, correct_probe_move

#: Where a probe hangs that was taken down.
_NOWHERE: Final = "nowhere: taken down"
#: What a photo is of that is of no egg.
_WHOLE: Final = "the clutch"


def stays_in_place(row: Fact) -> bool:
    """Whether a thing is corrected in place; others are told anew."""
    return type(row) in _IN_PLACE


def fields_in_place(row: Any) -> Fields:
    """The fields of a recorded thing as it stands."""
    return _IN_PLACE[type(row)].fields(row)


def correct_in_place(row: Any, answers: Answers, now_s: float) -> Act:
    """Record the thing's new version; raises as the command for it does."""
    return _IN_PLACE[type(row)].correct(row, answers, now_s)


@dataclass(frozen=True, slots=True)
class _Correctable:
    fields: Callable[[Any], Fields]
    correct: Callable[[Any, Answers, float], Act]


def _hangs(place: int | None, *, taken_down: bool) -> RecordField:
    words = _NOWHERE if place is None else place_words(place)
    choices = (*((_NOWHERE,) if taken_down else ()), *places_to_hang(place))
    return choice_field("place", "Hangs in", words, choices)


def _place(row: Probe | ProbeMove, said: Answers) -> ProbePlace | None:
    chosen = said.choice("place")
    return None if chosen == _NOWHERE else places_to_hang(row.place_id)[chosen]


def _pairing_fields(row: Pairing) -> Fields:
    until_s = None if row.until_s is None else float(row.until_s)
    until = RecordField("until", "Parted, if they are", FieldKind.MOMENT, until_s, required=False)
    lock = _only_lock(row)
    seen = () if lock is None else (moment_field("lock", "Lock seen", lock.seen_s),)
    return moment_field("from", "Together from", row.from_s), until, *seen


def _pairing(row: Pairing, said: Answers, now_s: float) -> Act:
    lock_s = None if _only_lock(row) is None else said.moment("lock")
    times = PairingTimes(said.moment("from"), said.moment_or_none("until"), lock_s)
    return correct_pairing(row.entity_id, times, now_s)


def _only_lock(row: Pairing) -> Lock | None:
    """The lock seen during a visit; None for no lock, and for several: each has its own line."""
    locks = Lock.current(pairing_id=row.entity_id)
    return locks[0] if len(locks) == 1 else None


def _first_place(row: Probe, said: Answers, now_s: float) -> Act:
    place = _place(row, said)
    assert place is not None, "a probe is not hung nowhere at first"
    return correct_first_place(row.entity_id, place, said.moment("at"), now_s)


def _photo_fields(row: Photo) -> Fields:
    taken = moment_field("at", "Taken", row.taken_s)
    if Clutch.now(row.owner_id) is None:
        return (taken,)
    numbers = sorted(egg.number for egg in Egg.current(clutch_id=row.owner_id))
    choices = (_WHOLE, *(f"egg {number}" for number in numbers))
    shown = _WHOLE if row.egg_number is None else f"egg {row.egg_number}"
    return choice_field("of", "Shows", shown, choices), taken


def _photo(row: Photo, said: Answers, now_s: float) -> Act:
    egg = row.egg_number
    if any(field.name == "of" for field in said.fields):
        chosen = said.choice("of")
        egg = None if chosen == _WHOLE else int(chosen.removeprefix("egg "))
    return correct_photo(row.entity_id, egg, said.moment("at"), now_s)


_IN_PLACE: Final[Mapping[type[Fact], _Correctable]] = {
    Pairing: _Correctable(_pairing_fields, _pairing),
    Probe: _Correctable(
        lambda row: (
            _hangs(row.place_id, taken_down=False),
            moment_field("at", "Since", row.since_s),
        ),
        _first_place,
    ),
    ProbeMove: _Correctable(
        lambda row: (
            _hangs(row.place_id, taken_down=True),
            moment_field("at", "Since", row.from_s),
        ),
        lambda row, said, now_s: correct_probe_move(
            row.entity_id, _place(row, said), said.moment("at"), now_s
        ),
    ),
    Photo: _Correctable(_photo_fields, _photo),
    Note: _Correctable(
        lambda row: (
            RecordField("text", "Note", FieldKind.WORDS, row.text),
            moment_field("at", "Of", row.at_s),
        ),
        lambda row, said, now_s: correct_note(
            row.entity_id, said.text("text"), said.moment("at"), now_s
        ),
    ),
    Task: _Correctable(
        lambda row: (moment_field("at", "Done", row.done_s),),
        lambda row, said, now_s: correct_tick(row.entity_id, said.moment("at"), now_s),
    ),
}
