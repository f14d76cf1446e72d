"""Where an animal or hatchling lives, and that it left the house."""

from collections.abc import Sequence

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.raising import Departure as DepartureKind
from sandboa.core.names import clean_name
from sandboa.records.animals import Departure, Tub
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.recording import act, together
from sandboa.services.animals.individuals import individual, require_here, require_nothing_after

_LONGEST_NOTE = 400


def leave_house(entity: int, how: DepartureKind, note: str, at_s: float, now_s: float) -> Act:
    """Record that an animal or hatchling left the house at `at_s`: sold, given away, or dead.

    What was recorded of it stays. Raises NotFound; NotPlausible for a time ahead or before it
    was out of its egg, or too long a note; Conflict when it has left already, is with another
    animal, or something is recorded of it after that.
    """
    who = individual(entity)
    if who.departure is not None:
        raise Conflict(f"{who.name} has left already: correct that in its log")
    require_here(who, at_s, now_s)
    require_nothing_after(who, at_s)
    tidy = " ".join(note.split())
    if len(tidy) > _LONGEST_NOTE:
        raise NotPlausible("note", f"{_LONGEST_NOTE} characters are enough for a note")
    died = how is DepartureKind.DIED
    words = f"{who.name} {'died' if died else f'left the house: {how}'}"
    with act(ActKind.DEPARTURE, words, now_s, who.clutch) as leaving:
        Departure.record(leaving, animal_id=who.id, at_s=int(at_s), how=how.value, note=tidy)
    return leaving


def leave_together(
    entities: Sequence[int], how: DepartureKind, note: str, at_s: float, now_s: float
) -> Act:
    """Record that several left the house alike, in one act; all of them or none.

    Raises as `leave_house`; NotPlausible for none at all, or one named twice.
    """
    if not entities or len(set(entities)) < len(entities):
        raise NotPlausible("hatchlings", "which ones? Each of them once")
    clutches = {individual(entity).clutch for entity in entities}
    words = f"{len(entities)} left the house: {how}"
    of_one = clutches.pop() if len(clutches) == 1 else None
    with together(ActKind.DEPARTURE, words, now_s, of_one) as leaving:
        for entity in entities:
            leave_house(entity, how, note, at_s, now_s)
    return leaving


def put_in_tub(entity: int, name: str, from_s: float, now_s: float) -> Act:
    """Record that an animal or hatchling lives in a tub of that name from `from_s` on.

    Raises NotFound; NotPlausible for no name, a time ahead, before it was out of its egg, or
    after it left.
    """
    who = individual(entity)
    require_here(who, from_s, now_s)
    tub = clean_name("name", name)
    with act(ActKind.TUB, f"{who.name} into tub {tub}", now_s, who.clutch) as moving:
        Tub.record(moving, animal_id=who.id, name=tub, from_s=int(from_s))
    return moving
