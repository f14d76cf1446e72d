"""What lay day said of one egg: its shell, clump and grams, what a torch showed, what happened."""

from dataclasses import dataclass

from sandboa.core.act_kinds import ActKind
from sandboa.core.box import Shell, shell_marks, stored_marks
from sandboa.core.candling import Disc, Vessels
from sandboa.core.clutch_count import MOST_EGGS
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EGG_MASS_RANGE_G, EggEvent
from sandboa.core.units import SECONDS_PER_DAY, require_range
from sandboa.records import clutches
from sandboa.records.clutches import Candling, Clutch, Egg
from sandboa.records.facts import Act
from sandboa.services.acts.preconditions import clutch_called, egg_of, lying_since_s
from sandboa.services.acts.recording import act


@dataclass(frozen=True, slots=True)
class EggAsLaid:
    """An egg as lay day told of it. Mass in g, None when it was not weighed; `vessels` None when
    it was not candled; `events` are what happened to it then."""

    slug: bool = False
    shells: tuple[Shell, ...] = ()
    clump: int | None = None
    mass_g: float | None = None
    vessels: Vessels | None = None
    disc: Disc | None = None
    events: tuple[EggEvent, ...] = ()


def egg_as_laid(code: str, number: int) -> EggAsLaid:
    """What lay day said of an egg; NotFound for an unknown one."""
    clutch = clutch_called(code)
    egg = egg_of(clutch, number)
    look = _look(clutch, egg)
    return EggAsLaid(
        slug=bool(egg.slug),
        shells=shell_marks(egg.shell),
        clump=egg.clump,
        mass_g=egg.mass_g,
        vessels=Vessels(look.vessels) if look else None,
        disc=Disc(look.disc) if look and look.disc else None,
        events=tuple(EggEvent(row.kind) for row in _events(clutch, egg)),
    )


def correct_egg_as_laid(code: str, number: int, said: EggAsLaid, now_s: float) -> Act:
    """Correct what lay day said of an egg; only what differs is superseded.

    Raises NotFound; NotPlausible for a mass or clump that cannot be, an event named twice, or a
    slug with vessels.
    """
    clutch = clutch_called(code)
    egg = egg_of(clutch, number)
    _check(said)
    with act(
        ActKind.CORRECT, f"Egg {number} as laid corrected", now_s, clutch.entity_id
    ) as correcting:
        values = {
            "slug": int(said.slug),
            "shell": stored_marks(said.shells),
            "clump": said.clump,
            "mass_g": said.mass_g,
        }
        egg.correct_if_changed(correcting, **values)
        _correct_look(correcting, clutch, egg, said)
        _correct_events(correcting, clutch, egg, said.events)
    return correcting


def _check(said: EggAsLaid) -> None:
    if said.mass_g is not None:
        require_range("mass_g", said.mass_g, EGG_MASS_RANGE_G, "g")
    if said.clump is not None and not 1 <= said.clump <= MOST_EGGS:
        raise NotPlausible("clump", f"clumps are numbered 1 to {MOST_EGGS}")
    if len(set(said.events)) < len(said.events):
        raise NotPlausible("events", "each of them once")
    if said.slug and (said.vessels is not None or said.disc is not None):
        raise NotPlausible("vessels", "a slug has no vessels: say one of the two")


def _correct_look(correcting: Act, clutch: Clutch, egg: Egg, said: EggAsLaid) -> None:
    look = _look(clutch, egg)
    if said.vessels is None and said.disc is None:
        if look is not None:
            look.retire(correcting)
        return
    # Who noted where the disc lies has looked, whatever the vessels were.
    values = {
        "vessels": (said.vessels or Vessels.UNSURE).value,
        "disc": said.disc.value if said.disc else None,
    }
    if look is None:
        Candling.record(correcting, egg_id=egg.entity_id, seen_s=lying_since_s(clutch), **values)
    else:
        look.correct_if_changed(correcting, **values)


def _correct_events(
    correcting: Act, clutch: Clutch, egg: Egg, events: tuple[EggEvent, ...]
) -> None:
    held = {row.kind: row for row in _events(clutch, egg)}
    for kind in events:
        if held.pop(kind.value, None) is None:
            clutches.EggEvent.record(
                correcting, egg_id=egg.entity_id, at_s=lying_since_s(clutch), kind=kind.value
            )
    for gone in held.values():
        gone.retire(correcting)


def _look(clutch: Clutch, egg: Egg) -> Candling | None:
    """The candling of lay day: the first one within a day of it."""
    looks = sorted(Candling.current(egg_id=egg.entity_id), key=lambda row: row.seen_s)
    first = looks[0] if looks else None
    return first if first is not None and first.seen_s <= _ended_s(clutch) else None


def _events(clutch: Clutch, egg: Egg) -> list[clutches.EggEvent]:
    kinds = {kind.value for kind in EggEvent}
    rows = clutches.EggEvent.current(egg_id=egg.entity_id)
    own = [row for row in rows if row.kind in kinds and row.at_s <= _ended_s(clutch)]
    return sorted(own, key=lambda row: (row.at_s, row.id))


def _ended_s(clutch: Clutch) -> float:
    return lying_since_s(clutch) + SECONDS_PER_DAY
