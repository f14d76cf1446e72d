"""A simulated season told through the use cases, as its keeper would have recorded it.

What really happened stays untold: a keeper writes down what was seen.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from functools import partial
from typing import Final

from sandboa.core.animals import TraitForm
from sandboa.core.box import Closing, shell_marks
from sandboa.core.candling import Disc, Vessels
from sandboa.core.causes import FindingKind
from sandboa.core.hatching import Defect, Fate, Size, YolkLeft
from sandboa.core.lay_day import EggEvent
from sandboa.core.pairing.genes import DoubleForm, Inheritance
from sandboa.demo.replay_visits import visit_of
from sandboa.devices.simulation import Sensor, log_probe
from sandboa.devices.simulation.fates import Glance
from sandboa.devices.simulation.season_stories import (
    AnimalStory,
    CabinetStory,
    ClutchStory,
    EggStory,
    SeasonStory,
)
from sandboa.records.house import Animal, Device, named
from sandboa.services.animals.commands import AnimalCommand, add_animal, weigh
from sandboa.services.animals.genes import GeneCommand, add_gene
from sandboa.services.animals.traits import TraitCommand
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    add_cabinet,
    alter_cabinet,
)
from sandboa.services.hatching.egg_events import cut_egg, see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates, finish
from sandboa.services.hatching.hatchlings import HatchlingCommand, record_hatchling
from sandboa.services.lay_day import EggLaid, LayDay, lay_clutch
from sandboa.services.lay_day.day import EggHappening
from sandboa.services.losses.openings import OpeningCommand, record_opening
from sandboa.services.probes.commands import ProbePlace, hang_probe
from sandboa.services.probes.devices import add_device
from sandboa.services.readings.intake import take_in
from sandboa.services.rounds.close_visit import close_visit

Event = tuple[float, Callable[[], object]]

_DAY_S: Final = 86_400.0
_READINGS_EVERY_S: Final = 3_600.0
#: From coming out to the scale and the card: it is let dry and settle.
_DRY_AFTER_S: Final = 43_200.0


@dataclass(frozen=True)
class ReplayScope:
    """What of the season is told: withheld, there is less to go by."""

    readings: bool = True
    openings: bool = True
    probes_checked: bool = True
    #: False: only that eggs were laid, by whom and where, and how many hatched.
    anything: bool = True


def tell(story: SeasonStory, began_s: float, told: ReplayScope | None = None) -> Iterator[Event]:
    """The season's events, each with its moment (s), in no order."""
    told = told or ReplayScope()
    year = datetime.fromtimestamp(began_s, UTC).year
    for number, (name, inheritance, double) in enumerate(story.genes if told.anything else ()):
        at_s = began_s - 300 * _DAY_S + number
        said = GeneCommand(name, Inheritance(inheritance), DoubleForm(double))
        yield at_s, partial(add_gene, said, at_s)
    for animal in story.animals:
        yield from _animal(animal if told.anything else _named_only(animal), began_s, year)
    for cabinet in story.cabinets:
        yield from _cabinet(cabinet, story.days, began_s, told)
    set_to = {cabinet.name: cabinet.set_point_c for cabinet in story.cabinets}
    for number, clutch in enumerate(sorted(story.clutches, key=lambda c: c.laid_day), start=1):
        code = f"{datetime.fromtimestamp(began_s + clutch.laid_day * _DAY_S, UTC):%y}-{number:02d}"
        yield from tell_clutch(clutch, code, began_s, set_to[clutch.cabinet], told)


def tell_clutch(
    story: ClutchStory,
    code: str,
    began_s: float,
    set_point_c: float,
    told: ReplayScope | None = None,
) -> Iterator[Event]:
    """A clutch from lay day to its closing, and its failed eggs opened.

    Its day 0 is `began_s` (s), its cabinet set to `set_point_c`.
    """
    told = told or ReplayScope()
    laid_s = began_s + story.laid_day * _DAY_S
    laid_s -= laid_s % 60

    def at(day: float) -> float:
        return float(int(laid_s + day * _DAY_S))

    laid = _lay_day(story, code, laid_s, set_point_c)
    yield at(0.05), partial(lay_clutch, laid if told.anything else _counted_only(laid), at(0.05))
    before: dict[int, Glance] = {}
    for number, visit in enumerate(story.visits if told.anything else ()):
        key, closed_s = f"told.{code}.{number}", at(visit.day)
        yield closed_s, partial(close_visit, visit_of(visit, key, code, closed_s, before), closed_s)
        before = visit.glances
    for egg in story.eggs:
        if told.anything or egg.out_day is not None:
            yield from _hatch(egg if told.anything else replace(egg, cut_day=None), code, at)
    closed_s = at(story.days)
    fates = partial(_say_fates, story, code, closed_s - 60, stage_known=told.anything)
    yield closed_s - 60, fates
    yield closed_s, partial(finish, code, closed_s, closed_s)
    for egg in story.eggs:
        if egg.cause is not None:
            yield closed_s + 60, partial(_open, egg, code, closed_s + 60, told.openings)


def _animal(animal: AnimalStory, began_s: float, year: int) -> Iterator[Event]:
    at_s = began_s - 299 * _DAY_S
    said = AnimalCommand(
        animal.role,
        animal.name,
        hatch_year=year - animal.born_years_ago,
        traits=tuple(TraitCommand(name, TraitForm(form)) for name, form in animal.traits),
    )
    yield at_s, partial(add_animal, said, at_s)
    for day, mass_g in animal.weights:
        when_s = began_s + day * _DAY_S
        yield when_s, partial(_weigh, animal.name, round(mass_g), when_s)


def _weigh(name: str, mass_g: float, at_s: float) -> None:
    animal = named(Animal, name)
    assert animal is not None, "animals are told of first"
    weigh(animal.entity_id, mass_g, at_s, at_s, confirmed=True)


def _cabinet(
    story: CabinetStory, days: float, began_s: float, told: ReplayScope
) -> Iterator[Event]:
    first_s = began_s + story.first_day * _DAY_S
    said = CabinetCommand(story.name, CabinetKind.HOME_BUILT, story.shelves)
    yield first_s, partial(add_cabinet, said, story.set_point_c, first_s, first_s)
    if told.anything and story.altered_day is not None:
        at_s = began_s + story.altered_day * _DAY_S
        what = "foam drilled for a cable"
        yield at_s, partial(alter_cabinet, story.name, what, at_s, at_s)
    if told.readings:
        yield began_s, partial(_hang, story, began_s, told)
        end_s = began_s + days * _DAY_S
        yield end_s, partial(_send, story, end_s)


def _hang(story: CabinetStory, began_s: float, told: ReplayScope) -> None:
    add_device(f"{story.name} logger", began_s)
    device = named(Device, f"{story.name} logger")
    assert device is not None, "added just now"
    for shelf in story.shelves:
        place = ProbePlace(cabinet=story.name, shelf=shelf)
        hang_probe(
            f"{story.name} {shelf}", place, began_s, began_s,
            checked=told.probes_checked, device=device.entity_id,
        )  # fmt: skip


def _send(story: CabinetStory, end_s: float) -> None:
    device = named(Device, f"{story.name} logger")
    assert device is not None, "added with the probes"
    for number, shelf in enumerate(story.shelves):
        logged = log_probe(
            f"{story.name} {shelf}", story.was, number,
            sensor=Sensor(noise_c=0.03, step_c=0.05, every_s=_READINGS_EVERY_S),
            mishaps=story.mishaps, seed=number,
        )  # fmt: skip
        take_in(device, [(logged.name, at_s, c, h) for at_s, c, h in logged.rows()], end_s)


def _lay_day(story: ClutchStory, code: str, laid_s: float, set_point_c: float) -> LayDay:
    return LayDay(
        dam=story.dam,
        sire=story.sire,
        code=code,
        laid_at=datetime.fromtimestamp(laid_s, UTC),
        eggs=tuple(_egg_laid(egg, laid_s) for egg in story.eggs),
        medium=story.medium,
        dry_mass_g=story.dry_g,
        water_g=story.water_g,
        closing=Closing(story.closing),
        set_up_mass_g=round(story.set_up_g),
        cabinet=story.cabinet,
        shelf=story.shelf,
        set_point_c=set_point_c,
        second_clutch=True,
    )


def _egg_laid(egg: EggStory, laid_s: float) -> EggLaid:
    x, y = egg.place
    knocked = egg.findings.get("_knocked")
    dropped = knocked and float(knocked[0]) <= 0.01
    return EggLaid(
        round(x, 4),
        round(y, 4),
        slug=egg.slug,
        shells=shell_marks(egg.shell),
        vessels=Vessels(egg.vessels_at_lay) if egg.vessels_at_lay else None,
        disc=Disc(egg.disc) if egg.disc else None,
        clump=1,
        events=(EggHappening(EggEvent.DROPPED, laid_s),) if dropped else (),
    )


def _hatch(egg: EggStory, code: str, at: Callable[[float], float]) -> Iterator[Event]:
    if egg.cut_day is not None:
        cut_s = at(egg.cut_day)
        yield cut_s, partial(cut_egg, code, egg.number, "set day", cut_s, cut_s, bled=egg.bled)
    if egg.pip_day is not None:
        pip_s = at(egg.pip_day)
        yield pip_s, partial(see_pip, code, egg.number, pip_s, pip_s)
    if egg.out_day is not None:
        out_s = at(egg.out_day)
        yield out_s, partial(see_emergence, code, egg.number, out_s, out_s)
        said = HatchlingCommand(
            egg.number,
            mass_g=round(egg.mass_g, 1),
            size=Size.SMALL if egg.small else Size.USUAL,
            yolk=YolkLeft.ABSORBED,
            traits=tuple(TraitCommand(name, TraitForm(form)) for name, form in egg.traits or ()),
            plain=egg.traits == (),
            defects=tuple(Defect(defect) for defect in egg.defects),
        )
        written_s = out_s + _DRY_AFTER_S
        yield written_s, partial(record_hatchling, code, said, written_s)


def _named_only(animal: AnimalStory) -> AnimalStory:
    return replace(animal, traits=(), weights=())


def _counted_only(laid: LayDay) -> LayDay:
    """The lay day of a keeper who looked at nothing and weighed nothing."""
    unseen = tuple(EggLaid(egg.x, egg.y, slug=egg.slug, clump=egg.clump) for egg in laid.eggs)
    return replace(laid, eggs=unseen, dry_mass_g=None, water_g=None, set_up_mass_g=None)


def _say_fates(story: ClutchStory, code: str, at_s: float, *, stage_known: bool) -> None:
    said = [
        FateCommand(
            egg.number,
            Fate.PIPPED_DIED if stage_known and egg.pip_day is not None else Fate.DEAD_IN_EGG,
        )
        for egg in story.eggs
        if egg.cause is not None
    ]
    if said:
        declare_fates(code, said, at_s, at_s)


def _open(egg: EggStory, code: str, at_s: float, opened: bool) -> None:
    if not opened:
        return
    findings = {
        FindingKind(kind): frozenset(values)
        for kind, values in egg.findings.items()
        if not kind.startswith("_")
    }
    if "yolk only" in findings.get(FindingKind.STAGE, frozenset()):
        for kind in (FindingKind.POSITION, FindingKind.CORD, FindingKind.FORM):
            findings.pop(kind, None)
    record_opening(code, OpeningCommand(egg.number, True, findings), at_s, at_s)
