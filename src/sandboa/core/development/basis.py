"""What a forecast rests on, as a sentence: measured, or filled from what."""

from collections import Counter

from sandboa.core.development import (
    DevelopmentCurve,
    Provenance,
)


def rests_on(curve: DevelopmentCurve) -> str:
    """What the forecast rests on, as a sentence."""
    temperature = curve.temperature
    if not temperature.stretches:
        return "Laid just now: the forecast rests on the set point."
    gaps = temperature.gaps
    if temperature.measured_share == 0.0:
        filled = sorted({_stand_in(gap.provenance) for gap in gaps})
        return f"Not measured by a probe yet: the forecast rests on {_listed(filled)}."
    percent = min(round(100 * temperature.measured_share), 100 if not gaps else 99)
    if not gaps:
        return "Measured the whole time."
    parts = [
        f"{count} {'gap' if count == 1 else 'gaps'} filled from {source}"
        for source, count in Counter(_stand_in(gap.provenance) for gap in gaps).items()
    ]
    return f"Measured {percent} % of the time; {_listed(parts)}."


def _stand_in(provenance: Provenance) -> str:
    if provenance is Provenance.BEFORE:
        return "what was said of the time before they came"
    return "readings by hand" if provenance is Provenance.BY_HAND else f"the {provenance}"


def _listed(parts: list[str]) -> str:
    return parts[0] if len(parts) == 1 else f"{', '.join(parts[:-1])} and {parts[-1]}"
