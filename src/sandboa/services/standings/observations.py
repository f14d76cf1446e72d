"""What was seen of an egg, as its standing takes it."""

from collections.abc import Callable

from sandboa.core.standing import SHELL_KINDS, SIGNS, Observation, SignKind
from sandboa.records.clutches import Egg
from sandboa.services.snapshot.snapshot import Snapshot


def observations_of(
    snapshot: Snapshot, egg: Egg, share_at: Callable[[float], float], as_of_s: float
) -> list[Observation]:
    """Everything seen of an egg by `as_of_s` that bears on whether it lives; `share_at` tells the
    share it had developed at a time (s)."""
    seen = [
        Observation(c.seen_s, SignKind.VESSELS, c.vessels, share_at(c.seen_s))
        for c in snapshot.egg(egg.entity_id).candlings
    ]
    seen += [
        Observation(s.seen_s, SignKind(s.kind), s.value, share_at(s.seen_s))
        for s in snapshot.egg(egg.entity_id).signs
    ]
    shells = [o for o in seen if o.kind in SHELL_KINDS]
    against = {o.at_s for o in shells if SIGNS[o.kind, o.value].weight < 0.0}
    # Who looked at its dents looked at its shell.
    seen += [
        Observation(row.seen_s, SignKind.SHELL, "clean", share_at(row.seen_s))
        for row in snapshot.egg(egg.entity_id).turgor
        if row.seen_s not in against
    ]
    return [o for o in seen if o.at_s <= as_of_s]
