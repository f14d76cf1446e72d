"""The garden room's cabinets and loggers: a simulated season, sent in as devices would."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Final

from sandboa.core.climate.probe_checks import reference_check, salt_check
from sandboa.devices.simulation import (
    CabinetModel,
    Climate,
    Mishap,
    MishapKind,
    Sensor,
    log_probe,
    run,
)
from sandboa.records.house import Device, Probe, named
from sandboa.services.cabinets.commands import CabinetCommand, CabinetKind, add_cabinet
from sandboa.services.probes.commands import ProbePlace, check_probe, hang_probe
from sandboa.services.probes.devices import add_device
from sandboa.services.readings.intake import take_in

Event = tuple[float, Callable[[], object]]

NORTH: Final = "North"
SMALL: Final = "Small"
SET_POINT_C: Final = {NORTH: 31.5, SMALL: 31.1}

_DAY_S: Final = 86_400.0
_EVERY_S: Final = 600.0
_STEP_S: Final = 300.0
#: Days of record before today.
_SEASON_DAYS: Final = 62.0
_SET_UP_DAYS_AGO: Final = 900.0
_GATEWAY: Final = "Garden gateway"


@dataclass(frozen=True)
class _Probe:
    """A probe on shelf `shelf` (0 the top) of its cabinet's model."""

    name: str
    place: ProbePlace
    shelf: int
    offset_c: float
    checked: bool = False


_PROBES: Final = {
    NORTH: (
        _Probe("North top", ProbePlace(cabinet=NORTH), 0, 0.0, checked=True),
        _Probe("North middle", ProbePlace(cabinet=NORTH, shelf="middle"), 1, 0.05, checked=True),
        _Probe("North lower", ProbePlace(cabinet=NORTH, shelf="lower"), 2, -0.2),
    ),
    SMALL: (_Probe("Small", ProbePlace(cabinet=SMALL), 0, 0.1),),
}


#: Name and shelf of every logger, by cabinet.
LOGGERS: Final = {
    cabinet: tuple((probe.name, probe.shelf) for probe in probes)
    for cabinet, probes in _PROBES.items()
}


def climates(now_s: float) -> dict[str, Climate]:
    """What it was like in each cabinet from the season's beginning to now."""
    began_s = now_s - _SEASON_DAYS * _DAY_S
    began_s += _EVERY_S - began_s % _EVERY_S
    return {
        name: run(model, began_s, now_s + 1, _STEP_S, seed=7)
        for name, model in _models(now_s).items()
    }


def climate(was: dict[str, Climate], now_s: float) -> Iterator[Event]:
    """Cabinets set up, probes hung and checked, and a season of readings."""
    set_up_s = now_s - _SET_UP_DAYS_AGO * _DAY_S
    for cabinet in _cabinets():
        yield set_up_s, partial(add_cabinet, cabinet, SET_POINT_C[cabinet.name], set_up_s, set_up_s)
    yield set_up_s + 1, partial(add_device, _GATEWAY, set_up_s + 1)
    for name, model in _models(now_s).items():
        yield set_up_s + 60, partial(_hang, name, set_up_s + 60)
        yield now_s, partial(_send, name, model.mishaps, was[name], now_s)
    checked_s = now_s - 30 * _DAY_S
    yield checked_s, partial(_check, "North lower", checked_s)


def _cabinets() -> tuple[CabinetCommand, ...]:
    return (
        CabinetCommand(NORTH, CabinetKind.BOUGHT, ("upper", "middle", "lower"), 400.0, 6.0),
        CabinetCommand(SMALL, CabinetKind.HOME_BUILT, ("shelf",), 60.0, 4.0),
    )


def _models(now_s: float) -> dict[str, CabinetModel]:
    """North's fan stood still for two days; its middle probe stuck; Small's logger paused twice."""

    def mishap(kind: MishapKind, from_days: float, until_days: float, probe: str = "") -> Mishap:
        return Mishap(kind, now_s - from_days * _DAY_S, now_s - until_days * _DAY_S, probe)

    visits = [(now_s - (days + 0.23) * _DAY_S, 30.0) for days in range(1, 60, 4)]
    return {
        NORTH: CabinetModel(
            shelves=3,
            set_point_c=SET_POINT_C[NORTH],
            heater_share=(0.74, 0.22, 0.04),
            still_air_w_k=0.06,
            air_j_k=6_000.0,
            gain_per_c=0.2,
            room_c=20.0,
            room_swing_c=1.6,
            humidity=0.64,
            opens=visits,
            mishaps=(
                mishap(MishapKind.FAN_STOPS, 9.6, 7.5),
                mishap(MishapKind.POWER_CUT, 22.3, 22.15),
                mishap(MishapKind.STUCK, 0.9, -1.0, "North middle"),
            ),
        ),
        SMALL: CabinetModel(
            shelves=1,
            set_point_c=SET_POINT_C[SMALL],
            heater_w=40.0,
            heater_share=(1.0,),
            air_j_k=6_000.0,
            gain_per_c=0.2,
            room_c=21.5,
            humidity=0.55,
            opens=visits,
            mishaps=(
                mishap(MishapKind.UNPLUGGED, 15.0, 11.2, "Small"),
                mishap(MishapKind.UNPLUGGED, 4.0, 2.9, "Small"),
            ),
        ),
    }


def _hang(cabinet: str, began_s: float) -> None:
    gateway = named(Device, _GATEWAY)
    assert gateway is not None, "the gateway is told of first"
    for probe in _PROBES[cabinet]:
        hang_probe(
            probe.name,
            probe.place,
            began_s,
            began_s + 60,
            checked=probe.checked,
            device=gateway.entity_id,
        )


def _send(cabinet: str, mishaps: Sequence[Mishap], was: Climate, now_s: float) -> None:
    gateway = named(Device, _GATEWAY)
    assert gateway is not None, "the gateway is told of first"
    for number, probe in enumerate(_PROBES[cabinet]):
        logged = log_probe(
            probe.name,
            was,
            probe.shelf,
            sensor=Sensor(offset_c=probe.offset_c, noise_c=0.025, step_c=0.05, every_s=_EVERY_S),
            mishaps=mishaps,
            seed=number,
        )
        rows = [(probe.name, at_s, c, h) for at_s, c, h in logged.rows()]
        take_in(gateway, rows, now_s)


def _check(name: str, at_s: float) -> None:
    """Beside a reference it showed 0.2 °C too little; the salt test 2 % too much."""
    probe = named(Probe, name)
    assert probe is not None, "a probe is hung first"
    check_probe(probe.entity_id, reference_check(at_s, 31.1, 31.3), at_s)
    check_probe(probe.entity_id, salt_check(at_s, 0.773), at_s)
