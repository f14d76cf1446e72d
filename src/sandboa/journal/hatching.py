"""Pips as they are seen, and a clutch that is done with pipping."""

from sandboa.core.errors import NotPlausible
from sandboa.journal.acts import act
from sandboa.journal.at_the_box import clutch_called, egg_of, require_between_lay_and_now
from sandboa.journal.errors import Conflict
from sandboa.records.clutches import Finished, Pip
from sandboa.records.facts import Act


def see_pip(code: str, number: int, seen_s: float, now_s: float) -> Act:
    """Record that an egg has pipped, as seen at `seen_s`.

    Raises NotFound for an unknown clutch or egg; NotPlausible for a slug, or
    a time before lay or ahead; Conflict when its pip is recorded already.
    """
    clutch = clutch_called(code)
    egg = egg_of(clutch, number)
    if egg.slug:
        raise NotPlausible("number", f"egg {number} is a slug: it cannot pip")
    require_between_lay_and_now(clutch, seen_s, now_s)
    if Pip.only(Pip.egg == egg.entity) is not None:
        raise Conflict(f"egg {number} has pipped already: undo that to correct its time")
    with act("pip", f"Egg {number} pipped", now_s, clutch.entity) as seeing:
        Pip.record(seeing, egg=egg.entity, seen_s=int(seen_s))
    return seeing


def finish(code: str, at_s: float, now_s: float) -> Act:
    """Record that no more eggs of the clutch will pip; what it took is learned from.

    Raises NotFound, NotPlausible for a time before lay or ahead, Conflict when done already.
    """
    clutch = clutch_called(code)
    require_between_lay_and_now(clutch, at_s, now_s)
    if Finished.only(Finished.clutch == clutch.entity) is not None:
        raise Conflict(f"clutch {clutch.code} is done already")
    with act("finished", f"Clutch {clutch.code} is done", now_s, clutch.entity) as finishing:
        Finished.record(finishing, clutch=clutch.entity, at_s=int(at_s))
    return finishing
