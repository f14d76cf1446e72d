"""Two eggs that were taken for one another: their numbers swapped, or what was seen of them."""

from collections.abc import Iterable, Iterator, Mapping
from typing import Any, Final

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Moment
from sandboa.core.units import require_moment
from sandboa.records.clutches import Candling, Clutch, Egg, EggEvent, ShellLook, Turgor
from sandboa.records.facts import Act, Fact
from sandboa.records.hatching import (
    Cut,
    EggFate,
    Emergence,
    Finding,
    Hatchling,
    Opening,
    Pip,
)
from sandboa.records.photos import Photo
from sandboa.records.rounds import EggSign
from sandboa.services.acts.preconditions import clutch_called, egg_of, require_not_ahead
from sandboa.services.acts.recording import act
from sandboa.services.hatching.open_clutch import require_open

#: What is seen of an egg, and the column that says when.
_SEEN: Final[Mapping[type[Fact], str]] = {
    Turgor: "seen_s",
    ShellLook: "seen_s",
    Candling: "seen_s",
    EggSign: "seen_s",
    EggEvent: "at_s",
    Pip: "seen_s",
    Cut: "at_s",
    Emergence: "seen_s",
    EggFate: "at_s",
    Opening: "at_s",
}
#: What follows one of those: a hatchling its emergence, findings the opening.
_FOLLOWS: Final[Mapping[type[Fact], type[Fact]]] = {Emergence: Hatchling, Opening: Finding}


def swap_numbers(code: str, one: int, other: int, now_s: float) -> Act:
    """Give two eggs each other's number; whatever is recorded of an egg stays with it.

    Raises NotFound for an unknown clutch or egg, NotPlausible for an egg and itself.
    """
    clutch = clutch_called(code)
    eggs = _two(clutch, one, other)
    words = f"Eggs {one} and {other} have each other's number"
    with act(ActKind.CORRECT, words, now_s, clutch.entity_id) as swapping:
        first, second = eggs
        _changed(swapping, [(first, {"number": other}), (second, {"number": one})])
        photos = {number: _photos(clutch, number) for number in (one, other)}
        for number, to in ((one, other), (other, one)):
            for photo in photos[number]:
                photo.correct(swapping, egg_number=to)
    return swapping


def swap_findings(
    code: str, one: int, other: int, since_s: float, until_s: float, now_s: float
) -> Act:
    """Give two eggs what was seen and done of the other from `since_s` to `until_s` (s).

    Where they lie, and how they were laid, stays. Raises NotFound; NotPlausible for an egg and
    itself, times in the wrong order or ahead, or where nothing was seen of either then; Conflict
    when the clutch is closed.
    """
    clutch = clutch_called(code)
    require_open(clutch)
    for field, moment_s in (("since", since_s), ("until", until_s)):
        require_moment(field, moment_s)
    require_not_ahead(since_s, now_s)
    if until_s < since_s:
        raise NotPlausible("until", "it ends before it begins: check both times")
    first, second = _two(clutch, one, other)
    to = {first.entity_id: second.entity_id, second.entity_id: first.entity_id}
    rows = list(_seen_of(to, since_s, until_s))
    if not rows:
        raise NotPlausible("since", "nothing was seen of these two then")
    words = Message(
        "What was seen of eggs {one} and {other} since {since} is the other's",
        one=one, other=other, since=Moment(since_s),
    )  # fmt: skip
    with act(ActKind.CORRECT, words, now_s, clutch.entity_id) as swapping:
        _changed(swapping, [(row, {"egg_id": to[row.values()["egg_id"]]}) for row in rows])
    return swapping


def _seen_of(eggs: Iterable[int], since_s: float, until_s: float) -> Iterator[Fact]:
    """What was seen of those eggs in that time, and what follows it."""
    for egg in eggs:
        for table, column in _SEEN.items():
            asked: dict[str, Any] = {"egg_id": egg}
            then = [
                row for row in table.current(**asked) if since_s <= row.values()[column] <= until_s
            ]
            yield from then
            if then and table in _FOLLOWS:
                yield from _FOLLOWS[table].current(**asked)


def _changed(act_made: Act, changes: list[tuple[Fact, dict[str, Any]]]) -> None:
    """Correct rows at once: one may get what the other had, which there can be once only."""
    for row, _ in changes:
        row.retire(act_made)
    for row, values in changes:
        kept = {**row.values(), **values}
        type(row).create(entity_id=row.entity_id, act_id=act_made.id, **kept)


def _two(clutch: Clutch, one: int, other: int) -> tuple[Egg, Egg]:
    if one == other:
        raise NotPlausible("other", "an egg and another one: choose two")
    return egg_of(clutch, one), egg_of(clutch, other)


def _photos(clutch: Clutch, number: int) -> list[Photo]:
    return Photo.current(owner_id=clutch.entity_id, egg_number=number)
