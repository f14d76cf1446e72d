"""What can go wrong in a simulated cabinet, on a schedule."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

import numpy as np


class MishapKind(StrEnum):
    """The first five happen to the cabinet, the others to one probe."""

    FAN_STOPS = "fan stops"
    POWER_CUT = "power cut"
    DOOR_AJAR = "door ajar"
    OVERSHOOT = "overshoot"
    UNPLUGGED = "unplugged"
    STUCK = "stuck"
    FALLEN = "fallen"
    DRIFT = "drift"


OF_THE_CABINET = (
    MishapKind.FAN_STOPS,
    MishapKind.POWER_CUT,
    MishapKind.DOOR_AJAR,
    MishapKind.OVERSHOOT,
)


@dataclass(frozen=True, slots=True)
class Mishap:
    """`kind` from `start_s` until `end_s`; `probe` names the probe it happens to, if it is one's.

    `size` is °C: how far a fallen probe reads off, how far a drifting one goes a day.
    """

    kind: MishapKind
    start_s: float
    end_s: float
    probe: str = ""
    size: float = 0.0


def during(
    mishaps: Sequence[Mishap], kind: MishapKind, times_s: np.ndarray, probe: str = ""
) -> np.ndarray:
    """Whether a mishap of that kind is under way at each time; shape of `times_s`."""
    under_way = np.zeros(len(times_s), dtype=bool)
    for mishap in mishaps:
        if mishap.kind is kind and mishap.probe == probe:
            under_way |= (times_s >= mishap.start_s) & (times_s < mishap.end_s)
    return under_way
