"""What is known of a lost egg: its own record, its box, its cabinet, its parents, the finding.

Shares are shares developed (p). None means that nobody knows; a number means
that it was measured or recorded. Nothing here is a judgement.
"""

from dataclasses import dataclass, field

from sandboa.core.box import Shell
from sandboa.core.candling import Disc
from sandboa.core.causes.findings import FindingKind, Findings
from sandboa.core.causes.time_of_death import DeathWindow, Seen
from sandboa.core.hatching.fates import Fate


@dataclass(frozen=True, slots=True)
class Water:
    """The box's water before the egg's death.

    Attributes
    ----------
    lowest: (low, middle, high) smallest share of set-up water reached, None unknown.
    weighed: how often it was weighed by then.
    medium: (share, "drips" ... "dry") as seen; `lid`: (share, "none" ... "raining").
    dented_early: (share, eggs early, eggs looked at) of visits with box-wide early dents.
    on_grid: eggs off the medium; `sealed`: closed with film without a hole.
    """

    lowest: tuple[float, float, float] | None = None
    weighed: int = 0
    medium: tuple[tuple[float, str], ...] = ()
    lid: tuple[tuple[float, str], ...] = ()
    dented_early: tuple[tuple[float, int, int], ...] = ()
    plump_until: float | None = None
    on_grid: bool = False
    sealed: bool = False


@dataclass(frozen=True, slots=True)
class FaultThen:
    """A fault of the cabinet: shares developed, by how much (°C) and how long (h)."""

    kind: str
    start: float
    end: float
    largest_c: float
    hours: float


@dataclass(frozen=True, slots=True)
class Heat:
    """Temperature at the box up to the egg's death; `measured` is the share of it by a probe.

    `hot_degree_hours` is °C·h above 33.5, `cold_hours` the longest stretch below 27 °C,
    `swing_days` days with more than 2 °C between their extremes, `largest_swing_c` the widest.
    `hot`, `cold` and `swings` are the shares developed from the first to the last hour of each;
    None where there was none.
    """

    measured: float
    highest_c: float
    lowest_c: float
    hot_degree_hours: float
    cold_hours: float
    swing_days: int
    largest_swing_c: float
    faults: tuple[FaultThen, ...] = ()
    hot: tuple[float, float] | None = None
    cold: tuple[float, float] | None = None
    swings: tuple[float, float] | None = None


@dataclass(frozen=True, slots=True)
class Air:
    """How the box was aired late in term: `oxygen` (low, middle, high) at the egg's death."""

    oxygen: tuple[float, float, float] | None
    sealed: bool
    days_unopened: float


@dataclass(frozen=True, slots=True)
class Happening:
    """Something that happened to the egg, recorded at `share`; the look before was at `after`."""

    share: float
    kind: str
    after: float


@dataclass(frozen=True, slots=True)
class Sibling:
    """Another egg of the clutch: its fate, when it died, defects seen, and whether it touched."""

    fate: Fate | None
    died: DeathWindow | None = None
    defects: bool = False
    small: bool = False
    touching: bool = False


@dataclass(frozen=True, slots=True)
class Parents:
    """What is known of dam and sire, this clutch left out of the counts.

    `dam_slugs` and `sire_slugs` are (slugs, laid); `dam_hatched` (hatched, fertile);
    `can_double`: the pair can produce a form that dies, None while traits are not known;
    `dam_ill`: she was seen ill in the months before.
    `double_share` is how many of its eggs then would; `pair_lost_alike` (lost at that stage,
    fertile) over the pair's other clutches.
    """

    dam_slugs: tuple[int, int] = (0, 0)
    sire_slugs: tuple[int, int] = (0, 0)
    dam_hatched: tuple[int, int] = (0, 0)
    first_clutch: bool | None = None
    dam_before_g: float | None = None
    dam_ill: bool = False
    lightest_g: float = 1500.0
    can_double: bool | None = None
    double_share: float = 0.0
    pair_lost_alike: tuple[int, int] = (0, 0)


@dataclass(frozen=True, slots=True)
class Neighbours:
    """Other boxes in those weeks: `same_cabinet` and `elsewhere` are (eggs lost in this egg's
    window of days, eggs). `same_age` is the same of boxes that stood in the cabinet that season,
    at the same age of the eggs, and `boxes` how many of them there are. `new_days` since the
    cabinet came into use, `altered_days` since it was altered, None never."""

    same_cabinet: tuple[int, int] = (0, 0)
    elsewhere: tuple[int, int] = (0, 0)
    same_age: tuple[int, int] = (0, 0)
    boxes: int = 0
    full_term_boxes: int = 0
    new_days: float | None = None
    altered_days: float | None = None


@dataclass(frozen=True)
class LossEvidence:
    """One lost egg with everything that bears on why."""

    number: int
    fate: Fate
    window: DeathWindow
    death_day: float
    slug_at_lay: bool = False
    shells: tuple[Shell, ...] = ()
    seen: tuple[Seen, ...] = ()
    disc_at_lay: Disc | None = None
    turned: bool = False
    happened: tuple[Happening, ...] = ()
    own_dents_early: float | None = None
    cut: tuple[float, bool] | None = None
    pipped: float | None = None
    pip_to_end_hours: float | None = None
    #: Days its siblings pipped before what the set point gives; below 0 after it.
    pipped_early_days: float | None = None
    opened: bool | None = None
    findings: Findings = field(default_factory=dict)
    siblings: tuple[Sibling, ...] = ()
    water: Water | None = None
    heat: Heat | None = None
    air: Air | None = None
    pests_seen: bool | None = None
    parents: Parents = field(default_factory=Parents)
    neighbours: Neighbours = field(default_factory=Neighbours)

    def found(self, kind: FindingKind, *values: str) -> bool:
        """Whether one of those values was found on opening."""
        return bool(self.findings.get(kind, frozenset()) & set(values))

    def known(self, kind: FindingKind) -> bool:
        """Whether that was looked at on opening."""
        return kind in self.findings
