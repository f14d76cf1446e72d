"""What a lid that rains means for its stage, and what to do about it (rule D5)."""

from typing import Final

from sandboa.core.water.signs import LID_SILENT_FROM

_RAINS: Final = "raining"


def rain_advice(lid: str | None, development: float) -> str | None:
    """What to say of the lid as it was last seen; None unless it rained.

    `development` is the share 0-1 (or more) the typical egg has developed. Late
    in the term the water is the eggs' own; earlier it is the cabinet's doing.
    """
    if lid != _RAINS:
        return None
    if development >= LID_SILENT_FROM:
        return (
            "The lid rains: normal in the last 8 to 10 days, when eggs give off water before "
            "pipping. Wipe it, drops on eggs start mould."
        )
    return (
        "The lid rains: drops on eggs start mould. Wipe it, and look whether the cabinet swings: "
        "damp air meets a colder lid."
    )
