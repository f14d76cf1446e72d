"""Hatchlings: recorded egg by egg and corrected; twins with a word."""

from collections.abc import Sequence
from dataclasses import dataclass, field

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import Defect, Sex, Size, YolkLeft
from sandboa.core.hatching.hatchlings import HATCHLING_RANGE_G, MOST_IN_ONE_EGG
from sandboa.core.pairing.genes import SHOWN_FORMS
from sandboa.core.units import require_range
from sandboa.records.animals import Weight
from sandboa.records.clutches import Egg
from sandboa.records.facts import Act
from sandboa.records.hatching import Emergence, Hatchling
from sandboa.services.acts.errors import Question
from sandboa.services.acts.preconditions import clutch_called, egg_of
from sandboa.services.acts.recording import act
from sandboa.services.animals.individuals import hatchling_name
from sandboa.services.animals.traits import TraitCommand, keep_traits, tidy_traits


@dataclass(frozen=True, slots=True)
class HatchlingCommand:
    """What a keeper says of a hatchling; `part` 2 is the second of twins, g at hatching.

    `plain`: it was looked at and shows no trait, which is not the same as not said.
    """

    number: int
    part: int = 1
    mass_g: float | None = None
    sex: Sex = Sex.NOT_SEXED
    size: Size | None = None
    yolk: YolkLeft | None = None
    traits: Sequence[TraitCommand] = field(default=())
    defects: tuple[Defect, ...] = ()
    note: str = ""
    plain: bool = False


def record_hatchling(
    code: str, said: HatchlingCommand, now_s: float, *, twins: bool = False
) -> tuple[int, Act]:
    """Record, or correct, what came out of an egg; returns the hatchling's id.

    Raises NotFound; NotPlausible for an egg nothing has come out of, or a
    value that cannot be; Question for the second hatchling of one egg, unless
    `twins`; Conflict when the clutch is closed.
    """
    clutch = clutch_called(code)
    egg = egg_of(clutch, said.number)
    out = Emergence.only(egg_id=egg.entity_id)
    if out is None:
        raise NotPlausible("number", f"nothing has come out of egg {said.number} yet")
    _check(said)
    traits = tidy_traits(said.traits)
    held = Hatchling.only(egg_id=egg.entity_id, part=said.part)
    if held is None and said.part > 1:
        _require_twins(egg, twins=twins)
    with act(
        ActKind.HATCHLING, _words(said, new=held is None), now_s, clutch.entity_id
    ) as recording:
        hatchling = Hatchling.put(
            recording,
            {"egg_id": egg.entity_id, "part": said.part},
            sex=said.sex.value,
            size=said.size.value if said.size else None,
            yolk=said.yolk.value if said.yolk else None,
            defects=",".join(sorted(d.value for d in set(said.defects))),
            note=" ".join(said.note.split()),
            plain=int(said.plain),
        )
        if said.mass_g is not None:
            _weigh(recording, hatchling.entity_id, said.mass_g, out.seen_s)
        keep_traits(recording, hatchling.entity_id, traits)
    return hatchling.entity_id, recording


def _require_twins(egg: Egg, *, twins: bool) -> None:
    first = Hatchling.only(egg_id=egg.entity_id, part=1)
    if first is None:
        raise NotPlausible("part", f"record the first hatchling of egg {egg.number} first")
    if not twins:
        raise Question(
            f"Egg {egg.number} has a hatchling already. Twins are rare but real: is this a "
            "second animal from the same egg?",
            "twins",
        )


def _check(said: HatchlingCommand) -> None:
    if not 1 <= said.part <= MOST_IN_ONE_EGG:
        raise NotPlausible("part", f"{MOST_IN_ONE_EGG} hatchlings of one egg are the most")
    if said.mass_g is not None:
        require_range("mass_g", said.mass_g, HATCHLING_RANGE_G, "g")
    if said.plain and any(t.form in SHOWN_FORMS for t in said.traits):
        raise NotPlausible("traits", "It shows no trait, or it shows these: say one of the two")
    if len(said.note) > 400:
        raise NotPlausible("note", "400 characters are enough for a note")


def _weigh(recording: Act, hatchling: int, mass_g: float, out_s: int) -> None:
    """Its weight at hatching is the one with the moment it came out."""
    Weight.put(recording, {"animal_id": hatchling, "at_s": out_s}, mass_g=mass_g)


def _words(said: HatchlingCommand, *, new: bool) -> str:
    parts = [f"{said.mass_g:g} g" if said.mass_g is not None else "", *said.defects]
    told = ", ".join(part for part in parts if part)
    name = hatchling_name(said.number, said.part)
    return f"{name}{'' if new else ' corrected'}{f': {told}' if told else ''}"
