"""Why the eggs of a clutch were lost: evidence from the whole house, causes ranked."""

import math
from dataclasses import dataclass

from sandboa.core.candling import TURN_WITHIN_HOURS, Disc
from sandboa.core.causes import (
    Cause,
    DeathWindow,
    LossEvidence,
    RankedCause,
    missing,
    rank_causes,
    together,
)
from sandboa.core.causes.evidence import Happening, Sibling
from sandboa.core.hatching import Fate
from sandboa.core.lay_day import EggEvent
from sandboa.core.pairing.genes import Gene
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR
from sandboa.records.clutches import Clutch
from sandboa.records.clutches import EggEvent as EggEventRow
from sandboa.records.hatching import Opening
from sandboa.services.animals.genes import as_genes, genes
from sandboa.services.boxes.box_stays import BoxStay
from sandboa.services.losses.box_evidence import (
    air_of,
    heat_of,
    own_dents_early,
    pests_of,
    water_of,
)
from sandboa.services.losses.house_evidence import neighbours_of, parents_of
from sandboa.services.losses.outcomes import (
    ClutchOutcomes,
    EggOutcome,
    outcomes_by_now,
    stays_of_egg,
)
from sandboa.services.snapshot.snapshot import Snapshot

#: Share of the box within which two eggs touch (assumption: about an egg's length).
_TOUCHING = 0.2


@dataclass(frozen=True)
class LostEgg:
    """A lost egg (or slug) with what is known and what is likely; `causes` likeliest first.

    `together` are the causes that speak at once; `lain` is where it lay, to its death.
    """

    end: EggOutcome
    evidence: LossEvidence
    causes: tuple[RankedCause, ...]
    together: tuple[Cause, ...]
    missing: tuple[str, ...]
    opening: Opening | None
    lain: tuple[BoxStay, ...]


@dataclass(frozen=True)
class ClutchLosses:
    """A clutch with its losses; slugs apart, for they are no losses of incubation."""

    clutch: Clutch
    fertile: int
    hatched: int
    waiting: int
    lost: tuple[LostEgg, ...]
    slugs: tuple[LostEgg, ...]


def clutch_losses(snapshot: Snapshot, code: str, as_of_s: float) -> ClutchLosses:
    """One clutch's losses; NotFound for an unknown code."""
    return losses_of(snapshot, snapshot.clutch_called(code), as_of_s)


def losses_of(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> ClutchLosses:
    """A clutch's losses with their causes; held while what they rest on stands."""
    return snapshot.kept.held(
        ("losses", clutch.entity_id),
        stamp_of_losses(snapshot, clutch, as_of_s),
        lambda: _worked_out(snapshot, clutch, as_of_s),
    )


def losses_at_hand(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> bool:
    """Whether a clutch's losses are worked out already."""
    stamp = stamp_of_losses(snapshot, clutch, as_of_s)
    return snapshot.kept.holds(("losses", clutch.entity_id), stamp)


def stamp_of_losses(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> tuple[int, ...]:
    """A closed clutch's causes rest on the house, but not on the rounds at its other boxes."""
    if snapshot.clutch(clutch.entity_id).finished is None:
        return snapshot.version, int(as_of_s // SECONDS_PER_DAY)
    acts = snapshot.last_acts
    return acts.by_clutch.get(clutch.entity_id, 0), acts.losses, 0


def _worked_out(snapshot: Snapshot, clutch: Clutch, as_of_s: float) -> ClutchLosses:
    everyone, _ = outcomes_by_now(snapshot, as_of_s)
    outcomes = next(e for e in everyone if e.clutch.entity_id == clutch.entity_id)
    others = [e for e in everyone if e.clutch.entity_id != clutch.entity_id]
    listed = as_genes(genes())
    gather = _Gathering(snapshot, outcomes, others, listed, as_of_s)
    lost = [gather.lost_egg(end) for end in outcomes.eggs if end.lost]
    slugs = [gather.lost_egg(end) for end in outcomes.eggs if end.fate is Fate.SLUG]
    fertile = [end for end in outcomes.eggs if end.fate is not Fate.SLUG]
    return ClutchLosses(
        clutch,
        len(fertile),
        sum(end.fate is Fate.HATCHED for end in fertile),
        sum(end.fate is None for end in fertile),
        tuple(lost),
        tuple(slugs),
    )


@dataclass(frozen=True)
class _Gathering:
    """Evidence being gathered for the eggs of one clutch."""

    snapshot: Snapshot
    outcomes: ClutchOutcomes
    others: list[ClutchOutcomes]
    genes: list[Gene]
    as_of_s: float

    def lost_egg(self, end: EggOutcome) -> LostEgg:
        evidence, rules = self.evidence(end), self.snapshot.settings.rules.losses
        causes = rank_causes(evidence, rules)
        return LostEgg(
            end,
            evidence,
            causes,
            together(causes, rules.limits.together_from),
            missing(evidence),
            self.snapshot.egg(end.egg.entity_id).opening,
            stays_of_egg(self.snapshot, end),
        )

    def evidence(self, end: EggOutcome) -> LossEvidence:
        """Everything that bears on why this egg was lost."""
        snapshot, outcomes, own = self.snapshot, self.outcomes, end.egg.entity_id
        # A slug never lived: its window is lay day.
        window = end.window or DeathWindow(0.0, 0.02, "never fertile")
        assert end.fate is not None, "only eggs with a fate are lost"
        events = snapshot.egg(own).events
        cut = snapshot.egg(own).cut
        day_s = outcomes.clutch.laid_s + TURN_WITHIN_HOURS * SECONDS_PER_HOUR
        disc = next(
            (Disc(c.disc) for c in snapshot.egg(own).candlings if c.disc and c.seen_s <= day_s),
            None,
        )
        slug = end.fate is Fate.SLUG
        return LossEvidence(
            number=end.egg.number,
            fate=end.fate,
            window=window,
            death_day=(end.died_s - outcomes.clutch.laid_s) / SECONDS_PER_DAY,
            slug_at_lay=bool(end.egg.slug),
            shells=self.snapshot.egg(end.egg.entity_id).shells_at(end.egg, end.died_s),
            seen=end.seen,
            disc_at_lay=disc,
            turned=any(e.kind == EggEvent.TURNED for e in events),
            happened=tuple(self._happened(end, e) for e in events),
            own_dents_early=own_dents_early(snapshot, outcomes, end),
            cut=(end.way.share(cut.at_s), bool(cut.bled)) if cut else None,
            pipped=end.way.share(end.pipped_s) if end.pipped_s is not None else None,
            pip_to_end_hours=(end.ended_s - end.pipped_s) / SECONDS_PER_HOUR
            if end.pipped_s is not None
            else None,
            pipped_early_days=_pipped_early_days(snapshot, outcomes, end),
            opened=end.opened,
            findings=end.findings,
            siblings=tuple(
                self._sibling(end, other) for other in outcomes.eggs if other is not end
            ),
            water=None if slug else water_of(snapshot, outcomes, end),
            heat=None if slug else heat_of(snapshot, outcomes, end, self.as_of_s),
            air=None if slug else air_of(snapshot, outcomes, end),
            pests_seen=pests_of(snapshot, end),
            parents=parents_of(snapshot, outcomes, self.others, window, self.genes),
            neighbours=neighbours_of(snapshot, outcomes, self.others, end),
        )

    def _happened(self, end: EggOutcome, event: EggEventRow) -> Happening:
        """With the visit before it: what is found at one may have happened since the last."""
        stay = self.snapshot.egg(end.egg.entity_id).stay_at(event.at_s)
        visits = self.snapshot.box(stay.box_id).visits if stay is not None else []
        before = [v.closed_s for v in visits if v.closed_s < event.at_s]
        after = end.way.share(max(before, default=self.outcomes.clutch.laid_s))
        return Happening(end.way.share(event.at_s), event.kind, after)

    def _sibling(self, end: EggOutcome, other: EggOutcome) -> Sibling:
        a, b = end.egg, other.egg
        clumped = a.clump is not None and a.clump == b.clump
        here, there = (self.snapshot.egg(egg.entity_id).stay_at(end.died_s) for egg in (a, b))
        near = (
            here is not None
            and there is not None
            and here.box_id == there.box_id
            and (here.x - there.x) ** 2 + (here.y - there.y) ** 2 <= _TOUCHING**2
        )
        return Sibling(other.fate, other.window, other.defects, other.small, clumped or near)


def _pipped_early_days(
    snapshot: Snapshot, outcomes: ClutchOutcomes, end: EggOutcome
) -> float | None:
    """Days its siblings pipped before what the set point gives by the clock; None where none did.

    By the clock alone, whatever was measured: heat that no probe saw shows here.
    """
    pips = [other.pipped_s for other in outcomes.eggs if other is not end and other.pipped_s]
    laid_s = outcomes.clutch.laid_s
    cabinet = snapshot.shelf_at(snapshot.box_of(outcomes.clutch, laid_s), laid_s).cabinet_id
    set_points = snapshot.cabinet(cabinet).set_points
    if not pips or set_points is None:
        return None
    rate = float(snapshot.settings.rules.clock.rate_per_day(set_points.at(laid_s)))
    if rate <= 0.0:
        return None
    return 1.0 / rate - (math.fsum(pips) / len(pips) - laid_s) / SECONDS_PER_DAY
