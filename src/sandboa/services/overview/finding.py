"""Anything of the house by its name: clutches, eggs, boxes, animals, cabinets, probes, notes, and
what a keeper may want to do with them."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from itertools import islice
from typing import Final
from urllib.parse import quote

from sandboa.core.finding import Fit, fit
from sandboa.core.messages import Words
from sandboa.core.notes import beginning
from sandboa.services.clutches.clutch_view import boxes_standing
from sandboa.services.moment.as_of import at_hand
from sandboa.services.notes.about import About
from sandboa.services.notes.views import find_notes
from sandboa.services.snapshot.snapshot import Snapshot

#: Characters of what is sought that are looked at (assumption: longer is pasted by mistake).
LONGEST_SOUGHT: Final = 80
#: Notes among what is found at most: the rest is at Notes (assumption).
_NOTES: Final = 5
#: "26-04/3", "26-04 egg 3": an egg by its clutch and number.
_EGG: Final = re.compile(
    r"(?P<code>.+?)\s*(?:/|\s+egg\s+)\s*(?P<number>\d{1,4})\s*$", re.IGNORECASE
)
#: What is done at a box, by the words a keeper may begin with.
_AT_A_BOX: Final = ("open", "visit", "top up", "water", "weigh", "candle", "air", "grade")
#: What is done with an animal, and in a cabinet.
_WITH_AN_ANIMAL: Final = ("weigh", "feed", "pair")
_IN_A_CABINET: Final = ("set point", "hang a probe", "move a box")


class Kind(StrEnum):
    """What is found, in the order in which equal fits are told."""

    ACT = "act"
    CLUTCH = "clutch"
    EGG = "egg"
    BOX = "box"
    ANIMAL = "animal"
    CABINET = "cabinet"
    PROBE = "probe"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Found:
    """Something found: what it is called, more about it, and the path of its page."""

    kind: Kind
    name: str
    about: Words
    place: str


def find(snapshot: Snapshot, sought: str, as_of_s: float, limit: int) -> list[Found]:
    """What answers `sought`, the best first; of equal ones the latest clutch first.

    Nothing for no words. What is closed or gone is found too, after what is there.
    """
    sought = " ".join(sought[:LONGEST_SOUGHT].split())
    ranked = (
        (how, later, list(Kind).index(found.kind), number, found)
        for number, (how, later, found) in enumerate(_all(snapshot, sought, as_of_s))
    )
    return [found for *_, found in islice(sorted(ranked, key=lambda one: one[:4]), limit)]


#: How well it answers, whether it is over, and what it is.
_Ranked = tuple[Fit, bool, Found]


def _all(snapshot: Snapshot, sought: str, as_of_s: float) -> Iterator[_Ranked]:
    if not sought:
        return
    yield from _acts(snapshot, sought, as_of_s)
    yield from _eggs(snapshot, sought, as_of_s)
    for source in (_clutches, _boxes, _animals, _cabinets, _probes):
        for over, beside, found in source(snapshot, as_of_s):
            how = fit(found.name, sought, beside)
            if how is not None:
                yield how, over, found
    for view in find_notes(sought, _NOTES):
        yield Fit.BESIDE, False, _note(view.note.text, view.about)


#: Whether it is over, more words it is found by, and what it is.
_Candidate = tuple[bool, str, Found]


def _clutches(snapshot: Snapshot, as_of_s: float) -> Iterator[_Candidate]:
    for clutch in reversed(snapshot.clutches):
        parents = [
            snapshot.animals[own].name for own in (clutch.dam_id, clutch.sire_id) if own is not None
        ]
        over = not snapshot.under_way(clutch, as_of_s)
        about = " and ".join(parents) + (", closed" if over else "")
        place = f"/clutches/{quote(clutch.code, safe='')}"
        yield over, " ".join(parents), Found(Kind.CLUTCH, clutch.code, about, place)


def _eggs(snapshot: Snapshot, sought: str, as_of_s: float) -> Iterator[_Ranked]:
    """Eggs are found by their clutch's code and their number alone."""
    asked = _EGG.match(sought)
    if asked is None:
        return
    number = int(asked["number"])
    for clutch in reversed(snapshot.clutches):
        how = fit(clutch.code, asked["code"])
        if how is None or how > Fit.BEGINNING:
            continue
        if any(egg.number == number for egg in snapshot.eggs.get(clutch.entity_id, [])):
            over = not snapshot.under_way(clutch, as_of_s)
            place = f"/clutches/{quote(clutch.code, safe='')}/eggs/{number}"
            dam = snapshot.animals[clutch.dam_id].name
            yield how, over, Found(Kind.EGG, f"{clutch.code}/{number}", f"egg of {dam}", place)


def _boxes(snapshot: Snapshot, as_of_s: float) -> Iterator[_Candidate]:
    for box in reversed(snapshot.boxes.values()):
        shelf = snapshot.shelf_at(box, as_of_s)
        stands = f"{snapshot.cabinets[shelf.cabinet_id].name}, {shelf.name}"
        over = not snapshot.eggs_in(box.entity_id, as_of_s) or (
            box.until_s is not None and box.until_s <= as_of_s
        )
        place = f"/round/{quote(box.name, safe='')}"
        yield over, stands, Found(Kind.BOX, f"Box {box.name}", stands, place)


def _animals(snapshot: Snapshot, _: float) -> Iterator[_Candidate]:
    for animal in snapshot.animals.values():
        gone = bool(animal.retired) or animal.entity_id in snapshot.departures
        about = animal.role + (f", {animal.code}" if animal.code else "")
        yield (
            gone,
            f"{about} {animal.traits}",
            Found(Kind.ANIMAL, animal.name, about, f"/animals/{animal.entity_id}"),
        )


def _cabinets(snapshot: Snapshot, _: float) -> Iterator[_Candidate]:
    for cabinet in snapshot.cabinets.values():
        shelves = [s.name for s in snapshot.shelves.values() if s.cabinet_id == cabinet.entity_id]
        yield (
            False,
            " ".join(shelves),
            Found(Kind.CABINET, cabinet.name, "cabinet", _cabinet_place(cabinet.name)),
        )


def _probes(snapshot: Snapshot, _: float) -> Iterator[_Candidate]:
    for probe in snapshot.probes.values():
        last = snapshot.probe(probe.entity_id).locations.last
        cabinet = _cabinet_of(snapshot, last)
        about = "probe, taken down" if last is None else f"probe in {cabinet}"
        place = "/cabinets" if cabinet is None else _cabinet_place(cabinet)
        yield last is None, cabinet or "", Found(Kind.PROBE, probe.name, about, place)


def _acts(snapshot: Snapshot, sought: str, as_of_s: float) -> Iterator[_Ranked]:
    """What may be done, where the words begin with the doing: "top up 26-04", "weigh Sorrel"."""
    for verb, what in _begun(sought, _AT_A_BOX):
        for box in boxes_standing(at_hand(snapshot, as_of_s)):
            how = fit(box.box.name, what)
            if how is not None and box.water is not None:
                place = f"/round/{quote(box.box.name, safe='')}"
                stands = f"{box.cabinet}, {box.shelf.name}"
                yield how, False, Found(Kind.ACT, f"{verb} {box.box.name}", stands, place)
    for verb, what in _begun(sought, _WITH_AN_ANIMAL):
        for over, _, found in _animals(snapshot, as_of_s):
            how = fit(found.name, what)
            if how is not None and not over:
                yield how, False, Found(Kind.ACT, f"{verb} {found.name}", found.about, found.place)
    for verb, what in _begun(sought, _IN_A_CABINET):
        for cabinet in snapshot.cabinets.values():
            how = fit(cabinet.name, what)
            if how is not None:
                place = _cabinet_place(cabinet.name)
                yield how, False, Found(Kind.ACT, f"{verb}: {cabinet.name}", "cabinet", place)


def _begun(sought: str, verbs: tuple[str, ...]) -> Iterator[tuple[str, str]]:
    """Verbs that what is sought begins with, as they are told, and what comes behind them."""
    for verb in verbs:
        if sought.casefold().startswith(f"{verb} "):
            yield verb.capitalize(), sought[len(verb) + 1 :]


def _note(text: str, about: About) -> Found:
    place = "/notes?words=" + quote(beginning(text, 40).removesuffix(" \u2026"), safe="")
    return Found(Kind.NOTE, beginning(text), f"note on {about.name}", place)


def _cabinet_place(name: str) -> str:
    return f"/cabinets/{quote(name, safe='')}"


def _cabinet_of(snapshot: Snapshot, place: int | None) -> str | None:
    """The cabinet a probe's place is, or is in; a box is where it stood last."""
    if place in snapshot.boxes:
        place = snapshot.box(place).locations.last or snapshot.boxes[place].shelf_id
    if place in snapshot.shelves:
        place = snapshot.shelves[place].cabinet_id
    return snapshot.cabinets[place].name if place in snapshot.cabinets else None
