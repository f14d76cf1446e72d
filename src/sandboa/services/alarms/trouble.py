"""One thing that is wrong in a cabinet or the house, and how grave it is."""

from dataclasses import dataclass
from enum import StrEnum

from sandboa.core.messages import Words


class Severity(StrEnum):
    """An emergency repeats until it is acknowledged; a notice can wait for daylight."""

    EMERGENCY = "emergency"
    ALARM = "alarm"
    NOTICE = "notice"


@dataclass(frozen=True, slots=True)
class Trouble:
    """Something wrong now. `kind`, `cabinet` and `probe` tell it from others.

    `cabinet` is None where it is about the house itself.
    `any_hour`: it is told in quiet hours too.
    """

    kind: str
    severity: Severity
    cabinet: int | None
    probe: int | None
    text: Words
    began_s: float
    any_hour: bool = False

    @property
    def key(self) -> tuple[str, int, int]:
        return self.kind, self.cabinet or 0, self.probe or 0
