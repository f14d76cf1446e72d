"""Old records looked at line by line before any is stored: new, known already, or refused."""

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from enum import StrEnum

from sandboa.core.animals import leaps, require_hatch_year, require_weight
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import SECOND_CLUTCH_DAYS
from sandboa.core.messages import Day, Message, Words
from sandboa.core.names import clean_code, clean_name
from sandboa.core.past_clutches.card import check_past_clutch, noon_s, require_past_day
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.animals import Departure, Pairing, Weight
from sandboa.records.clutches import Clutch, PastClutch
from sandboa.services.animals.commands import LONGEST_TRAITS
from sandboa.services.lay_day.day import require_two
from sandboa.services.old_records.lines import (
    AnimalLine,
    ClutchLine,
    NamedAnimal,
    OldLine,
    PairingLine,
    WeightLine,
)
from sandboa.services.old_records.names import Key, NameChoice, NameMatch, Names, key_of


class State(StrEnum):
    """What becomes of a line."""

    NEW = "new"
    KNOWN = "known"
    REFUSED = "refused"


@dataclass(frozen=True, slots=True)
class Checked:
    """A line and what becomes of it: `words` tell what it is a double of, or what is odd about it;
    `problems` are sentences by field."""

    state: State
    words: Words = ""
    problems: tuple[tuple[str, Words], ...] = ()


@dataclass(frozen=True, slots=True)
class CheckedRecords:
    """Each line in order, None for one that could not be read, and every name on them."""

    lines: tuple[Checked | None, ...]
    names: tuple[NameMatch, ...]

    @property
    def asked(self) -> bool:
        """Whether a name has to be told first."""
        return any(name.asked for name in self.names)


def check_records(
    lines: Sequence[OldLine | None], chosen: Mapping[Key, NameChoice], now_s: float
) -> CheckedRecords:
    """What would become of each line; nothing is stored."""
    read = [line for line in lines if line is not None]
    names = Names(read, chosen)
    look = _Look(names, now_s)
    checked = tuple(None if line is None else look.at(line) for line in lines)
    return CheckedRecords(checked, tuple(names.told.values()))


class _Look:
    """What is recorded already, and what the lines before have said."""

    def __init__(self, names: Names, now_s: float) -> None:
        self._names = names
        self._now_s = now_s
        self._left = {row.animal_id: row.at_s for row in Departure.current()}
        self._laid: dict[object, list[tuple[float, str]]] = defaultdict(list)
        for clutch in Clutch.current():
            self._laid[clutch.dam_id].append((clutch.laid_s, f"clutch {clutch.code}"))
        for past in PastClutch.current():
            told = f"{past.eggs}-{past.slugs}, a past clutch"
            self._laid[past.dam_id].append((past.laid_s, told))
        self._weights: dict[object, list[tuple[float, float]]] = defaultdict(list)
        for weight in Weight.current():
            self._weights[weight.animal_id].append((weight.at_s, weight.mass_g))
        self._visits: dict[object, list[tuple[float, float]]] = defaultdict(list)
        for visit in Pairing.current():
            until_s = now_s if visit.until_s is None else visit.until_s
            self._visits[visit.dam_id, visit.sire_id].append((visit.from_s, until_s))
        self._animals: set[str] = set()
        self._codes: set[str] = set()

    def at(self, line: OldLine) -> Checked:
        """What becomes of a line."""
        try:
            clash = next(self._wrong_roles(line), None)
            if clash is not None:
                raise clash
            match line:
                case ClutchLine():
                    return self._clutch(line)
                case AnimalLine():
                    return self._animal(line)
                case WeightLine():
                    return self._weight(line)
                case PairingLine():
                    return self._pairing(line)
        except NotPlausible as error:
            return Checked(State.REFUSED, problems=((error.field, error.reason),))

    def _wrong_roles(self, line: OldLine) -> Iterator[NotPlausible]:
        for named in line.animals:
            own = self._names.own_role(named)
            if own is not None and named.role not in (None, own):
                yield NotPlausible(
                    named.field, f"{named.name} is a {own} in this list, not a {named.role}"
                )

    def _who(self, named: NamedAnimal) -> object:
        """Something that is the same for the same animal: its id, or its name while it is new."""
        told = self._names.of(named)
        return told.animal if told is not None and told.animal else key_of(named.name, None)[0]

    def _require_not_left(self, named: NamedAnimal, day: date) -> None:
        left_s = self._left.get(self._who(named))  # type: ignore[call-overload]
        if left_s is not None and noon_s(day) > left_s + SECONDS_PER_DAY:
            left = Message("{name} left the house on {at}", name=named.name, at=Day(left_s))
            raise NotPlausible(named.field, left)

    def _clutch(self, line: ClutchLine) -> Checked:
        check_past_clutch(line.told, self._now_s)
        if line.code is not None:
            clean_name("code", line.code)
        for named in line.animals:
            self._require_not_left(named, line.told.laid)
        require_two(line.dam, line.sire)
        laid = self._laid[self._who(line.animals[0])]
        near = [
            (abs(line.told.laid_s - laid_s), laid_s, what)
            for laid_s, what in laid
            if abs(line.told.laid_s - laid_s) <= SECOND_CLUTCH_DAYS * SECONDS_PER_DAY
        ]
        laid.append((line.told.laid_s, f"{line.told.count}, a line above"))
        if near:
            _, laid_s, what = min(near)
            return Checked(
                State.KNOWN,
                Message(
                    "{dam} laid on {day} already: {what}",
                    dam=line.dam,
                    day=Day(laid_s),
                    what=what,
                ),
            )
        return Checked(State.NEW)

    def _animal(self, line: AnimalLine) -> Checked:
        name = clean_name("name", line.name)
        if line.code is not None:
            clean_code(line.code)
        if line.hatch_year is not None:
            require_hatch_year(line.hatch_year, datetime.fromtimestamp(self._now_s, UTC).year)
        if len(line.traits_text) > LONGEST_TRAITS:
            raise NotPlausible("traits", f"{LONGEST_TRAITS} characters fit")
        known = self._names.known(name)
        if known is not None and known.role != line.role:
            raise NotPlausible(
                "role", f"{known.name} is recorded as a {known.role}, not as a {line.role}"
            )
        if known is not None:
            return Checked(State.KNOWN, f"{known.name} is recorded already, and stays as it is")
        if name.casefold() in self._animals:
            return Checked(State.KNOWN, f"{name} stands further up already")
        if line.code is not None:
            taken = self._names.known(line.code)
            if taken is not None or line.code.casefold() in self._codes:
                other = taken.name if taken else "another line"
                raise NotPlausible("code", f"{other} has the code {line.code}")
            self._codes.add(line.code.casefold())
        self._animals.add(name.casefold())
        return Checked(State.NEW)

    def _weight(self, line: WeightLine) -> Checked:
        require_past_day("day", line.day, self._now_s)
        named = line.animals[0]
        self._require_not_left(named, line.day)
        told = self._names.of(named)
        animal = self._names.animals.get(told.animal) if told and told.animal else None
        born = animal.hatch_year if animal is not None else None
        # It may have been a young one then, where nobody knows when it hatched.
        require_weight(line.mass_g, 0 if born is None else line.day.year - born)
        held = self._weights[self._who(named)]
        at_s = noon_s(line.day)
        day_s = SECONDS_PER_DAY / 2
        if any(abs(s - at_s) <= day_s and round(g) == round(line.mass_g) for s, g in held):
            return Checked(State.KNOWN, "that weight of that day is recorded already")
        before = max(((s, g) for s, g in held if s <= at_s), default=None)
        held.append((at_s, line.mass_g))
        if before is not None and leaps(before[1], line.mass_g):
            return Checked(State.NEW, f"{before[1]:g} g before: is that right?")
        return Checked(State.NEW)

    def _pairing(self, line: PairingLine) -> Checked:
        require_past_day("start", line.start, self._now_s)
        end = line.start if line.end is None else line.end
        require_past_day("end", end, self._now_s)
        if end < line.start:
            raise NotPlausible("end", "it cannot end before it began")
        for named in line.animals:
            self._require_not_left(named, end)
        visits = self._visits[tuple(self._who(named) for named in line.animals)]
        from_s, until_s = noon_s(line.start), noon_s(end)
        day_s = SECONDS_PER_DAY / 2
        if any(a <= until_s + day_s and from_s - day_s <= b for a, b in visits):
            return Checked(State.KNOWN, "the two were together then, as it is recorded already")
        visits.append((from_s, until_s))
        return Checked(State.NEW)
