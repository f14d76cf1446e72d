"""The Egg place: one egg with its standing, its history and its photos."""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise

from sandboa.core.box import shell_marks, shell_words
from sandboa.core.candling import Vessels, vessels_words
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.standing import SIGNS, SignKind
from sandboa.records.clutches import Egg
from sandboa.records.photos import Photo
from sandboa.services.acts.preconditions import egg_of
from sandboa.services.clutches.box_view import BoxNow
from sandboa.services.clutches.clutch_view import ClutchNow, clutch_at
from sandboa.services.clutches.egg_judgements import EggView
from sandboa.services.clutches.photos import photos_of_owner
from sandboa.services.moment.as_of import EggStage, at_hand
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class EggMoment:
    """One thing recorded of the egg: when (s), share developed then, what, in words."""

    at_s: float
    development: float
    kind: str
    text: str
    grade: int | None = None


@dataclass(frozen=True)
class EggPage:
    """`box` is the one it lies in; `history` newest first."""

    now: ClutchNow
    box: BoxNow
    egg: EggView
    history: tuple[EggMoment, ...]
    photos: tuple[Photo, ...]


def egg_page(snapshot: Snapshot, code: str, number: int, as_of_s: float) -> EggPage:
    """Everything of one egg; NotFound for an unknown clutch or egg."""
    clutch = snapshot.clutch_called(code)
    egg = egg_of(clutch, number)
    at = at_hand(snapshot, as_of_s)
    now = clutch_at(at, clutch)
    history = sorted(_history(snapshot, egg, at.stage(egg)), key=lambda m: -m.at_s)
    photos = [p for p in photos_of_owner(clutch.entity_id) if p.egg_number == number]
    view = next(e for e in now.eggs if e.number == number)
    box = next(box for box in now.boxes if box.box.entity_id == view.box_id)
    return EggPage(now, box, view, tuple(history), tuple(photos))


def _history(snapshot: Snapshot, egg: Egg, stage: EggStage) -> list[EggMoment]:
    share = stage.share_at
    told = [
        EggMoment(t.seen_s, share(t.seen_s), "dents", GRADE_WORDS[t.grade], t.grade)
        for t in snapshot.egg(egg.entity_id).turgor
    ]
    for candling in snapshot.egg(egg.entity_id).candlings:
        disc = f", disc {candling.disc}" if candling.disc else ""
        seen = vessels_words(Vessels(candling.vessels))
        told.append(EggMoment(candling.seen_s, share(candling.seen_s), "candled", f"{seen}{disc}"))
    told += [
        EggMoment(look.seen_s, share(look.seen_s), "shell", shell_words(shell_marks(look.shells)))
        for look in snapshot.egg(egg.entity_id).shells
    ]
    told += [
        EggMoment(s.seen_s, share(s.seen_s), s.kind, SIGNS[SignKind(s.kind), s.value].words)
        for s in snapshot.egg(egg.entity_id).signs
    ]
    told += [
        EggMoment(e.at_s, share(e.at_s), "done", e.kind) for e in snapshot.egg(egg.entity_id).events
    ]
    told += [
        EggMoment(
            stay.from_s, share(stay.from_s), "moved", f"to box {snapshot.boxes[stay.box_id].name}"
        )
        for before, stay in pairwise(snapshot.egg(egg.entity_id).stays)
        if stay.box_id != before.box_id
    ]
    told += [EggMoment(at_s, share(at_s), kind, words) for at_s, kind, words in _end(snapshot, egg)]
    return told


def _end(snapshot: Snapshot, egg: Egg) -> Iterator[tuple[float, str, str]]:
    """(at s, kind, words) of what ended its time as a closed egg."""
    held = snapshot.egg(egg.entity_id)
    if held.pip is not None:
        yield held.pip.seen_s, "pip", "pipped"
    if held.cut is not None:
        bled = ", bled" if held.cut.bled else ""
        yield held.cut.at_s, "cut", f"cut open: {held.cut.reason}{bled}"
    if held.emergence is not None:
        yield held.emergence.seen_s, "out", "out of the egg"
    if held.fate is not None:
        stage = f", {held.fate.stage}" if held.fate.stage else ""
        yield held.fate.at_s, "fate", f"{held.fate.fate}{stage}"
    if held.opening is not None:
        yield held.opening.at_s, "opened", "opened" if held.opening.opened else "not opened"
