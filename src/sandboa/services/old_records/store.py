"""Old records stored: all of a list in one act, which is undone in one."""

from collections.abc import Collection, Mapping, Sequence

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM, SIRE
from sandboa.core.messages import Message
from sandboa.core.names import clean_name
from sandboa.core.past_clutches.card import noon_s
from sandboa.records.animals import Pairing, Weight
from sandboa.records.clutches import PastClutch
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.recording import together
from sandboa.services.animals.commands import AnimalCommand, add_animal
from sandboa.services.old_records.checks import State, check_records
from sandboa.services.old_records.lines import (
    AnimalLine,
    ClutchLine,
    NamedAnimal,
    OldLine,
    PairingLine,
    WeightLine,
)
from sandboa.services.old_records.names import Key, NameChoice, Names, key_of


def store_records(
    lines: Sequence[OldLine],
    chosen: Mapping[Key, NameChoice],
    now_s: float,
    doubles: Collection[int] = (),
) -> Act:
    """Record every line that is new, and those known ones whose places are among `doubles`.

    Animals that are named and not known are recorded with them. Raises Conflict while a name is
    asked about, where a line is refused, or where nothing is left to record; then nothing is.
    """
    checked = check_records(lines, chosen, now_s)
    if (asked := next((name for name in checked.names if name.asked), None)) is not None:
        raise Conflict(f"{asked.name}: {asked.why}")
    for place, told in enumerate(checked.lines, 1):
        if told is not None and told.state is State.REFUSED:
            why = told.problems[0][1]
            raise Conflict(Message("line {place}: {why}", place=place, why=why))
    wanted = [
        line
        for place, (line, told) in enumerate(zip(lines, checked.lines, strict=True))
        if told is not None and (told.state is State.NEW or place in doubles)
    ]
    if not wanted:
        raise Conflict("all of these are recorded already")
    with together(ActKind.OLD_RECORDS, "", now_s, None) as storing:
        writer = _Writer(storing, Names(wanted, chosen), now_s)
        writer.write_all(wanted)
        storing.say(_summary(wanted, writer.made))
        storing.is_of_no_moment()
    return storing


class _Writer:
    """Records lines under one act, and the animals they name before them."""

    def __init__(self, act: Act, names: Names, now_s: float) -> None:
        self.made = 0
        self._act = act
        self._names = names
        self._now_s = now_s
        #: Ids of animals recorded under this act, by name.
        self._ids: dict[str, int] = {}
        self._listed: dict[str, AnimalLine] = {}
        self._parents_of: set[str] = set()

    def write_all(self, lines: Sequence[OldLine]) -> None:
        """Record the lines."""
        self._listed = {_own(line.name): line for line in lines if isinstance(line, AnimalLine)}
        for line in lines:
            self._write(line)

    def _write(self, line: OldLine) -> None:
        match line:
            case ClutchLine():
                self._clutch(line)
            case AnimalLine():
                self._listed_animal(_own(line.name))
            case WeightLine():
                Weight.record(
                    self._act,
                    animal_id=self._id(line.animals[0]),
                    at_s=int(noon_s(line.day)),
                    mass_g=line.mass_g,
                )
            case PairingLine():
                dam, sire = (self._id(named) for named in line.animals)
                until = line.start if line.end is None else line.end
                Pairing.record(
                    self._act,
                    dam_id=dam,
                    sire_id=sire,
                    from_s=int(noon_s(line.start)),
                    until_s=int(noon_s(until)),
                )

    def _clutch(self, line: ClutchLine) -> None:
        dam, *sires = (self._id(named) for named in line.animals)
        PastClutch.record(self._act, **values_of(line, dam, sires[0] if sires else None))

    def _id(self, named: NamedAnimal) -> int:
        """The animal of that name, recorded now where it is new."""
        told = self._names.of(named)
        if told is None:
            return self._listed_animal(_own(named.name))
        if told.animal is not None:
            return told.animal
        key = _own(named.name)
        if key not in self._ids:
            self._ids[key] = self._make(AnimalCommand(str(told.new_role), named.name))
        return self._ids[key]

    def _listed_animal(self, name: str) -> int:
        """The animal a line of the list records, after its parents."""
        if name in self._ids:
            return self._ids[name]
        line = self._listed[name]
        if name in self._parents_of:
            raise Conflict(f"{line.name} would be descended from {line.name} itself")
        self._parents_of.add(name)
        parents = {named.role: self._id(named) for named in line.animals}
        said = AnimalCommand(
            line.role,
            line.name,
            code=line.code,
            hatch_year=line.hatch_year,
            traits_text=line.traits_text,
            dam=parents.get(DAM),
            sire=parents.get(SIRE),
        )
        self._ids[name] = self._make(said)
        return self._ids[name]

    def _make(self, said: AnimalCommand) -> int:
        self.made += 1
        return add_animal(said, self._now_s)[0]


def values_of(line: ClutchLine, dam: int, sire: int | None) -> dict[str, object]:
    """A past clutch as its table has it; `dam` and `sire` are ids."""
    told = line.told
    return {
        "code": None if line.code is None else clean_name("code", line.code),
        "dam_id": dam,
        "sire_id": sire,
        "laid_s": int(told.laid_s),
        "eggs": told.count.laid,
        "slugs": told.count.slugs,
        "hatched": told.hatched,
        "first_pip_s": None if told.first_pip_s is None else int(told.first_pip_s),
        "kept_c": told.kept_c,
    }


def _own(name: str) -> str:
    return key_of(name, None)[0]


def _summary(lines: Sequence[OldLine], made: int) -> str:
    """ "Old records: 300 clutches, 12 new animals"."""
    counts = {
        "clutch": sum(isinstance(line, ClutchLine) for line in lines),
        "weight": sum(isinstance(line, WeightLine) for line in lines),
        "pairing": sum(isinstance(line, PairingLine) for line in lines),
        "new animal": made,
    }
    told = [f"{n} {_plural(word, n)}" for word, n in counts.items() if n]
    return f"Old records: {', '.join(told)}"


def _plural(word: str, n: int) -> str:
    if n == 1:
        return word
    return f"{word}es" if word.endswith("ch") else f"{word}s"
