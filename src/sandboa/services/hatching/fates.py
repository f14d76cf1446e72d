"""Fates: declared by the keeper, all of them before a clutch is closed; and a clutch reopened."""

from collections.abc import Sequence
from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import DeathStage, Fate
from sandboa.core.hatching.fates import following_fate, require_fate_fits
from sandboa.core.rounds.due import which_eggs
from sandboa.records.clutches import Clutch, Egg
from sandboa.records.facts import Act
from sandboa.records.hatching import EggFate, Finished
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.preconditions import clutch_called, egg_of, require_between_lay_and_now
from sandboa.services.acts.recording import act
from sandboa.services.hatching.open_clutch import open_clutch, record_of


@dataclass(frozen=True, slots=True)
class FateCommand:
    """What the keeper says became of an egg; `stage` where it died inside."""

    number: int
    fate: Fate
    stage: DeathStage | None = None


def declare_fates(code: str, said: Sequence[FateCommand], at_s: float, now_s: float) -> Act:
    """Declare what became of eggs, all of them or none.

    Raises NotFound; NotPlausible for a fate the record rules out, an egg named
    twice, or none at all; Conflict when the clutch is closed.
    """
    clutch = open_clutch(code, at_s, now_s)
    if not said:
        raise NotPlausible("fates", "which egg, and what became of it?")
    if len({fate.number for fate in said}) < len(said):
        raise NotPlausible("fates", "the same egg is named twice")
    eggs = [(egg_of(clutch, fate.number), fate) for fate in said]
    for egg, fate in eggs:
        require_fate_fits(record_of(egg), fate.fate, fate.stage)
    with act(ActKind.FATE, _words(said), now_s, clutch.entity_id) as declaring:
        for egg, fate in eggs:
            EggFate.put(
                declaring,
                {"egg_id": egg.entity_id},
                at_s=int(at_s),
                fate=fate.fate.value,
                stage=fate.stage.value if fate.stage else None,
            )
    return declaring


def without_fate(clutch: Clutch) -> list[Egg]:
    """Eggs of which neither the keeper nor the record says what became of them, by number."""
    eggs = sorted(Egg.current(clutch_id=clutch.entity_id), key=lambda egg: egg.number)
    declared = {fate.egg_id for fate in EggFate.current(egg_id=[e.entity_id for e in eggs])}
    return [
        egg
        for egg in eggs
        if egg.entity_id not in declared and following_fate(record_of(egg)) is None
    ]


def finish(code: str, at_s: float, now_s: float) -> Act:
    """Close a clutch: every egg has its fate, and what it took to pip is learned from.

    Raises NotFound; NotPlausible for a time before lay or ahead; Conflict when
    it is closed already, or an egg's fate is not known.
    """
    clutch = clutch_called(code)
    require_between_lay_and_now(clutch, at_s, now_s)
    if Finished.only(clutch_id=clutch.entity_id) is not None:
        raise Conflict(f"clutch {clutch.code} is closed already")
    open_ended = tuple(egg.number for egg in without_fate(clutch))
    if open_ended:
        raise Conflict(f"say first what became of {which_eggs(open_ended)}")
    with act(
        ActKind.FINISHED, f"Clutch {clutch.code} is closed", now_s, clutch.entity_id
    ) as finishing:
        Finished.record(finishing, clutch_id=clutch.entity_id, at_s=int(at_s))
    return finishing


def reopen(code: str, now_s: float) -> Act:
    """Open a closed clutch again, so that a fate can be put right; Conflict when it is open."""
    clutch = clutch_called(code)
    finished = Finished.only(clutch_id=clutch.entity_id)
    if finished is None:
        raise Conflict(f"clutch {clutch.code} is open")
    with act(
        ActKind.REOPENED, f"Clutch {clutch.code} is open again", now_s, clutch.entity_id
    ) as reopening:
        finished.retire(reopening)
    return reopening


def _words(said: Sequence[FateCommand]) -> str:
    if len(said) > 3:
        return f"Fates of {len(said)} eggs"
    each = (f"egg {f.number} {f.fate}{f', {f.stage}' if f.stage else ''}" for f in said)
    words = "; ".join(each)
    return words[0].upper() + words[1:]
