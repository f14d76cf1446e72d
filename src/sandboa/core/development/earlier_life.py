"""What is known of eggs before they were measured here: when they were laid, and how warm."""

from dataclasses import dataclass
from typing import Final

#: °C (1 sd) by which "about" so many degrees may be off, before the eggs came (assumption).
ABOUT_SD_C: Final = 1.0
#: °C taken for eggs of which nobody knows how warm they were, and its 1 sd (assumption).
UNKNOWN_BEFORE_C: Final = 31.0
UNKNOWN_BEFORE_SD_C: Final = 1.5


@dataclass(frozen=True, slots=True)
class EarlierLife:
    """What is known of eggs before they were measured here; by default they were seen laid here.

    `span_s` is the width of the time they were laid in, uniform (0: known). Up to `arrived_s` (None
    where they have been here since) they were at `temperature_c`, give or take `temperature_sd_c`.
    `development_sd` is the 1 sd of D where that was told by torch: then lay time and what was
    before add nothing to it; None else.
    """

    span_s: float = 0.0
    arrived_s: float | None = None
    temperature_c: float = UNKNOWN_BEFORE_C
    temperature_sd_c: float = UNKNOWN_BEFORE_SD_C
    development_sd: float | None = None
