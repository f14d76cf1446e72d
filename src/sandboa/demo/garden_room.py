"""The garden room: two cabinets and a season under way, relative to the demo's own today.

Everything is recorded through the journal at the time it would have happened,
so that the demo is a history, not a set of rows.
"""

from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Final

from sandboa.core.box import Closing, Shell, usual_places
from sandboa.devices.simulated_logger import SimulatedLogger, Spell
from sandboa.journal.lay_day import EggLaid, LayDay, lay_clutch
from sandboa.journal.looks import grade_egg, water_box
from sandboa.journal.probes import ProbePlace, hang_probe
from sandboa.journal.readings import store_readings

_DAY_S: Final = 86_400.0
_HOUR_S: Final = 3_600.0
_EVERY_S: Final = 600.0

NORTH: Final = "North"
SMALL: Final = "Small"


@dataclass(frozen=True)
class _Clutch:
    dam: str
    sire: str
    laid_days_ago: float
    count: tuple[int, int]
    cabinet: str
    shelf: str
    medium: str
    closing: Closing
    dry_g: float
    water_g: float
    shells: tuple[tuple[int, Shell], ...] = ()
    #: (days ago, grade of each egg in order; None where nobody looked or it is a slug)
    looks: tuple[tuple[float, tuple[int | None, ...]], ...] = ()
    waterings: tuple[tuple[float, float], ...] = ()


_CLUTCHES: Final = (
    _Clutch(
        "Tansy", "Flint", 54.3, (5, 0), NORTH, "upper", "vermiculite", Closing.PIN_HOLES, 250, 250,
        looks=((20.0, (0, 0, 1, 0, 0)), (6.0, (1, 2, 2, 1, 0)), (1.0, (2, 3, 2, 2, 1))),
    ),
    _Clutch(
        "Sorrel", "Marl", 41.2, (8, 1), NORTH, "middle", "half and half", Closing.SEALED_FILM,
        300, 270, looks=((15.0, (0,) * 7 + (None,)), (1.1, (0,) * 7 + (None,))),
    ),
    _Clutch(
        "Lovage", "Slate", 33.4, (6, 0), NORTH, "lower", "vermiculite", Closing.PIN_HOLES, 220, 220,
        shells=((4, Shell.WINDOW),),
        looks=(
            (12.0, (0, 1, 1, 1, 1, 0)), (1.2, (0, 0, 0, 1, 0, 0)),
        ),
        waterings=((4.0, 60.0),),
    ),
    _Clutch(
        "Yarrow", "Chert", 26.1, (6, 0), NORTH, "lower", "saturated perlite",
        Closing.CRACKED_CORNER, 180, 100, shells=((2, Shell.ROUGH),),
        looks=((8.0, (0, 1, 0, 0, 0, 0)), (0.1, (2, 2, 1, 0, 2, 0))),
    ),
    _Clutch(
        "Chervil", "Flint", 19.0, (7, 2), SMALL, "shelf", "perlite", Closing.PIN_HOLES, 200, 200,
        shells=((3, Shell.STAINED),),
        looks=((9.0, (0, 0, 0, 0, 0, None, None)), (0.2, (0, 0, 3, 0, 0, None, None))),
    ),
    _Clutch(
        "Borage", "Marl", 6.2, (4, 0), SMALL, "shelf", "vermiculite", Closing.PIN_HOLES, 200, 200,
        looks=((1.0, (0, 0, 0, 0)),),
    ),
    _Clutch(
        "Hyssop", "Slate", 0.22, (7, 1), NORTH, "middle", "perlite", Closing.SEALED_FILM, 240, 240,
    ),
)  # fmt: skip

_SET_POINT_C: Final = {NORTH: 31.5, SMALL: 31.1}


def furnish(now_s: float) -> None:
    """Fill the open, empty house with the garden room as it stands at `now_s`."""
    for clutch in sorted(_CLUTCHES, key=lambda c: -c.laid_days_ago):
        _record(clutch, now_s)
    _loggers(now_s)


def _record(clutch: _Clutch, now_s: float) -> None:
    laid_s = now_s - clutch.laid_days_ago * _DAY_S
    laid, slugs = clutch.count
    shells = dict(clutch.shells)
    eggs = tuple(
        EggLaid(x, y, slug=number > laid - slugs, shell=shells.get(number, Shell.SMOOTH))
        for number, (x, y) in enumerate(usual_places(laid), start=1)
    )
    code, _ = lay_clutch(
        LayDay(
            dam=clutch.dam,
            sire=clutch.sire,
            laid_at=datetime.fromtimestamp(laid_s - laid_s % 60, UTC),
            eggs=eggs,
            medium=clutch.medium,
            dry_mass_g=clutch.dry_g,
            water_g=clutch.water_g,
            closing=clutch.closing,
            cabinet=clutch.cabinet,
            shelf=clutch.shelf,
            set_point_c=_SET_POINT_C[clutch.cabinet],
        ),
        laid_s + 0.05 * _DAY_S,
    )
    events = [(now_s - ago * _DAY_S, "look", grades) for ago, grades in clutch.looks]
    events += [(now_s - ago * _DAY_S, "water", water_g) for ago, water_g in clutch.waterings]  # type: ignore[misc]
    for at_s, kind, what in sorted(events, key=lambda event: event[0]):
        if kind == "water":
            water_box(code, float(what), at_s, at_s)  # type: ignore[arg-type]
            continue
        for number, grade in enumerate(what, start=1):
            if grade is not None:
                grade_egg(code, number, grade, at_s, at_s)


def _loggers(now_s: float) -> None:
    """The season's loggers: North's fan stopped for two days, Small's battery gave out twice."""
    start_s = now_s - 60 * _DAY_S
    fan = Spell(now_s - 9.6 * _DAY_S, now_s - 7.5 * _DAY_S, 24.6)
    beside = Spell(fan.start_s, fan.end_s, 31.9)
    flat_battery = (
        Spell(now_s - 15.0 * _DAY_S, now_s - 11.2 * _DAY_S, 0),
        Spell(now_s - 4.0 * _DAY_S, now_s - 2.9 * _DAY_S, 0),
    )
    north = _SET_POINT_C[NORTH]
    _hang(
        "North top",
        ProbePlace(cabinet=NORTH),
        start_s,
        now_s,
        checked=True,
        logger=SimulatedLogger(north, 0.1, spells=(beside,), humidity=0.62),
        seed=11,
    )
    _hang(
        "North lower",
        ProbePlace(cabinet=NORTH, shelf="lower"),
        start_s,
        now_s,
        checked=False,
        logger=SimulatedLogger(north, -0.3, spells=(fan,), humidity=0.66),
        seed=12,
    )
    _hang(
        "North middle",
        ProbePlace(cabinet=NORTH, shelf="middle"),
        start_s,
        now_s,
        checked=True,
        logger=SimulatedLogger(north, 0.0, humidity=0.96),
        seed=13,
        until_s=now_s - 0.9 * _DAY_S,
    )
    _hang(
        "Small",
        ProbePlace(cabinet=SMALL),
        start_s,
        now_s,
        checked=False,
        logger=SimulatedLogger(_SET_POINT_C[SMALL], -0.1, humidity=0.55),
        seed=14,
        silent=flat_battery,
    )


def _hang(
    name: str,
    place: ProbePlace,
    start_s: float,
    now_s: float,
    *,
    checked: bool,
    logger: SimulatedLogger,
    seed: int,
    silent: tuple[Spell, ...] = (),
    until_s: float | None = None,
) -> None:
    probe, _ = hang_probe(name, place, start_s, start_s + _HOUR_S, checked=checked)
    rows = logger.rows(start_s, until_s or now_s, _EVERY_S, seed, silent)
    store_readings(probe.entity, rows, "simulated", "", now_s)
