"""Which animals the names on old records are: known ones, new ones, or asked about."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from typing import Final

from sandboa.core.animals import DAM, SIRE
from sandboa.core.errors import NotPlausible
from sandboa.core.names import clean_name
from sandboa.records.house import Animal
from sandboa.services.old_records.lines import AnimalLine, NamedAnimal, OldLine

#: From how alike two names are, 0-1, that one may be the other misspelt (assumption).
_ALIKE: Final = 0.75
_MOST_NEAR: Final = 3


@dataclass(frozen=True, slots=True)
class NameChoice:
    """The keeper's answer: that name is `animal` (its id), or a new one of `new_role`."""

    animal: int | None = None
    new_role: str | None = None


Key = tuple[str, str | None]


@dataclass(frozen=True, slots=True)
class NameMatch:
    """A name of a role (None: either), and who it is: `animal` by id, or a new one of `new_role`;
    neither while it is asked about. `near` are animals it may be, `why` says why it is asked, and
    `may_be_new` whether it can be a new animal under that name."""

    name: str
    role: str | None
    animal: int | None
    new_role: str | None
    near: tuple[tuple[int, str], ...] = ()
    why: str = ""
    may_be_new: bool = True

    @property
    def asked(self) -> bool:
        return self.animal is None and self.new_role is None


def key_of(name: str, role: str | None) -> Key:
    """Names are alike whatever their spaces and capitals."""
    return " ".join(name.split()).casefold(), role


class Names:
    """Who the names on some lines are, as the house and the keeper's answers have it."""

    def __init__(self, lines: Sequence[OldLine], chosen: Mapping[Key, NameChoice]) -> None:
        self.animals = {row.entity_id: row for row in Animal.current()}
        self._chosen = chosen
        self._own = {
            key_of(line.name, None)[0]: line.role for line in lines if isinstance(line, AnimalLine)
        }
        self.told: dict[Key, NameMatch] = {}
        for line in lines:
            for named in line.animals:
                key = key_of(named.name, named.role)
                if key not in self.told and key[0] not in self._own:
                    self.told[key] = self._of_one_role(named, self._tell(named))

    def of(self, named: NamedAnimal) -> NameMatch | None:
        """Who that is; None for an animal that another line of the same list records."""
        return self.told.get(key_of(named.name, named.role))

    def own_role(self, named: NamedAnimal) -> str | None:
        """The role of the animal of that name that a line of the list records."""
        return self._own.get(key_of(named.name, None)[0])

    def known(self, name: str, role: str | None = None) -> Animal | None:
        """The animal of that name or code, and of that role where one is given."""
        wanted = key_of(name, None)[0]
        for row in self.animals.values():
            named_so = wanted in (row.name.casefold(), (row.code or "").casefold())
            if named_so and role in (None, row.role):
                return row
        return None

    def _tell(self, named: NamedAnimal) -> NameMatch:
        name, role = named.name, named.role
        if (row := self.known(name, role)) is not None:
            return NameMatch(name, role, row.entity_id, None)
        answer = self._chosen.get(key_of(name, role))
        near = self._near(name, role)
        chosen = self.animals.get(answer.animal) if answer is not None and answer.animal else None
        if chosen is not None and role in (None, chosen.role):
            return NameMatch(name, role, chosen.entity_id, None, near)
        taken = self.known(name)
        if taken is not None:
            why = f"{taken.name} is recorded as a {taken.role}: which {role} is meant?"
            return NameMatch(name, role, None, None, near, why, may_be_new=False)
        try:
            clean_name(named.field, name)
        except NotPlausible as error:
            return NameMatch(name, role, None, None, near, str(error.reason), may_be_new=False)
        if answer is not None and answer.new_role in (DAM, SIRE):
            return NameMatch(name, role, None, role or answer.new_role, near)
        if near:
            return NameMatch(
                name, role, None, None, near, "is that a name misspelt, or another animal?"
            )
        if role is None:
            return NameMatch(name, role, None, None, near, "is it a dam or a sire?")
        return NameMatch(name, role, None, role)

    def _of_one_role(self, named: NamedAnimal, told: NameMatch) -> NameMatch:
        """Asked about where the list has a new animal of that name in the other role already."""
        other = self.told.get(key_of(named.name, SIRE if named.role == DAM else DAM))
        if told.new_role is None or other is None or other.new_role in (None, told.new_role):
            return told
        why = "it stands on this list as a dam and as a sire: which is meant?"
        return NameMatch(told.name, told.role, None, None, told.near, why, may_be_new=False)

    def _near(self, name: str, role: str | None) -> tuple[tuple[int, str], ...]:
        of_role = {
            row.name.casefold(): row for row in self.animals.values() if role in (None, row.role)
        }
        alike = get_close_matches(key_of(name, None)[0], list(of_role), _MOST_NEAR, _ALIKE)
        return tuple((of_role[one].entity_id, of_role[one].name) for one in alike)
