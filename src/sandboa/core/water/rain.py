"""What a lid that rains means for its stage, and what to do about it (rule D5)."""

from typing import Final

from sandboa.core.water.rules import DEFAULT_WATER, WaterRules

_RAINS: Final = "raining"


def rain_advice(
    lid: str | None, development: float, rules: WaterRules = DEFAULT_WATER
) -> str | None:
    """What to say of the lid as it was last seen; None unless it rained.

    `development` is the share 0-1 (or more) the typical egg has developed. Late
    in the term the water is the eggs' own; earlier it is the cabinet's doing.
    """
    if lid != _RAINS:
        return None
    if development >= rules.lid_silent_from:
        return (
            "The lid rains: normal late in the term, when eggs give off water before "
            "pipping. Wipe it, drops on eggs start mould."
        )
    return (
        "The lid rains: drops on eggs start mould. Wipe it, and look whether the cabinet swings: "
        "damp air meets a colder lid."
    )
