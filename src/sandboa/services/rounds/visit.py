"""A visit to a box as a keeper tells it: what was seen, weighed and done while it was open."""

from collections.abc import Iterator
from dataclasses import dataclass

from sandboa.core.box import Closing, Shell, shell_words
from sandboa.core.candling import Disc, Vessels, vessels_words
from sandboa.core.dimples.advice import GRADE_WORDS
from sandboa.core.notes import beginning
from sandboa.core.rounds import BoxActKind, EggActKind
from sandboa.core.rounds.due import which_eggs
from sandboa.core.standing import SIGNS, SignKind
from sandboa.services.boxes.set_up import BoxCommand


@dataclass(frozen=True, slots=True)
class EggSeen:
    """What was recorded of one egg; None and empty where nothing was.

    `clutch` is its code, None where the box holds eggs of one clutch only. `shells` are all the
    marks of its shell now, smooth where empty. `signs` are (kind, value) of
    core.standing.signs. `mass_g` is of an egg that is taken out, when it was weighed.
    """

    number: int
    clutch: str | None = None
    grade: int | None = None
    vessels: Vessels | None = None
    disc: Disc | None = None
    shells: tuple[Shell, ...] | None = None
    signs: tuple[tuple[SignKind, str], ...] = ()
    acts: tuple[EggActKind, ...] = ()
    mass_g: float | None = None


@dataclass(frozen=True, slots=True)
class FreshMedium:
    """Medium swapped: what the box was set up with anew, g."""

    medium: str
    water_g: float | None = None
    mass_g: float | None = None


@dataclass(frozen=True, slots=True)
class EggsMoved:
    """Eggs put into another box while this one was open: into one called `to`, or a new one.

    `eggs` are (clutch code, None where the box holds one clutch; number). What is not
    said of the new box is as in this one.
    """

    eggs: tuple[tuple[str | None, int], ...]
    to: str | None = None
    new: BoxCommand | None = None


@dataclass(frozen=True, slots=True)
class BoxVisit:
    """One box opened and shut again.

    Attributes
    ----------
    key: the device's own, 8-64 characters; the same visit has the same key.
    box: its name.
    opened_s, closed_s: door open, door shut.
    seen_act: the newest act about this box the device knew of, None in an old device.
    eggs: exceptions. With `rest_as_before` every other live egg is recorded
        as it was at the last look, and as firm where nobody had looked.
    signs: (lid | medium | weight | smell, value).
    mass_g: the box on the scale as it was found, before anything was done.
    water_g: poured in; `acts`, `closing`, `shelf` (cabinet, shelf), `fresh`: done at it.
    mass_change_g: what else was put in (+) or taken out (-), g.
    moved: eggs put into other boxes, last of all.
    note: plain words on the visit, none where it is empty.
    """

    key: str
    box: str
    opened_s: float
    closed_s: float
    seen_act: int | None = None
    eggs: tuple[EggSeen, ...] = ()
    rest_as_before: bool = True
    signs: tuple[tuple[str, str], ...] = ()
    mass_g: float | None = None
    water_g: float | None = None
    acts: tuple[BoxActKind, ...] = ()
    closing: Closing | None = None
    shelf: tuple[str, str] | None = None
    fresh: FreshMedium | None = None
    mass_change_g: float | None = None
    moved: tuple[EggsMoved, ...] = ()
    note: str = ""


def visit_words(visit: BoxVisit) -> Iterator[str]:
    """The visit in the words of the log."""
    yield f"Visit to {visit.box}, {_open_for(visit.closed_s - visit.opened_s)} open"
    for seen in visit.eggs:
        words = [
            *([GRADE_WORDS[seen.grade]] if seen.grade is not None else []),
            *([vessels_words(seen.vessels)] if seen.vessels else []),
            *([f"{shell_words(seen.shells)} shell"] if seen.shells is not None else []),
            *(SIGNS[sign].words for sign in seen.signs),
            *seen.acts,
        ]
        of = f"{seen.clutch}/" if seen.clutch else ""
        yield f"egg {of}{seen.number}: {', '.join(words) or 'looked at'}"
    yield from (f"{kind} {value}" for kind, value in visit.signs)
    if visit.mass_g is not None:
        yield f"weighed {visit.mass_g:g} g"
    if visit.water_g is not None:
        yield f"{visit.water_g:g} g of water added"
    yield from visit.acts
    if visit.fresh is not None:
        yield f"fresh {visit.fresh.medium}"
    if visit.closing is not None:
        yield f"closed with {visit.closing}"
    if visit.shelf is not None:
        yield f"moved to {visit.shelf[0]}, {visit.shelf[1]}"
    for moved in visit.moved:
        eggs = which_eggs([f"{code}/{number}" if code else number for code, number in moved.eggs])
        new = f"a new box{f' {moved.new.name}' if moved.new and moved.new.name else ''}"
        yield f"{eggs} moved to {moved.to or new}"
    if visit.note.strip():
        yield f"noted: {beginning(visit.note.strip())}"
    if visit.rest_as_before:
        yield "the rest as before" if visit.eggs else "all as before"


def _open_for(seconds: float) -> str:
    if seconds < 120:
        return f"{seconds:.0f} s"
    return f"{seconds / 60:.0f} min"
