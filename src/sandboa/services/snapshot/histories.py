"""What is recorded of one egg, box, probe, cabinet or clutch: the snapshot by subject.

Lists are in order of time. What nothing is recorded of has an empty history.
"""

from dataclasses import dataclass, field

from sandboa.core.box import Shell, shell_marks
from sandboa.core.climate.probe_checks import Check
from sandboa.core.development import SetPoints
from sandboa.core.development.rules import EMERGENCE
from sandboa.core.hatching import Fate
from sandboa.core.location_history import LocationHistory
from sandboa.core.methods import DamSchool
from sandboa.core.rounds import EggActKind
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import (
    Candling,
    ClutchOrigin,
    Egg,
    EggEvent,
    EggStay,
    ShellLook,
    Watering,
)
from sandboa.records.hatching import (
    Alteration,
    Cut,
    EggFate,
    Emergence,
    Finding,
    Finished,
    Hatchling,
    Opening,
    Pip,
)
from sandboa.records.house import LeftOut
from sandboa.records.methods import ClutchMethod
from sandboa.records.rounds import (
    BoxDone,
    BoxSign,
    ClosingChange,
    EggSign,
    MassChange,
    Postponement,
    SetUp,
    Visit,
    Weighing,
)
from sandboa.services.snapshot.looks import Look


@dataclass(slots=True)
class EggHistory:
    """What was seen and done at an egg, and what became of it.

    `emergence_days` is how long this house takes an egg to be open, from its pip to out.
    """

    emergence_days: float = EMERGENCE.median_days
    stays: list[EggStay] = field(default_factory=list)
    shells: list[ShellLook] = field(default_factory=list)
    turgor: list[Look] = field(default_factory=list)
    candlings: list[Candling] = field(default_factory=list)
    events: list[EggEvent] = field(default_factory=list)
    signs: list[EggSign] = field(default_factory=list)
    findings: list[Finding] = field(default_factory=list)
    hatchlings: list[Hatchling] = field(default_factory=list)
    pip: Pip | None = None
    cut: Cut | None = None
    emergence: Emergence | None = None
    fate: EggFate | None = None
    opening: Opening | None = None

    @property
    def pip_s(self) -> float | None:
        """When it pipped: as seen, or a usual while before it was seen out; None for neither."""
        if self.pip is not None:
            return float(self.pip.seen_s)
        if self.emergence is not None:
            return self.emergence.seen_s - self.emergence_days * SECONDS_PER_DAY
        return None

    @property
    def pipped(self) -> bool:
        """Whether it pipped, seen or not: one that hatched, or died in the slit, did."""
        declared = self.fate
        return self.pip_s is not None or (declared is not None and Fate(declared.fate).has_pipped)

    def stay_at(self, at_s: float) -> EggStay | None:
        """Where it lies at a time; its first stay reaches back. None where no place is recorded."""
        lying = self.stays[0] if self.stays else None
        for stay in self.stays:
            if stay.from_s > at_s:
                break
            lying = stay
        return lying

    def came_unseen_s(self, at_s: float) -> float | None:
        """When it came from another box (s), if it was not looked at from then to `at_s`."""
        stay = self.stay_at(at_s)
        if stay is None or stay is self.stays[0]:
            return None
        # A move keeps whole seconds; the look that went with it does not.
        seen_since = int(self.last_look_s(at_s) or 0) > stay.from_s
        return None if seen_since else float(stay.from_s)

    def shells_at(self, egg: Egg, at_s: float) -> tuple[Shell, ...]:
        """The marks of its shell at a time: as it was laid, until they were seen to be others."""
        seen = [look.shells for look in self.shells if look.seen_s <= at_s]
        return shell_marks(seen[-1] if seen else egg.shell)

    def out_by(self, at_s: float) -> bool:
        """Whether a hatchling was seen out of it by then."""
        return self.emergence is not None and self.emergence.seen_s <= at_s

    def inside_at(self, at_s: float) -> bool:
        """Whether its hatchling is waited for: not out by then, nor the egg gone or lost."""
        return not self.out_by(at_s) and self.ended_s(at_s) is None

    def cut_closed_by(self, at_s: float) -> bool:
        """Whether it was cut open by then, and had not pipped before that."""
        if self.cut is None or self.cut.at_s > at_s:
            return False
        return self.pip_s is None or self.pip_s > self.cut.at_s

    def ended_s(self, as_of_s: float) -> float | None:
        """When it stopped being one to wait for, closed: taken out or declared lost."""
        ends = [e.at_s for e in self.events if e.kind == EggActKind.REMOVED]
        if self.fate is not None and Fate(self.fate.fate) is not Fate.HATCHED:
            ends.append(self.fate.at_s)
        return min((float(s) for s in ends if s <= as_of_s), default=None)

    def last_look_s(self, as_of_s: float) -> float | None:
        """When anything was last recorded of how it looks; None when nobody looked."""
        moments = [
            *(t.seen_s for t in self.turgor),
            *(c.seen_s for c in self.candlings),
            *(s.seen_s for s in self.signs),
        ]
        return max((float(m) for m in moments if m <= as_of_s), default=None)


@dataclass(slots=True)
class BoxHistory:
    """Where a box stood, its masses and its water, what was seen and done at it, its visits,
    and what was put off."""

    locations: LocationHistory
    waterings: list[Watering] = field(default_factory=list)
    signs: list[BoxSign] = field(default_factory=list)
    done: list[BoxDone] = field(default_factory=list)
    weighings: list[Weighing] = field(default_factory=list)
    mass_changes: list[MassChange] = field(default_factory=list)
    closings: list[ClosingChange] = field(default_factory=list)
    set_ups: list[SetUp] = field(default_factory=list)
    visits: list[Visit] = field(default_factory=list)
    postponements: list[Postponement] = field(default_factory=list)


@dataclass(slots=True)
class ProbeHistory:
    """Where a probe hung, its checks, and the stretches that do not count."""

    locations: LocationHistory
    checks: list[Check] = field(default_factory=list)
    left_out: list[LeftOut] = field(default_factory=list)


@dataclass(slots=True)
class CabinetHistory:
    """What a cabinet was set to, and how it was altered."""

    set_points: SetPoints | None = None
    alterations: list[Alteration] = field(default_factory=list)


@dataclass(slots=True)
class ClutchHistory:
    """The method a clutch copied, where it comes from if nobody saw it laid, and when it closed."""

    method: ClutchMethod | None = None
    origin: ClutchOrigin | None = None
    finished: Finished | None = None

    @property
    def kept_by_dam(self) -> bool:
        """Whether the dam keeps, or kept, the eggs."""
        return self.method is not None and self.method.dam == DamSchool.MATERNAL
