"""What can be seen of a kept season: of the cabinet always, of a box when it is opened."""

from dataclasses import dataclass

from sandboa.devices.simulation.torchlight import TorchState


@dataclass(frozen=True, slots=True)
class CabinetSeen:
    """The cabinet's thermometers since yesterday, °C by shelf, and its air, 0-1."""

    set_point_c: float
    mean_c: tuple[float, ...]
    lowest_c: tuple[float, ...]
    highest_c: tuple[float, ...]
    humidity: float


@dataclass(frozen=True, slots=True)
class EggSeen:
    """An egg as it lies in an opened box; `torch` its inside where it was candled."""

    number: int
    grade: int
    mould: str
    wet: str
    colour: str
    feel: str
    pipped_hours: float | None
    out: bool
    removed: bool
    isolated: bool
    hangs: bool
    torch: TorchState | None = None


@dataclass(frozen=True, slots=True)
class BoxSeen:
    """A box that was opened on `day`; `mass_g` where it was weighed."""

    day: int
    lid: str
    feels: str
    smell: str
    mass_g: float | None
    eggs: tuple[EggSeen, ...]
