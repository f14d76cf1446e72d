"""Who is meant for whom, visits and locks, and the signs that a dam will lay."""

from dataclasses import dataclass
from math import inf

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM, SIRE
from sandboa.core.errors import NotPlausible
from sandboa.core.laying import Sign
from sandboa.core.units import CLOCK_GRACE_S, require_moment
from sandboa.records import animals as recorded
from sandboa.records.animals import Lock, Pair, Pairing
from sandboa.records.facts import Act
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act
from sandboa.services.animals.commands import find_animal
from sandboa.services.animals.individuals import individual, require_not_left


def plan_pair(dam: int, sire: int, now_s: float) -> Act:
    """Mean a dam and a sire for each other; Conflict when they are so already.

    NotPlausible when either has left the house.
    """
    her, him = find_animal(dam, DAM), find_animal(sire, SIRE)
    _require_both_here(dam, sire, inf)
    if Pair.only(dam_id=dam, sire_id=sire) is not None:
        raise Conflict(f"{her.name} and {him.name} are planned already")
    with act(ActKind.PAIR, f"Planned: {her.name} × {him.name}", now_s) as planning:
        Pair.record(planning, dam_id=dam, sire_id=sire, since_s=int(now_s))
    return planning


def drop_pair(dam: int, sire: int, now_s: float) -> Act:
    """Take a pair out of the plan; NotFound when it is not in it."""
    pair = Pair.only(dam_id=dam, sire_id=sire)
    if pair is None:
        raise NotFound("these two are not planned")
    her, him = find_animal(dam), find_animal(sire)
    with act(ActKind.PAIR, f"No longer planned: {her.name} × {him.name}", now_s) as dropping:
        pair.retire(dropping)
    return dropping


def begin_pairing(
    dam: int,
    sire: int,
    from_s: float,
    now_s: float,
    until_s: float | None = None,
    lock_s: float | None = None,
) -> tuple[int, Act]:
    """Record that a sire visits a dam; with `until_s`, a visit that is over; with `lock_s`, a lock.

    The two are in the plan from then on. Raises Conflict when either is with
    another, NotPlausible for times in the future, an end before the start, a
    lock outside the visit, or a time after either left the house.
    """
    her, him = find_animal(dam, DAM), find_animal(sire, SIRE)
    _require_visit(dam, sire, from_s, until_s, now_s)
    if lock_s is not None:
        _require_together("lock_at", lock_s, from_s, now_s if until_s is None else until_s)
    if until_s is None:
        _require_parted(dam, sire)
    with act(ActKind.PAIRING, f"{him.name} with {her.name}", now_s) as pairing:
        row = Pairing.record(
            pairing,
            dam_id=dam,
            sire_id=sire,
            from_s=int(from_s),
            until_s=None if until_s is None else int(until_s),
        )
        if Pair.only(dam_id=dam, sire_id=sire) is None:
            Pair.record(pairing, dam_id=dam, sire_id=sire, since_s=int(from_s))
        if lock_s is not None:
            Lock.record(pairing, pairing_id=row.entity_id, seen_s=int(lock_s))
    return row.entity_id, pairing


def end_pairing(entity: int, until_s: float, now_s: float) -> Act:
    """Record that the two were parted."""
    visit = _visit(entity)
    _require_past("until", until_s, now_s)
    if until_s < visit.from_s:
        raise NotPlausible("until", "it cannot end before it began")
    her, him = find_animal(visit.dam_id), find_animal(visit.sire_id)
    with act(ActKind.PAIRING, f"{him.name} parted from {her.name}", now_s) as parting:
        visit.correct(parting, until_s=int(until_s))
    return parting


@dataclass(frozen=True, slots=True)
class PairingTimes:
    """A visit's times (s): `until_s` None while the two are together, `lock_s` of its only lock."""

    from_s: float
    until_s: float | None = None
    lock_s: float | None = None


def correct_pairing(entity: int, times: PairingTimes, now_s: float) -> Act:
    """Correct from when until when a sire was with a dam, and when its only lock was seen.

    Raises NotFound for an unknown pairing, Conflict when either is with another, NotPlausible as
    `begin_pairing` does, and for times that leave out a lock that was seen.
    """
    from_s, until_s = times.from_s, times.until_s
    visit = _visit(entity)
    her, him = find_animal(visit.dam_id), find_animal(visit.sire_id)
    _require_visit(visit.dam_id, visit.sire_id, from_s, until_s, now_s)
    if until_s is None:
        _require_parted(visit.dam_id, visit.sire_id, besides=entity)
    locks = Lock.current(pairing_id=entity)
    last_s = now_s if until_s is None else until_s
    if times.lock_s is not None:
        _require_together("lock", times.lock_s, from_s, last_s)
    else:
        for lock in locks:
            field = "from" if lock.seen_s < from_s else "until"
            missed = "a lock was seen outside that time: correct the lock first"
            _require_together(field, lock.seen_s, from_s, last_s, missed)
    with act(ActKind.PAIRING, f"Corrected: {him.name} with {her.name}", now_s) as correcting:
        until = None if until_s is None else int(until_s)
        visit.correct(correcting, from_s=int(from_s), until_s=until)
        if times.lock_s is not None:
            for lock in locks:
                lock.correct(correcting, seen_s=int(times.lock_s))
    return correcting


def see_lock(entity: int, seen_s: float, now_s: float) -> Act:
    """Record a lock seen during a pairing; NotPlausible outside its time."""
    visit = _visit(entity)
    _require_past("seen", seen_s, now_s)
    _require_together("seen", seen_s, visit.from_s, visit.until_s or seen_s)
    her, him = find_animal(visit.dam_id), find_animal(visit.sire_id)
    with act(ActKind.LOCK, f"Lock seen: {her.name} × {him.name}", now_s) as seeing:
        Lock.record(seeing, pairing_id=entity, seen_s=int(seen_s))
    return seeing


def see_sign(dam: int, sign: Sign, seen_s: float, now_s: float) -> Act:
    """Record off food, ovulation or a pre-lay shed of a dam."""
    her = find_animal(dam, DAM)
    _require_past("seen", seen_s, now_s)
    require_not_left(individual(dam), seen_s, "seen")
    with act(ActKind.SIGN, f"{her.name}: {sign}", now_s) as seeing:
        recorded.Sign.record(seeing, dam_id=dam, kind=sign.value, seen_s=int(seen_s))
    return seeing


def _require_both_here(dam: int, sire: int, at_s: float) -> None:
    require_not_left(individual(dam), at_s, "dam")
    require_not_left(individual(sire), at_s, "sire")


def _require_visit(dam: int, sire: int, from_s: float, until_s: float | None, now_s: float) -> None:
    _require_past("from", from_s, now_s)
    _require_both_here(dam, sire, from_s if until_s is None else until_s)
    if until_s is not None:
        _require_past("until", until_s, now_s)
        if until_s < from_s:
            raise NotPlausible("until", "it cannot end before it began")


def _require_parted(dam: int, sire: int, besides: int | None = None) -> None:
    for visit in Pairing.current(until_s=None):
        if visit.entity_id != besides and (visit.dam_id == dam or visit.sire_id == sire):
            one, other = find_animal(visit.dam_id), find_animal(visit.sire_id)
            raise Conflict(f"{one.name} and {other.name} are together: part them first")


def _visit(entity: int) -> Pairing:
    visit = Pairing.now(entity)
    if visit is None:
        raise NotFound("there is no such pairing")
    return visit


def _require_past(field: str, at_s: float, now_s: float) -> None:
    require_moment(field, at_s)
    if at_s > now_s + CLOCK_GRACE_S:
        raise NotPlausible(field, "that time is in the future")


def _require_together(
    field: str,
    seen_s: float,
    from_s: float,
    until_s: float,
    otherwise: str = "the two were not together then",
) -> None:
    if not from_s <= seen_s <= until_s:
        raise NotPlausible(field, otherwise)
