"""A clutch whose eggs can still be recorded: not before lay, not after it was closed."""

from sandboa.core.errors import NotPlausible
from sandboa.core.hatching.fates import EggRecord
from sandboa.core.rounds import EggActKind
from sandboa.records.clutches import Clutch, Egg, EggEvent
from sandboa.records.hatching import Emergence, Finished, Pip
from sandboa.services.acts.errors import Conflict
from sandboa.services.acts.preconditions import clutch_called, egg_of, require_between_lay_and_now


def open_clutch(code: str, at_s: float, now_s: float) -> Clutch:
    """The clutch, when something of it at `at_s` can be recorded now.

    Raises NotFound; NotPlausible for a time before lay or ahead; Conflict
    when it is closed.
    """
    clutch = clutch_called(code)
    require_between_lay_and_now(clutch, at_s, now_s)
    require_open(clutch)
    return clutch


def require_open(clutch: Clutch) -> None:
    """Raise Conflict when the clutch is closed: what became of its eggs stands then."""
    if Finished.only(clutch_id=clutch.entity_id) is not None:
        raise Conflict(f"clutch {clutch.code} is closed: reopen it first")


def fertile_egg(clutch: Clutch, number: int, does: str) -> Egg:
    """The egg of that number; NotFound without one, NotPlausible when it is a slug."""
    egg = egg_of(clutch, number)
    if egg.slug:
        raise NotPlausible("number", f"egg {number} is a slug: it cannot {does}")
    return egg


def record_of(egg: Egg) -> EggRecord:
    """How the egg ended, as far as it is recorded."""
    pip = Pip.only(egg_id=egg.entity_id)
    out = Emergence.only(egg_id=egg.entity_id)
    removal = EggEvent.only(egg_id=egg.entity_id, kind=EggActKind.REMOVED.value)
    return EggRecord(
        egg.number,
        bool(egg.slug),
        pipped_s=float(pip.seen_s) if pip else None,
        emerged_s=float(out.seen_s) if out else None,
        removed_s=float(removal.at_s) if removal else None,
    )
