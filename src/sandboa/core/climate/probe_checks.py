"""What a probe's readings are worth: checks, offsets from their date, stretches left out."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from itertools import pairwise
from typing import Final

from sandboa.core.development.sources import CHECKED_PROBE_SD_C, UNCHECKED_PROBE_SD_C
from sandboa.core.errors import NotPlausible
from sandboa.core.messages import Message, Temperature
from sandboa.core.units import READING_RANGE_C, require_range

#: Relative humidity over saturated sodium chloride at 25-35 °C (Greenspan 1977).
SALT_HUMIDITY: Final = 0.753
#: Relative humidity from which a capacitive sensor says "saturated", not a number (rule E).
SATURATED_HUMIDITY: Final = 0.97
#: °C and relative humidity beyond which a probe is broken, not off (assumption).
LARGEST_OFFSET_C: Final = 5.0
LARGEST_HUMIDITY_OFFSET: Final = 0.25


class CheckKind(StrEnum):
    """Beside a reference thermometer (°C), or in the salt test (humidity 0-1)."""

    REFERENCE = "reference"
    SALT = "salt"


@dataclass(frozen=True, slots=True)
class Check:
    """At `at_s` the probe showed `shown` where `expected` was true."""

    kind: CheckKind
    at_s: float
    shown: float
    expected: float

    @property
    def offset(self) -> float:
        """What to add to readings from `at_s` on, °C or relative humidity."""
        return self.expected - self.shown


@dataclass(frozen=True, slots=True)
class Trusted:
    """From..until the probe's readings count, with `offset_c` added, and err by `sd_c` (1 sd)."""

    from_s: float
    until_s: float
    offset_c: float
    sd_c: float


def reference_check(at_s: float, shown_c: float, reference_c: float) -> Check:
    """A comparison with a reference thermometer, °C both.

    Raises NotPlausible outside -20..60 °C or when the two differ by more than
    5 °C: such a probe is broken or was not beside the reference.
    """
    require_range("shown", shown_c, READING_RANGE_C, "°C")
    require_range("reference", reference_c, READING_RANGE_C, "°C")
    if abs(reference_c - shown_c) > LARGEST_OFFSET_C:
        raise NotPlausible(
            "shown",
            Message(
                "{shown} beside {reference}: did both lie at one place?",
                shown=Temperature(shown_c),
                reference=Temperature(reference_c),
            ),
        )
    return Check(CheckKind.REFERENCE, at_s, shown_c, reference_c)


def salt_check(at_s: float, shown: float) -> Check:
    """The salt test: what the probe showed over saturated table salt (0-1).

    Raises NotPlausible further than 0.25 from 0.753: too wet, not closed, or broken.
    """
    require_range("shown", shown, (0.0, 1.0), "")
    if abs(SALT_HUMIDITY - shown) > LARGEST_HUMIDITY_OFFSET:
        raise NotPlausible(
            "shown",
            f"{100 * shown:.0f} % is too far from {100 * SALT_HUMIDITY:.0f} %: "
            "wait 12 h in a closed bag, with salt that is damp, not afloat",
        )
    return Check(CheckKind.SALT, at_s, shown, SALT_HUMIDITY)


def trusted(
    from_s: float,
    until_s: float,
    checks: Sequence[Check] = (),
    left_out: Sequence[tuple[float, float]] = (),
    *,
    checked_from_start: bool = False,
    sd_c: tuple[float, float] = (UNCHECKED_PROBE_SD_C, CHECKED_PROBE_SD_C),
) -> Iterator[Trusted]:
    """Cut from..until at temperature checks and around what was left out, in order of time.

    A check's offset holds from its time until the next one. Before the first
    the readings stand as they are, ±0.3 °C, or ±0.1 when the probe was checked
    before it was hung (`checked_from_start`); `sd_c` are these two. Source: rule A3, E.
    """
    offsets = sorted((c.at_s, c.offset) for c in checks if c.kind is CheckKind.REFERENCE)
    gaps = sorted(left_out)
    edges = {from_s, until_s, *(at_s for at_s, _ in offsets), *(e for gap in gaps for e in gap)}
    cuts = sorted(edge for edge in edges if from_s <= edge <= until_s)
    for left, right in pairwise(cuts):
        if any(start <= left and right <= end for start, end in gaps):
            continue
        before = [offset for at_s, offset in offsets if at_s <= left]
        checked = bool(before) or checked_from_start
        yield Trusted(left, right, before[-1] if before else 0.0, sd_c[checked])
