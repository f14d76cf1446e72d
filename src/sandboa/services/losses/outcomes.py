"""How the eggs of a clutch ended, each with its window of death: held while the record stands."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from sandboa.core.causes import DeathWindow, FindingKind, Findings, Seen, death_window
from sandboa.core.causes.findings import DEFECTS
from sandboa.core.development import DevelopmentCurve
from sandboa.core.hatching import DeathStage, Fate
from sandboa.core.hatching.fates import EggRecord, following_fate
from sandboa.core.standing import SignKind
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.records.clutches import Clutch, Egg
from sandboa.services.boxes.box_stays import BoxStay, box_stays
from sandboa.services.boxes.climate import development_curve
from sandboa.services.boxes.egg_paths import EggPath, groups_by_path
from sandboa.services.clutches.egg_judgements import removed_s
from sandboa.services.moment.lessons import Lessons, circumstances, lessons
from sandboa.services.snapshot.snapshot import Snapshot

#: Days after lay beyond which nothing more is learned of an egg (assumption).
_LONGEST_DAYS: Final = 110.0


#: Says whether more may be worked out now.
GoesOn = Callable[[], bool]


def without_end() -> bool:
    """For whoever waits until all is worked out."""
    return True


@dataclass(frozen=True)
class EggWay:
    """How an egg developed where it lay; `at_pip` is D at which its clutch pipped, or would have,
    `until_s` the end of the clutch's record."""

    path: EggPath
    curve: DevelopmentCurve
    at_pip: float
    until_s: float

    def share(self, at_s: float) -> float:
        """Share developed at a moment."""
        return self.curve.at(at_s) / self.at_pip

    def moment(self, share: float) -> float:
        """When that share was developed; the end of the record where it never was."""
        found = self.curve.time_of(share * self.at_pip)
        return self.until_s if found is None else min(found, self.until_s)


@dataclass(frozen=True)
class EggOutcome:
    """One egg's end; moments in s. `window` is None of an egg that hatched alive, or still lies."""

    egg: Egg
    way: EggWay
    fate: Fate | None
    declared_stage: DeathStage | None
    pipped_s: float | None
    emerged_s: float | None
    ended_s: float
    seen: tuple[Seen, ...]
    findings: Findings
    opened: bool | None
    window: DeathWindow | None
    died_from_s: float
    died_by_s: float
    defects: bool
    small: bool

    @property
    def lost(self) -> bool:
        return self.fate is not None and self.fate.is_loss

    @property
    def died_s(self) -> float:
        """The middle of when it may have died."""
        return (self.died_from_s + self.died_by_s) / 2.0


@dataclass(frozen=True)
class ClutchOutcomes:
    """A clutch with the ends of its eggs; `until_s` is the end of its record."""

    clutch: Clutch
    until_s: float
    eggs: tuple[EggOutcome, ...]


def ends_of(snapshot: Snapshot, clutch: Clutch, known: Lessons, as_of_s: float) -> ClutchOutcomes:
    """The ends of a clutch's eggs as recorded by `as_of_s`; held until something touches them."""
    return snapshot.kept.held(
        ("ends", clutch.entity_id),
        _stamp(snapshot, clutch, as_of_s),
        lambda: _read(snapshot, clutch, known, as_of_s),
    )


def ends_at_hand(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> bool:
    """Whether the ends of a clutch's eggs are worked out already."""
    return snapshot.kept.holds(("ends", clutch.entity_id), _stamp(snapshot, clutch, as_of_s))


def _stamp(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> tuple[int, int, int]:
    finished, acts = snapshot.clutch(clutch.entity_id).finished, snapshot.last_acts
    return (
        acts.by_clutch.get(clutch.entity_id, 0),
        acts.every_clutch,
        0 if finished else int(as_of_s // 3600),
    )


def outcomes_by_now(
    snapshot: Snapshot, as_of_s: float, goes_on: GoesOn = without_end
) -> tuple[list[ClutchOutcomes], int]:
    """The ends of clutches laid by `as_of_s`, in order of laying, and of how many they wait.

    Those at hand, and others for as long as it may.
    """
    known, laid = lessons(snapshot), [c for c in snapshot.clutches if c.laid_s < as_of_s]
    found = [
        ends_of(snapshot, clutch, known, as_of_s)
        for clutch in laid
        if ends_at_hand(snapshot, clutch, as_of_s) or goes_on()
    ]
    return found, len(laid) - len(found)


def stays_of_egg(snapshot: Snapshot, end: EggOutcome) -> tuple[BoxStay, ...]:
    """Where an egg lay until it was out, gone or dead."""
    out_s = end.ended_s if end.emerged_s is None else end.emerged_s
    return box_stays(snapshot, end.way.path, min(end.ended_s, end.died_by_s, out_s))


def _read(snapshot: Snapshot, clutch: Clutch, known: Lessons, as_of_s: float) -> ClutchOutcomes:
    finished = snapshot.clutch(clutch.entity_id).finished
    last_s = clutch.laid_s + _LONGEST_DAYS * SECONDS_PER_DAY
    until_s = min(as_of_s, float(finished.at_s) if finished else as_of_s, last_s)
    eggs = snapshot.eggs.get(clutch.entity_id, [])
    told_s = max(until_s, clutch.laid_s + 60.0)
    groups = groups_by_path(snapshot, clutch, eggs, told_s)
    curves = {path: development_curve(snapshot, path, told_s) for path in groups}
    at_pip = _at_pip(snapshot, groups, curves)
    if at_pip is None:
        where = circumstances(snapshot, clutch, next(iter(curves.values())))
        learned = known.learned(where, as_of_s, besides=clutch.entity_id)
        at_pip = math.exp(learned.prior.mean)
    ways = {
        egg.entity_id: EggWay(path, curves[path], at_pip, until_s)
        for path, held in groups.items()
        for egg in held
    }
    return ClutchOutcomes(
        clutch,
        until_s,
        tuple(_end(snapshot, clutch, ways[egg.entity_id], egg) for egg in eggs),
    )


def _at_pip(
    snapshot: Snapshot, groups: dict[EggPath, list[Egg]], curves: dict[EggPath, DevelopmentCurve]
) -> float | None:
    """D at the mean pip, the mean over the eggs that pipped; None where none did."""
    pipped = [
        (pip_s, curves[path])
        for path, eggs in groups.items()
        for egg in eggs
        if (pip_s := snapshot.egg(egg.entity_id).pip_s) is not None
    ]
    if not pipped:
        return None
    mean_s = sum(pip_s for pip_s, _ in pipped) / len(pipped)
    return max(sum(curve.at(mean_s) for _, curve in pipped) / len(pipped), 0.2)


def _end(snapshot: Snapshot, clutch: Clutch, way: EggWay, egg: Egg) -> EggOutcome:
    own = egg.entity_id
    pipped_s = snapshot.egg(own).pip_s
    out = snapshot.egg(own).emergence
    declared = snapshot.egg(own).fate
    taken_s = removed_s(snapshot, egg, way.until_s)
    emerged_s = float(out.seen_s) if out else None
    record = EggRecord(egg.number, bool(egg.slug), pipped_s, emerged_s, taken_s)
    fate = Fate(declared.fate) if declared else following_fate(record)
    stage = DeathStage(declared.stage) if declared and declared.stage else None
    findings = _findings(snapshot, own)
    seen = tuple(_seen(snapshot, clutch, way, egg))
    gone = [float(s) for s in (declared.at_s if declared else None, taken_s) if s is not None]
    ended_s = min([way.until_s, *gone])
    window = None
    if fate is not None and fate.is_loss and fate is not Fate.HATCHED_DIED:
        found = next(iter(findings.get(FindingKind.STAGE, ())), None)
        window = death_window(
            seen,
            max(min(way.share(ended_s), 1.2), 0.02),
            stage=stage,
            found=found,
            pipped=way.share(pipped_s) if pipped_s is not None else None,
        )
    elif fate is Fate.HATCHED_DIED and emerged_s is not None:
        share = way.share(emerged_s)
        window = DeathWindow(share, share + 0.05, "it had come out")
    hatchlings = snapshot.egg(own).hatchlings
    return EggOutcome(
        egg,
        way,
        fate,
        stage,
        pipped_s,
        emerged_s,
        ended_s,
        seen,
        findings,
        bool(opening.opened) if (opening := snapshot.egg(own).opening) else None,
        window,
        way.moment(window.start) if window else ended_s,
        way.moment(window.end) if window else ended_s,
        defects=any(h.defects for h in hatchlings)
        or bool(findings.get(FindingKind.FORM, frozenset()) & DEFECTS),
        small=any(h.size == "small" for h in hatchlings)
        or "small" in findings.get(FindingKind.FORM, frozenset()),
    )


def _findings(snapshot: Snapshot, egg: int) -> Findings:
    told: dict[FindingKind, frozenset[str]] = {}
    for finding in snapshot.egg(egg).findings:
        kind = FindingKind(finding.kind)
        told[kind] = told.get(kind, frozenset()) | {finding.value}
    return told


def _seen(snapshot: Snapshot, clutch: Clutch, way: EggWay, egg: Egg) -> list[Seen]:
    laid_s = clutch.laid_s

    def seen(at_s: float, kind: SignKind, value: str) -> Seen:
        return Seen(way.share(at_s), (at_s - laid_s) / SECONDS_PER_DAY, kind, value)

    looks = [
        seen(c.seen_s, SignKind.VESSELS, c.vessels) for c in snapshot.egg(egg.entity_id).candlings
    ]
    looks += [seen(s.seen_s, SignKind(s.kind), s.value) for s in snapshot.egg(egg.entity_id).signs]
    return sorted(looks, key=lambda s: s.share)
