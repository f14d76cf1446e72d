"""House methods: made, changed, chosen; and the copy each clutch has."""

from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from enum import StrEnum

from sandboa.core.act_kinds import ActKind
from sandboa.core.box import Closing
from sandboa.core.dam_care import TubSchool
from sandboa.core.methods import (
    STANDARD,
    ClumpSchool,
    Contact,
    CuttingSchool,
    DamSchool,
    Difference,
    LastDays,
    Method,
    MouldSchool,
    Visits,
    checked,
    differences,
)
from sandboa.records import methods as recorded
from sandboa.records.clutches import clutch_coded
from sandboa.records.facts import Act, act_of
from sandboa.records.methods import ClutchMethod, MethodLines
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.recording import act, together
from sandboa.services.snapshot.settings import house_settings


@dataclass(frozen=True, slots=True)
class HouseMethod:
    """A house method; `entity` None is the standard that no one has changed yet."""

    entity: int | None
    method: Method
    chosen: bool


def house_methods() -> list[HouseMethod]:
    """All house methods, the chosen one first; a new house has the standard."""
    rows = sorted(recorded.Method.current(), key=lambda r: (-r.chosen, r.name.casefold()))
    own = [HouseMethod(row.entity_id, method_of(row), bool(row.chosen)) for row in rows]
    if any(m.chosen for m in own):
        return own
    return [HouseMethod(None, STANDARD, chosen=True), *own]


def chosen_method() -> Method:
    """The method a new clutch starts from."""
    return house_methods()[0].method


def find_method(entity: int) -> HouseMethod:
    """A house method; NotFound for an unknown one."""
    held = recorded.Method.now(entity)
    if held is None:
        raise NotFound("there is no such method")
    return HouseMethod(entity, method_of(held), bool(held.chosen))


def add_method(method: Method, now_s: float, *, chosen: bool) -> tuple[int, Act]:
    """Record a house method; Conflict when its name is taken, NotPlausible when it cannot be."""
    method = checked(method, house_settings().rules.clock)
    _require_free(method.name, own=None)
    with act(ActKind.METHOD, f"House method {method.name}", now_s) as adding:
        if chosen:
            _choose_none(adding)
        row = recorded.Method.record(adding, **lines_of(method), chosen=int(chosen))
    return row.entity_id, adding


def change_method(entity: int, method: Method, now_s: float, *, chosen: bool) -> Act:
    """Change a house method; clutches keep the copy they have."""
    held = recorded.Method.now(entity)
    if held is None:
        raise NotFound("there is no such method")
    method = checked(method, house_settings().rules.clock)
    _require_free(method.name, own=entity)
    with act(ActKind.METHOD, f"House method {method.name} changed", now_s) as changing:
        if chosen and not held.chosen:
            _choose_none(changing)
        held.correct(changing, **lines_of(method), chosen=int(chosen))
    return changing


def drop_method(entity: int, now_s: float) -> Act:
    """Take a house method away; clutches keep their copies."""
    held = recorded.Method.now(entity)
    if held is None:
        raise NotFound("there is no such method")
    with act(ActKind.METHOD, f"House method {held.name} taken away", now_s) as dropping:
        held.retire(dropping)
    return dropping


def method_of_clutch(clutch: int) -> Method:
    """The clutch's own copy; the house's method for clutches that were recorded without."""
    row = ClutchMethod.only(clutch_id=clutch)
    return method_of(row) if row else chosen_method()


def was_chosen(row: ClutchMethod) -> bool:
    """Whether somebody chose a clutch's method: a house method, or a change of its own.

    What a house starts with, copied on lay day while nobody had chosen
    anything, is a default and nobody's decision.
    """
    if row.name != STANDARD.name or recorded.Method.current(name=row.name):
        return True
    return act_of(row).kind == ActKind.METHOD


def departures(own: Method) -> tuple[str, tuple[Difference, ...]]:
    """The house method of the same name (else the chosen one), and where `own` differs from it."""
    house = house_methods()
    named = next((m.method for m in house if m.method.name == own.name), house[0].method)
    return named.name, differences(named, own)


def change_clutch_method(code: str, method: Method, now_s: float) -> Act:
    """Let one clutch differ from its house; NotFound, NotPlausible as above.

    The dam's part stays as it was on lay day: eggs do not go back to her.
    """
    clutch = clutch_coded(code)
    if clutch is None:
        raise NotFound(f"there is no clutch {code}")
    method = checked(
        replace(method, dam=method_of_clutch(clutch.entity_id).dam), house_settings().rules.clock
    )
    held = ClutchMethod.only(clutch_id=clutch.entity_id)
    with act(
        ActKind.METHOD, f"Method of {clutch.code} changed", now_s, clutch.entity_id
    ) as changing:
        if held is None:
            ClutchMethod.record(changing, clutch_id=clutch.entity_id, **lines_of(method))
        else:
            held.correct(changing, **lines_of(method))
    return changing


def copy_to_clutches(name: str, codes: Sequence[str], now_s: float) -> Act:
    """Let clutches follow the house method of that name as it is now: in one act, all or none.

    Raises NotFound for an unknown method or clutch; NotPlausible where the method cannot be.
    """
    house = next((m.method for m in house_methods() if m.method.name == name), None)
    if house is None:
        raise NotFound(f"there is no method {name}")
    to = f"{len(codes)} clutches" if len(codes) != 1 else codes[0]
    words = f"House method {name} copied to {to}"
    with together(ActKind.METHOD, words, now_s, None) as copying:
        for code in codes:
            change_clutch_method(code, house, now_s)
    return copying


def lines_of(method: Method) -> dict[str, object]:
    """The columns of a method."""
    return {k: v.value if isinstance(v, StrEnum) else v for k, v in asdict(method).items()}


def method_of(row: MethodLines) -> Method:
    """The core's form of a recorded method."""
    return Method(
        name=row.name,
        medium=row.medium,
        ratio=row.ratio,
        contact=Contact(row.contact),
        closing=Closing(row.closing),
        temperature_c=row.temperature_c,
        visits=Visits(row.visits),
        mould=MouldSchool(row.mould),
        cutting=CuttingSchool(row.cutting),
        set_day=row.set_day,
        last_days=LastDays(row.last_days),
        clump=ClumpSchool(row.clump),
        tub=TubSchool(row.tub),
        dam=DamSchool(row.dam),
    )


def _choose_none(choosing: Act) -> None:
    for row in recorded.Method.current(chosen=1):
        row.correct(choosing, chosen=0)


def _require_free(name: str, own: int | None) -> None:
    for row in recorded.Method.current():
        if row.entity_id != own and row.name.casefold() == name.casefold():
            raise Conflict(f"there is a method {row.name} already")
