"""What lay day said of the dam: whether a lump was left, and what she weighed after laying."""

from dataclasses import dataclass
from typing import Any

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import require_weight
from sandboa.core.lay_day import Lump
from sandboa.records.animals import Weight
from sandboa.records.clutches import Clutch, DamCheck
from sandboa.records.facts import Act, FactT
from sandboa.records.house import Animal
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import clutch_called, lying_since_s
from sandboa.services.acts.recording import act


@dataclass(frozen=True, slots=True)
class DamAtLaying:
    """`lump` None where nobody felt her, `mass_g` (g) where nobody weighed her then."""

    lump: Lump | None
    mass_g: float | None


def dam_at_laying(code: str) -> DamAtLaying:
    """What lay day said of a clutch's dam; NotFound for an unknown code."""
    clutch = clutch_called(code)
    felt, weighed = _felt(clutch), _weighed(clutch)
    return DamAtLaying(
        None if felt is None else Lump(felt.lump), None if weighed is None else weighed.mass_g
    )


def correct_dam_at_laying(code: str, said: DamAtLaying, now_s: float) -> Act:
    """Correct what lay day said of the dam; the earlier values stay in the log.

    What was not said on lay day is recorded as of then. Raises NotFound for an unknown code,
    NotPlausible for a weight no dam has.
    """
    clutch = clutch_called(code)
    dam = Animal.now(clutch.dam_id)
    if dam is None:
        raise NotFound("the dam of that clutch is no more")
    if said.mass_g is not None:
        require_weight(said.mass_g, None)
    felt, weighed = _felt(clutch), _weighed(clutch)
    words = f"{dam.name} as {clutch.code} was laid corrected"
    with act(ActKind.CORRECT, words, now_s, clutch.entity_id) as correcting:
        lump = None if said.lump is None else said.lump.value
        as_of_then = _after_laying_s(clutch)
        _say(
            correcting, DamCheck, felt, {"lump": lump}, clutch_id=clutch.entity_id, at_s=as_of_then
        )
        _say(
            correcting, Weight, weighed, {"mass_g": said.mass_g},
            animal_id=clutch.dam_id, at_s=as_of_then,
        )  # fmt: skip
    return correcting


def _say(
    correcting: Act,
    table: type[FactT],
    held: FactT | None,
    said: dict[str, Any],
    **of: int,
) -> None:
    """Record what is said of one column, correct what was, or take it back where nothing is."""
    (value,) = said.values()
    if held is None:
        if value is not None:
            table.record(correcting, **of, **said)
    elif value is None:
        held.retire(correcting)
    else:
        held.correct_if_changed(correcting, **said)


def move_with_lay_time(correcting: Act, clutch: Clutch, laid_s: int, begins_s: int) -> None:
    """Move what was said of the dam as her eggs were laid, where the lay time is corrected.

    `begins_s` is when her eggs came into their boxes. A weight that would be from before she laid
    then is of when she had laid.
    """
    felt, weighed = _felt(clutch), _weighed(clutch)
    if felt is not None and felt.at_s in (lying_since_s(clutch), _after_laying_s(clutch)):
        felt.correct_if_changed(correcting, at_s=begins_s)
    if weighed is not None and weighed.at_s == _after_laying_s(clutch):
        weighed.correct_if_changed(correcting, at_s=max(begins_s, laid_s + 1))
    elif weighed is not None and weighed.at_s <= laid_s:
        weighed.correct(correcting, at_s=laid_s + 1)


def _felt(clutch: Clutch) -> DamCheck | None:
    return DamCheck.only(clutch_id=clutch.entity_id)


def _weighed(clutch: Clutch) -> Weight | None:
    """The weight lay day recorded, or one said later as of then."""
    laying = min(row.act_id for row in Clutch.ever(entity_id=clutch.entity_id))
    recorded = Weight.ever(animal_id=clutch.dam_id, act_id=laying)
    standing = [now for row in recorded if (now := Weight.now(row.entity_id)) is not None]
    as_of_then = Weight.current(animal_id=clutch.dam_id, at_s=_after_laying_s(clutch))
    return next(iter([*standing, *as_of_then]), None)


def _after_laying_s(clutch: Clutch) -> int:
    """As on lay day: after she laid, by a second at least, or it was her weight before."""
    return max(lying_since_s(clutch), clutch.laid_s + 1)
