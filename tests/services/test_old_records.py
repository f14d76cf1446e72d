"""Ten years of cards: taken in by one act, counted, learned from, and taken back by one."""

from dataclasses import replace
from datetime import date, timedelta

import pytest

from samples import DAY_S, NOW_S, animal, lay_day
from sandboa.core.clutch_count import ClutchCount
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.raising import Departure
from sandboa.core.past_clutches.card import ClutchCard, noon_s
from sandboa.records.animals import Pairing, Weight
from sandboa.records.clutches import PastClutch
from sandboa.records.facts import Act
from sandboa.records.house import Animal
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import undo
from sandboa.services.animals.commands import AnimalCommand, correct_animal, weigh
from sandboa.services.animals.leaving import leave_house
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.lay_day import lay_clutch
from sandboa.services.moment.lessons import lessons
from sandboa.services.old_records.checks import State, check_records
from sandboa.services.old_records.lines import (
    AnimalLine,
    ClutchLine,
    OldLine,
    PairingLine,
    WeightLine,
)
from sandboa.services.old_records.names import NameChoice, key_of
from sandboa.services.old_records.past_clutches import (
    correct_past_clutch,
    past_clutches,
    remove_past_clutch,
)
from sandboa.services.old_records.store import store_records
from sandboa.services.seasons.counted import counted_clutches
from sandboa.services.seasons.views import season_page
from sandboa.services.snapshot.cache import SnapshotCache
from sandboa.words import SI_READER, sentence

LAID = date(2019, 6, 12)


def card(
    dam: str = "Sorrel",
    laid: date = LAID,
    count: str = "7-2",
    hatched: int | None = 5,
    pip_days: int | None = 58,
    sire: str | None = "Flint",
) -> ClutchLine:
    """A clutch as its card tells it."""
    eggs, slugs = map(int, count.split("-"))
    pip = None if pip_days is None else laid + timedelta(days=pip_days)
    return ClutchLine(dam, sire, ClutchCard(laid, ClutchCount(eggs, slugs), hatched, pip))


def warm(line: ClutchLine) -> ClutchLine:
    """The card, with what it was kept at."""
    return replace(line, told=replace(line.told, kept_c=31.5))


def store(*lines: OldLine, **names: NameChoice) -> Act:
    """Lines stored now, with answers for names of dams."""
    return store_records(lines, {key_of(n, "dam"): own for n, own in names.items()}, NOW_S)


def states(*lines: OldLine) -> list[State]:
    checked = check_records(lines, {}, NOW_S).lines
    return [one.state for one in checked if one is not None]


def test_three_hundred_clutches_come_in_by_one_act_and_go_by_one(house: SnapshotCache) -> None:
    animal("dam", "Sorrel")
    dams = ["Sorrel", *(f"{word} {n}" for word in ("Tansy", "Heron", "Quill") for n in range(10))]
    cards = [
        card(dam, date(2015 + year, 6, 1 + place), pip_days=57 if year % 2 else None)
        for year in range(10)
        for place, dam in enumerate(dams[:30])
    ]
    stored = store(*cards)
    assert str(stored.said) == "Old records: 300 clutches, 30 new animals"
    assert len(past_clutches(house.current())) == 300
    assert len(Animal.current()) == 31
    assert len(lessons(house.current()).finished) == 150
    assert Act.select().count() == 2
    undo(stored.id, NOW_S)
    assert past_clutches(house.current()) == []
    assert [row.name for row in Animal.current()] == ["Sorrel"]
    assert lessons(house.current()).finished == ()


def test_past_clutches_count_where_they_can(house: SnapshotCache) -> None:
    store(card(), card("Tansy", count="6-0", hatched=None, pip_days=None, sire=None))
    page = season_page(house.current(), None, NOW_S)
    assert (page.years, page.past, page.waiting, page.lost) == ((2019,), 2, 0, 0)
    # Of the second nobody knows how many hatched: of slugs it counts all the same.
    assert (page.hatched.k, page.hatched.n, page.hatched.clutches) == (5, 5, 1)
    assert (page.slug_rates.in_all.k, page.slug_rates.in_all.n) == (2, 13)
    assert [(own.dam, own.counts) for own in page.slugs] == [
        ("Sorrel", ("7-2",)), ("Tansy", ("6-0",)),
    ]  # fmt: skip
    groups = {name for c in counted_clutches(house.current(), NOW_S) for name in c.groups.values()}
    assert groups == {"Sorrel", "Tansy", "Flint", "June"}
    assert [c.count.slugs for c in house.current().herd.clutches_of(animal_id("Flint"))] == [2]


def animal_id(name: str) -> int:
    return next(row.entity_id for row in Animal.current() if row.name == name)


def test_cards_with_pips_move_a_forecast_and_those_without_do_not(house: SnapshotCache) -> None:
    lay_clutch(lay_day(10.0), NOW_S)

    def middle_s() -> float:
        forecast = clutch_page(house.current(), "26-01", NOW_S).now.forecast
        return (forecast.last_pip.p10 + forecast.last_pip.p90) / 2.0

    before_s = middle_s()
    years = [LAID.replace(year=year) for year in range(2012, 2020)]
    stored = store(*(card(laid=laid, pip_days=None) for laid in years))
    assert middle_s() == before_s
    undo(stored.id, NOW_S)
    unsure = store(*(card(laid=laid, pip_days=54) for laid in years))
    unsure_s = middle_s()
    undo(unsure.id, NOW_S)
    store(*(warm(card(laid=laid, pip_days=54)) for laid in years))
    learned = clutch_page(house.current(), "26-01", NOW_S).now
    assert middle_s() < unsure_s < before_s
    assert middle_s() < before_s - DAY_S / 3
    assert learned.learned.clutches == 8


def test_a_clutch_told_twice_is_shown_and_left_out(house: SnapshotCache) -> None:
    lay_clutch(lay_day(10.0), NOW_S)
    laid = date(2026, 6, 6)
    store(card())
    again = [card(laid=LAID + timedelta(days=2)), card(laid=laid, pip_days=None, hatched=None)]
    fresh = card("Tansy")
    checked = check_records([*again, fresh, fresh], {}, NOW_S).lines
    assert [one.state for one in checked if one] == [
        State.KNOWN, State.KNOWN, State.NEW, State.KNOWN,
    ]  # fmt: skip
    told = [str(one.words) for one in checked if one]
    assert "7-2, a past clutch" in told[0]
    assert "clutch 26-01" in told[1]
    assert "a line above" in told[3]
    store(*again, fresh, fresh)
    assert len(PastClutch.current()) == 2
    with pytest.raises(Conflict, match="recorded already"):
        store(*again)
    # It is another one, if the keeper says so.
    store_records(again, {}, NOW_S, doubles=[0])
    assert len(PastClutch.current()) == 3


def test_names_are_matched_asked_about_or_made(house: SnapshotCache) -> None:
    sorrel = animal("dam", "Sorrel", code="S1")
    animal("sire", "Flint")
    assert [n.asked for n in check_records([card("sorrel")], {}, NOW_S).names] == [False, False]
    assert check_records([card("S1")], {}, NOW_S).names[0].animal == sorrel
    checked = check_records([card("Sorel")], {}, NOW_S)
    assert checked.asked
    assert checked.names[0].near == ((sorrel, "Sorrel"),)
    with pytest.raises(Conflict, match="misspelt"):
        store(card("Sorel"))
    store(card("Sorel"), Sorel=NameChoice(animal=sorrel))
    assert len(Animal.current()) == 2
    store(card("Sorel"), Sorel=NameChoice(new_role="dam"))
    assert {row.name for row in Animal.current(role="dam")} == {"Sorrel", "Sorel"}


def test_a_dam_who_is_recorded_as_a_sire_is_asked_about(house: SnapshotCache) -> None:
    animal("sire", "Flint")
    checked = check_records([card("Flint", sire=None)], {}, NOW_S)
    assert "Flint is recorded as a sire" in checked.names[0].why
    with pytest.raises(Conflict, match="recorded as a sire"):
        store(card("Flint", sire=None), Flint=NameChoice(new_role="dam"))
    assert PastClutch.current() == []


@pytest.mark.parametrize(
    ("line", "field"),
    [
        (card(laid=date(2030, 1, 1)), "laid"),
        (card(hatched=6), "hatched"),
        (card(pip_days=20), "first_pip"),
        (card(sire="sorrel"), "sire"),
        (WeightLine("Sorrel", LAID, 9.0), "mass_g"),
        (WeightLine("Sorrel", date(2030, 1, 1), 1900.0), "day"),
        (PairingLine("Sorrel", "Flint", LAID, LAID - timedelta(days=1)), "end"),
        (AnimalLine("Sorrel", "sire"), "role"),
        (AnimalLine("New", "dam", hatch_year=1890), "hatch_year"),
        (AnimalLine("New", "dam", code="S1"), "code"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place_and_nothing_is_stored(
    house: SnapshotCache, line: OldLine, field: str
) -> None:
    animal("dam", "Sorrel", code="S1")
    acts = Act.select().count()
    (checked,) = check_records([line], {}, NOW_S).lines
    assert checked is not None
    assert checked.state is State.REFUSED
    assert checked.problems[0][0] == field
    with pytest.raises(Conflict):
        store(card("Tansy"), line)
    assert Act.select().count() == acts
    assert PastClutch.current() == []


def test_animals_come_with_their_parents_whatever_the_order(house: SnapshotCache) -> None:
    store(
        AnimalLine("Wren", "dam", "W2", 2021, "Pastel", dam="Sorrel", sire="Flint"),
        AnimalLine("Sorrel", "dam", hatch_year=2015, dam="Old Meg"),
        AnimalLine("sorrel", "dam"),
        AnimalLine("Flint", "sire"),
    )
    rows = {row.name: row for row in Animal.current()}
    assert set(rows) == {"Wren", "Sorrel", "Flint", "Old Meg"}
    assert rows["Wren"].dam_id == rows["Sorrel"].entity_id
    assert rows["Wren"].sire_id == rows["Flint"].entity_id
    assert rows["Sorrel"].dam_id == rows["Old Meg"].entity_id
    assert (rows["Wren"].code, rows["Wren"].hatch_year, rows["Wren"].traits) == (
        "W2", 2021, "Pastel",
    )  # fmt: skip


def test_nobody_is_their_own_ancestor(house: SnapshotCache) -> None:
    with pytest.raises(Conflict, match="descended from"):
        store(AnimalLine("Wren", "dam", dam="Heron"), AnimalLine("Heron", "dam", dam="Wren"))
    assert Animal.current() == []


def test_weights_and_visits_of_before(house: SnapshotCache) -> None:
    sorrel = animal("dam", "Sorrel")
    weigh(sorrel, 1900.0, noon_s(date(2020, 3, 1)), NOW_S)
    lines = (
        WeightLine("Sorrel", date(2020, 3, 1), 1900.2),
        WeightLine("Sorrel", date(2020, 4, 1), 400.0),
        WeightLine("Sorrel", date(2016, 4, 1), 90.0),
        PairingLine("Sorrel", "Flint", date(2018, 12, 1), date(2018, 12, 3)),
        PairingLine("Sorrel", "Flint", date(2018, 12, 3)),
    )
    assert states(*lines) == [State.KNOWN, State.NEW, State.NEW, State.NEW, State.KNOWN]
    odd = check_records(lines, {}, NOW_S).lines[1]
    assert odd is not None
    assert str(odd.words) == "1900 g before: is that right?"
    stored = store(*lines)
    assert str(stored.said) == "Old records: 2 weights, 1 pairing, 1 new animal"
    assert sorted(row.mass_g for row in Weight.current()) == [90.0, 400.0, 1900.0]
    (visit,) = Pairing.current()
    assert (visit.from_s, visit.until_s) == (
        noon_s(date(2018, 12, 1)), noon_s(date(2018, 12, 3)),
    )  # fmt: skip


def test_a_dam_lays_nothing_after_she_left(house: SnapshotCache) -> None:
    sorrel = animal("dam", "Sorrel")
    leave_house(sorrel, Departure.SOLD, "", noon_s(date(2019, 1, 1)), NOW_S)
    assert states(card(), card(laid=date(2018, 6, 1))) == [State.REFUSED, State.NEW]


def test_a_past_clutch_is_corrected_and_taken_away(house: SnapshotCache) -> None:
    store(card())
    (past,) = past_clutches(house.current())
    correcting = correct_past_clutch(past.id, card("Tansy", count="8-1", hatched=7), NOW_S)
    (after,) = past_clutches(house.current())
    assert (after.id, after.line.dam, str(after.line.told.count)) == (past.id, "Tansy", "8-1")
    undo(correcting.id, NOW_S)
    assert past_clutches(house.current()) == [past]
    with pytest.raises(NotPlausible):
        correct_past_clutch(past.id, card(hatched=9), NOW_S)
    taken = remove_past_clutch(past.id, NOW_S)
    assert past_clutches(house.current()) == []
    with pytest.raises(NotFound):
        remove_past_clutch(past.id, NOW_S)
    undo(taken.id, NOW_S)
    assert past_clutches(house.current()) == [past]


def test_an_animal_of_a_past_clutch_keeps_its_role(house: SnapshotCache) -> None:
    store(card())
    with pytest.raises(Conflict, match="cannot change"):
        correct_animal(animal_id("Flint"), AnimalCommand("dam", "Flint"), NOW_S)


def test_an_animal_that_more_was_recorded_of_stays_when_its_list_is_taken_back(
    house: SnapshotCache,
) -> None:
    stored = store(card())
    weigh(animal_id("Sorrel"), 1900.0, NOW_S, NOW_S)
    undo(stored.id, NOW_S)
    assert [row.name for row in Animal.current()] == ["Sorrel"]
    assert PastClutch.current() == []


def test_one_name_for_a_dam_and_a_sire_is_asked_about(house: SnapshotCache) -> None:
    """Else the sire of one clutch would be the dam of another."""
    lines = [card("Ember", sire=None), card("Tansy", sire="ember")]
    checked = check_records(lines, {}, NOW_S)
    assert checked.asked
    assert "as a dam and as a sire" in checked.names[-1].why
    with pytest.raises(Conflict, match="as a dam and as a sire"):
        store(*lines)
    assert Animal.current() == []


def test_an_answer_of_the_other_role_is_none(house: SnapshotCache) -> None:
    animal("dam", "Sorrel")
    flint = animal("sire", "Flint")
    with pytest.raises(Conflict, match="misspelt"):
        store(card("Sorel"), Sorel=NameChoice(animal=flint))
    assert PastClutch.current() == []


def test_a_refused_line_is_told_in_words_for_its_reader(house: SnapshotCache) -> None:
    sorrel = animal("dam", "Sorrel")
    leave_house(sorrel, Departure.SOLD, "", noon_s(date(2019, 1, 1)), NOW_S)
    with pytest.raises(Conflict) as refused:
        store(card("Tansy"), card())
    told = sentence(refused.value.reason, SI_READER)
    assert told == "line 2: Sorrel left the house on 1 Jan 2019"


def test_a_list_happened_when_it_was_recorded(house: SnapshotCache) -> None:
    """It is of many days: none of them is when somebody did it."""
    stored = store(card(), card("Tansy", laid=date(2018, 6, 1)))
    assert Act.get_by_id(stored.id).at_s is None
    past = past_clutches(house.current())[0]
    correcting = correct_past_clutch(past.id, card(count="8-1"), NOW_S)
    assert Act.get_by_id(correcting.id).at_s is None
