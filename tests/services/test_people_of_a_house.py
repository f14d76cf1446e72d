"""People as facts: undone, done again, renamed; and what lets them in, which is none."""

import pytest

from samples import NOW_S, lay_day
from sandboa.core.act_kinds import ActKind, Touch
from sandboa.core.errors import NotPlausible
from sandboa.core.people import Role
from sandboa.records.people import Passphrase, Session, person_called, recorded_by
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.log import house_log
from sandboa.services.acts.recording import touched_by_undoing, undo
from sandboa.services.lay_day import lay_clutch
from sandboa.services.people.commands import add_person, change_person, find_person, remove_person
from sandboa.services.people.private_link import link_of, make_link
from sandboa.services.people.signing_in import (
    NotSignedIn,
    set_passphrase,
    sign_in,
    sign_out,
    someone_signs_in,
    whose,
)
from sandboa.services.people.views import people_now
from sandboa.services.snapshot.cache import SnapshotCache

PHRASE = "beeswax ladder harbour mint"


def keeper(name: str = "Rowan") -> int:
    """A keeper with a passphrase, by entity."""
    person, _ = add_person(name, Role.KEEPER, NOW_S)
    set_passphrase(person.entity_id, PHRASE, NOW_S)
    return person.entity_id


def names() -> list[str]:
    return [now.person.name for now in people_now()]


def test_people_are_undone_and_done_again_like_any_fact(house: SnapshotCache) -> None:
    _, act = add_person("Linden", Role.HELPER, NOW_S)
    undoing = undo(act.id, NOW_S)
    assert names() == []
    undo(undoing.id, NOW_S)
    assert names() == ["Linden"]
    entity = find_person(people_now()[0].person.entity_id).entity_id
    changed = change_person(entity, "Linden the Elder", Role.VISITOR, NOW_S)
    undo(changed.id, NOW_S)
    assert (names(), person_called("LINDEN").role) == (["Linden"], Role.HELPER)


def test_two_people_have_two_names(house: SnapshotCache) -> None:
    add_person("Linden", Role.HELPER, NOW_S)
    other, _ = add_person("Aspen", Role.VISITOR, NOW_S)
    for name in ("Linden", "  lINDEN "):
        with pytest.raises(Conflict, match="there is a Linden already"):
            add_person(name, Role.HELPER, NOW_S)
        with pytest.raises(Conflict, match="already"):
            change_person(other.entity_id, name, Role.VISITOR, NOW_S)
    # One's own name in other letters is no other person's.
    change_person(other.entity_id, "ASPEN", Role.VISITOR, NOW_S)
    with pytest.raises(NotPlausible, match="give a name"):
        add_person(" ", Role.HELPER, NOW_S)
    with pytest.raises(NotFound):
        change_person(4_242, "Nobody", Role.HELPER, NOW_S)


def test_a_removed_person_comes_back_without_a_way_in(house: SnapshotCache) -> None:
    keeper()
    helper, _ = add_person("Linden", Role.HELPER, NOW_S)
    set_passphrase(helper.entity_id, PHRASE, NOW_S)
    token = sign_in("Linden", PHRASE, "a phone", NOW_S)
    make_link(helper.entity_id, NOW_S)
    removed = remove_person(helper.entity_id, NOW_S)
    assert whose(token, NOW_S) is None
    assert link_of(helper.entity_id) is None
    with pytest.raises(NotSignedIn):
        sign_in("Linden", PHRASE, "a phone", NOW_S)
    undo(removed.id, NOW_S)
    (back,) = (now for now in people_now() if now.person.name == "Linden")
    assert (back.can_sign_in, back.sessions) == (False, 0)


def test_a_name_given_away_meanwhile_stops_the_undo(house: SnapshotCache) -> None:
    first, _ = add_person("Linden", Role.HELPER, NOW_S)
    removed = remove_person(first.entity_id, NOW_S)
    add_person("Linden", Role.VISITOR, NOW_S)
    with pytest.raises(Conflict, match="given to something else"):
        undo(removed.id, NOW_S)
    assert person_called("linden").role == Role.VISITOR


def test_some_keeper_always_has_the_key(house: SnapshotCache) -> None:
    rowan = keeper()
    for refused in (
        lambda: remove_person(rowan, NOW_S),
        lambda: change_person(rowan, "Rowan", Role.HELPER, NOW_S),
        lambda: undo(house_log()[-1].act.id, NOW_S),
    ):
        with pytest.raises(Conflict, match="somebody must stay keeper"):
            refused()
        assert names() == ["Rowan"]
        assert someone_signs_in()
    # A second keeper without a passphrase is none who could open.
    add_person("Hazel", Role.KEEPER, NOW_S)
    with pytest.raises(Conflict, match="somebody must stay keeper"):
        change_person(rowan, "Rowan", Role.VISITOR, NOW_S)
    set_passphrase(person_called("Hazel").entity_id, PHRASE, NOW_S)
    change_person(rowan, "Rowan", Role.VISITOR, NOW_S)


def test_a_passphrase_is_replaced_and_ends_what_began_with_it(house: SnapshotCache) -> None:
    rowan = keeper()
    token = sign_in("rowan", PHRASE, "a desk", NOW_S)
    before = Passphrase.get_by_id(rowan).hash
    set_passphrase(rowan, PHRASE, NOW_S)
    # The same words, another salt; and whoever was in is out.
    assert Passphrase.get_by_id(rowan).hash != before
    assert whose(token, NOW_S) is None
    assert Passphrase.select().count() == 1


def test_a_weak_one_changes_nothing(house: SnapshotCache) -> None:
    rowan = keeper()
    token = sign_in("Rowan", PHRASE, "a desk", NOW_S)
    with pytest.raises(NotPlausible):
        set_passphrase(rowan, "short", NOW_S)
    assert whose(token, NOW_S).name == "Rowan"


def test_letters_are_the_same_however_they_are_composed(house: SnapshotCache) -> None:
    person, _ = add_person("Rowan", Role.KEEPER, NOW_S)
    set_passphrase(person.entity_id, "café, straße, vier Eier", NOW_S)
    assert sign_in("Rowan", "cafe\u0301, straße, vier Eier", "a phone", NOW_S)
    with pytest.raises(NotSignedIn):
        sign_in("Rowan", "cafe, straße, vier Eier", "a phone", NOW_S)


def test_a_long_guess_is_cut_and_not_hashed_whole(house: SnapshotCache) -> None:
    keeper()
    with pytest.raises(NotSignedIn):
        sign_in("Rowan", "x" * 100_000, "y" * 100_000, NOW_S)
    sign_in("Rowan", PHRASE, "y" * 100_000, NOW_S)
    assert len(Session.get().device) == 200


def test_sessions_end_one_by_one(house: SnapshotCache) -> None:
    keeper()
    desk, phone = (sign_in("Rowan", PHRASE, device, NOW_S) for device in ("a desk", "a phone"))
    assert desk != phone
    sign_out(desk)
    sign_out("none of ours")
    assert whose(desk, NOW_S) is None
    assert whose(phone, NOW_S).name == "Rowan"
    for nothing in (None, "", "guessed"):
        assert whose(nothing, NOW_S) is None


def test_an_act_bears_the_name_of_whoever_was_asked_for(house: SnapshotCache) -> None:
    rowan = keeper()
    token = recorded_by.set(rowan)
    try:
        lay_clutch(lay_day(), NOW_S)
    finally:
        recorded_by.reset(token)
    undo(house_log()[0].act.id, NOW_S)
    assert [entry.by for entry in house_log()][:2] == [None, "Rowan"]
    # Renamed, it is told by the name the person has now.
    change_person(rowan, "Rowan the Elder", Role.KEEPER, NOW_S)
    assert house_log()[2].by == "Rowan the Elder"


def test_an_undo_of_an_undo_is_still_about_what_it_began_with(house: SnapshotCache) -> None:
    _, act = add_person("Linden", Role.HELPER, NOW_S)
    again = undo(undo(act.id, NOW_S).id, NOW_S)
    assert touched_by_undoing(again.id) is ActKind.PERSON.touches
    assert touched_by_undoing(4_242) is Touch.NOTHING
