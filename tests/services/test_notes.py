"""Notes on everything: in its log, found by words, corrected, and with photos."""

from dataclasses import replace

import pytest

from boxes import visit
from samples import DAY_S, NOW_S, animal
from sandboa.core.errors import NotPlausible
from sandboa.records.animals import Pairing
from sandboa.records.facts import Act
from sandboa.records.notes import Note
from sandboa.records.rounds import Visit
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.log import log_about
from sandboa.services.acts.recording import undo
from sandboa.services.breeding.pairings import begin_pairing
from sandboa.services.clutches.photos import PhotoCommand, Picture, attach
from sandboa.services.notes.commands import correct_note, take_note_away, write_note
from sandboa.services.notes.views import find_notes, notes_about
from sandboa.services.rounds.correct_visit import correct_visit
from sandboa.services.rounds.recorded_visit import recorded_visit
from sandboa.services.snapshot.cache import SnapshotCache


def things(house: SnapshotCache) -> dict[str, int]:
    """Ids of one of each kind of thing that takes notes, by what it is called."""
    facts = house.current()
    clutch = facts.clutches[0]
    begin_pairing(clutch.dam_id, clutch.sire_id or 0, NOW_S - DAY_S, NOW_S)
    seen = visit("noted", days_ago=1.0).act
    (pairing,) = Pairing.current()
    (recorded,) = Visit.current(act_id=seen.id)
    return {
        "Sorrel": clutch.dam_id,
        "26-01": clutch.entity_id,
        "egg 26-01/3": facts.eggs[clutch.entity_id][2].entity_id,
        "box 26-01": facts.box_called("26-01").entity_id,
        "North": next(iter(facts.cabinets)),
        "pairing of Sorrel and Flint": pairing.entity_id,
        "visit to 26-01": recorded.entity_id,
    }


def test_everything_takes_a_note_that_stands_in_its_log(six: SnapshotCache) -> None:
    for name, about in things(six).items():
        note, act = write_note(about, f"Remember {name}", NOW_S - 3600, NOW_S)
        assert str(act.said) == f"Note on {name}: Remember {name}"
        assert act.at_s == NOW_S - 3600
        assert [view.note.entity_id for view in notes_about(about)] == [note]
    egg = things_of_egg(six)
    assert [e.act.kind for e in log_about(egg)][:1] == ["note"]
    box = six.current().box_called("26-01").entity_id
    kinds = [entry.act.kind for entry in log_about(box)]
    assert kinds.count("note") == 3, "of the box, its egg and the visit to it"


def things_of_egg(house: SnapshotCache) -> int:
    facts = house.current()
    return facts.eggs[facts.clutches[0].entity_id][2].entity_id


def test_they_are_found_by_their_words_and_by_what_they_are_about(six: SnapshotCache) -> None:
    known = things(six)
    write_note(known["egg 26-01/3"], "A spot on top,\nperhaps mould", NOW_S - 2 * DAY_S, NOW_S)
    write_note(known["North"], "Fan rattles", NOW_S - DAY_S, NOW_S)
    assert [view.about.name for view in find_notes("", 10)] == ["North", "egg 26-01/3"]
    assert [view.about.name for view in find_notes("MOULD spot", 10)] == ["egg 26-01/3"]
    assert [view.about.name for view in find_notes("26-01/3", 10)] == ["egg 26-01/3"]
    assert find_notes("mould fan", 10) == []
    assert len(find_notes("", 1)) == 1


def test_a_note_is_corrected_taken_away_and_each_undone(six: SnapshotCache) -> None:
    about = things(six)["26-01"]
    note, _ = write_note(about, "frist", NOW_S - DAY_S, NOW_S)
    correcting = correct_note(note, "first", NOW_S - 2 * DAY_S, NOW_S)
    (view,) = notes_about(about)
    assert (view.note.text, view.note.at_s) == ("first", NOW_S - 2 * DAY_S)
    undo(correcting.id, NOW_S)
    assert notes_about(about)[0].note.text == "frist"
    taking = take_note_away(note, NOW_S)
    assert notes_about(about) == []
    assert find_notes("frist", 10) == []
    undo(taking.id, NOW_S)
    assert notes_about(about)[0].note.text == "frist"


def test_a_note_has_photos_of_its_own(six: SnapshotCache) -> None:
    note, _ = write_note(things(six)["Sorrel"], "Her scale", NOW_S, NOW_S)
    picture = Picture(b"\xff\xd8\xff\xd9", b"\xff\xd8\xff\xd9", 1, 1)
    attach(PhotoCommand(note, picture, NOW_S), NOW_S)
    (view,) = find_notes("scale", 5)
    assert len(view.photos) == 1


def test_a_note_of_a_visit_is_told_corrected_and_undone_with_it(six: SnapshotCache) -> None:
    seen = visit("noted", days_ago=1.0, note="Smells of earth").act
    assert "noted: Smells of earth" in str(seen.said)
    (recorded,) = Visit.current(act_id=seen.id)
    held = recorded_visit(recorded.entity_id).visit
    assert held.note == "Smells of earth"
    correct_visit(recorded.entity_id, replace(held, note="Smells of nothing"), NOW_S)
    assert [v.note.text for v in notes_about(recorded.entity_id)] == ["Smells of nothing"]
    correct_visit(recorded.entity_id, replace(held, note=""), NOW_S)
    assert Note.current() == []


def test_bad_notes_are_refused_and_nothing_is_stored(six: SnapshotCache) -> None:
    about = things(six)["26-01"]
    before = Act.select().count()
    for text, at_s in (("", NOW_S), ("x" * 100_000, NOW_S), ("late", NOW_S + DAY_S)):
        with pytest.raises(NotPlausible):
            write_note(about, text, at_s, NOW_S)
    with pytest.raises(NotPlausible, match="too many"):
        visit("huge", days_ago=0.5, note="x" * 100_000)
    for nothing in (999_999, Act.select().count()):
        with pytest.raises(NotFound):
            write_note(nothing * 1_000, "words", NOW_S, NOW_S)
    with pytest.raises(NotFound):
        correct_note(999_999, "words", None, NOW_S)
    assert (Note.current(), Act.select().count()) == ([], before)


def test_a_note_of_what_was_undone_waits_for_it(six: SnapshotCache) -> None:
    seen = visit("noted", days_ago=1.0).act
    (recorded,) = Visit.current(act_id=seen.id)
    write_note(recorded.entity_id, "kept", NOW_S, NOW_S)
    undoing = undo(seen.id, NOW_S)
    assert find_notes("kept", 5) == []
    with pytest.raises(NotFound):
        notes_about(recorded.entity_id)
    undo(undoing.id, NOW_S)
    assert len(find_notes("kept", 5)) == 1


def test_an_animal_with_a_note_stays_when_its_pairing_goes(house: SnapshotCache) -> None:
    dam = animal("dam", "Tansy")
    write_note(dam, "Shy", NOW_S, NOW_S)
    assert [entry.act.kind for entry in log_about(dam)] == ["note", "animal"]
