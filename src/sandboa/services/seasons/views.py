"""The Seasons place: rates with intervals, losses by cause, forecasts, and what it all taught."""

from calendar import month_name
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from sandboa.core.causes import Cause
from sandboa.core.causes.kinds import REMEDIES
from sandboa.core.development import Score
from sandboa.core.rates import (
    Comparison,
    GroupRate,
    LikeForLike,
    Rate,
    SideBySide,
    Tally,
    compare,
    group_rates,
    intraclass_correlation,
    rate_of,
)
from sandboa.core.seasons import CauseCost, SeasonFacts, SeasonFinding, season_findings
from sandboa.core.standing import StandingScore
from sandboa.services.acts.errors import NotFound
from sandboa.services.clutches.issued_forecasts import scores
from sandboa.services.losses.ahead import go_on_with_losses, losses_by_now
from sandboa.services.losses.loss_list import year_of
from sandboa.services.losses.outcomes import GoesOn, outcomes_by_now, without_end
from sandboa.services.losses.why import LostEgg
from sandboa.services.seasons.changes import PlaceChange
from sandboa.services.seasons.counted import (
    CountedClutch,
    count,
    counted_clutches,
    grouped,
)
from sandboa.services.seasons.dimensions import SIDE_BY_SIDE, Dimension
from sandboa.services.seasons.standing_scores import standing_scores
from sandboa.services.snapshot.snapshot import Snapshot


@dataclass(frozen=True, slots=True)
class DamSlugs:
    """Slugs of a dam's clutches in one year, as on cards: `counts` like "7-2"."""

    dam: str
    year: int
    rate: Rate
    counts: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class GroupShown:
    """A group with its raw rate and, for what is weighed side by side, the rate with all else as
    usual; `together` names groups of other dimensions that hold the very same clutches."""

    told: GroupRate
    like_for_like: LikeForLike | None
    together: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class SlugRates:
    """Slugs of laid eggs in all, by dam over the years, and by month of laying."""

    in_all: Rate
    by_dam: tuple[tuple[str, Rate], ...]
    by_month: tuple[tuple[str, Rate], ...]


@dataclass(frozen=True)
class SeasonPage:
    """`year` None is all years. `costs` are eggs by cause, the dearest first.

    `past` of the clutches are of before Sandboa: of them only counts are known, and they are not
    among the losses. How the eggs of `uncounted` clutches ended, of whatever year, is not worked
    out yet: they are not among `clutches`. Of `waiting` clutches it is not worked out yet why eggs
    were lost: their eggs are not among `lost`, `opened`, `costs` and the findings on causes.
    `changes` are of eggs that lay under two names of a dimension while they developed.
    `level` is the share (0-1) that intervals of rates hold.
    """

    year: int | None
    years: tuple[int, ...]
    clutches: tuple[CountedClutch, ...]
    past: int
    hatched: Rate
    level: float
    correlation: float
    dimensions: dict[Dimension, tuple[GroupShown, ...]]
    changes: dict[Dimension, tuple[PlaceChange, ...]]
    slugs: tuple[DamSlugs, ...]
    slug_rates: SlugRates
    lost: int
    opened: int
    costs: tuple[CauseCost, ...]
    scores: tuple[Score, ...]
    standings: tuple[StandingScore, ...]
    uncounted: int
    waiting: int
    findings: tuple[SeasonFinding, ...]


def season_page(
    snapshot: Snapshot,
    year: int | None,
    as_of_s: float,
    goes_on: GoesOn = without_end,
) -> SeasonPage:
    """Everything of a season (by year of laying), or of all.

    Causes of loss take a second a clutch where probes measured every minute.
    Once `goes_on` says no, it is told of what is worked out by then.
    """
    outcomes, uncounted = outcomes_by_now(snapshot, as_of_s, goes_on)
    every = count(snapshot, outcomes)
    clutches = [c for c in every if year is None or c.year == year]
    tallies = [c.hatched for c in clutches if c.hatched.n]
    correlation = intraclass_correlation(tallies)
    groups = {dimension: grouped(clutches, dimension) for dimension in Dimension}
    rates = _side_by_side(snapshot, clutches, year)
    by_dam, by_month = (_slugs_by(clutches, d) for d in (Dimension.DAM, Dimension.MONTH))
    slug_correlation = intraclass_correlation(c.slugs for c in clutches)
    recorded = [c.outcomes.clutch for c in clutches if c.outcomes is not None]
    worked_out = list(losses_by_now(snapshot, recorded, as_of_s, goes_on))
    past = sum(c.outcomes is None for c in clutches)
    waiting = len(clutches) - past - len(worked_out)
    lost = [(losses.clutch.code, egg) for losses in worked_out for egg in losses.lost]
    costs = tuple(_costs(lost))
    told_scores = tuple(scores(snapshot))
    level = snapshot.settings.rules.rates.level
    hatched = rate_of(tallies, correlation, level)
    opened = sum(egg.end.opened is True for _, egg in lost)
    return SeasonPage(
        year=year,
        years=_years(snapshot),
        clutches=tuple(clutches),
        past=past,
        hatched=hatched,
        level=level,
        correlation=correlation,
        dimensions={d: tuple(_shown(d, held, rates)) for d, held in groups.items()},
        changes={d: tuple(m for c in clutches for m in c.changes.get(d, ())) for d in Dimension},
        slugs=tuple(_slugs(clutches, level)),
        slug_rates=SlugRates(
            rate_of([c.slugs for c in clutches], slug_correlation, level),
            *(
                tuple((name, rate_of(own, slug_correlation, level)) for name, own in held.items())
                for held in (by_dam, by_month)
            ),
        ),
        lost=len(lost),
        opened=opened,
        costs=costs,
        scores=told_scores,
        standings=tuple(standing_scores(snapshot, every)),
        uncounted=uncounted,
        waiting=waiting,
        findings=()
        # Half of the clutches teach the wrong thing.
        if uncounted
        else season_findings(
            SeasonFacts(
                hatched=hatched,
                rates=rates,
                slugs=by_dam,
                slugs_by_month=by_month,
                slug_correlation=slug_correlation,
                # Half of the losses teach the wrong thing: all of them, or nothing yet.
                costs=() if waiting else costs,
                lost=0 if waiting else len(lost),
                opened=0 if waiting else opened,
                bias=_bias(told_scores),
                unweighed=sum(_unweighed(snapshot, c) for c in clutches),
                boxes=sum(Dimension.MEDIUM in c.groups for c in clutches),
            )
        ),
    )


def _years(snapshot: Snapshot) -> tuple[int, ...]:
    """Years in which a clutch was laid that is closed, or past; the latest first."""
    laid = {year_of(clutch) for clutch, _ in snapshot.closed}
    past = {year_of(clutch) for clutch in snapshot.past_clutches}
    return tuple(sorted(laid | past, reverse=True))


def go_on_with_season(
    snapshot: Snapshot, year: int | None, as_of_s: float, goes_on: GoesOn
) -> bool:
    """Work on at what the page waits for; returns whether all of it is at hand."""
    closed = [c for c, _ in snapshot.closed if year is None or year_of(c) == year]
    return go_on_with_losses(snapshot, closed, as_of_s, goes_on)


def compare_groups(
    snapshot: Snapshot,
    dimension: Dimension,
    first: str,
    second: str,
    year: int | None,
    as_of_s: float,
) -> Comparison:
    """Two groups of a dimension; NotFound for a group no closed clutch belongs to."""
    clutches = counted_clutches(snapshot, as_of_s, year)
    groups = grouped(clutches, dimension)
    for name in (first, second):
        if name not in groups:
            raise NotFound(f'no closed clutch has the {dimension} "{name[:60]}"')
    if dimension not in SIDE_BY_SIDE:
        correlation = intraclass_correlation(c.hatched for c in clutches if c.hatched.n)
        rules = snapshot.settings.rules.rates
        return compare(first, second, groups[first], groups[second], correlation, rules)
    rates = _side_by_side(snapshot, clutches, year)
    told = rates.compare((dimension.value, first), (dimension.value, second))
    apart = [*_cannot_be_told_apart(rates, dimension, (first, second))]
    return replace(told, words=" ".join([told.words, *apart]))


def _cannot_be_told_apart(
    rates: SideBySide, dimension: Dimension, names: Sequence[str]
) -> Iterator[str]:
    for name in names:
        others = [other for _, other in rates.together((dimension.value, name))]
        if others:
            listed = " and ".join(others)
            yield f"{name} came with {listed} each time: they cannot be told apart."


def _costs(lost: Sequence[tuple[str, LostEgg]]) -> list[CauseCost]:
    """Eggs each cause likely cost: the sum of its shares, so that doubt stays in the count."""
    eggs: dict[Cause, dict[str, float]] = defaultdict(lambda: defaultdict(float))
    for code, egg in lost:
        for ranked in egg.causes:
            eggs[ranked.cause][code] += ranked.share
    costs = [
        CauseCost(
            cause.value,
            sum(by_code.values()),
            max(by_code, key=lambda code: by_code[code]),
            REMEDIES[cause].change,
        )
        for cause, by_code in eggs.items()
    ]
    return sorted(costs, key=lambda cost: -cost.eggs)


def _slugs(clutches: Sequence[CountedClutch], level: float) -> list[DamSlugs]:
    held: dict[tuple[str, int], list[CountedClutch]] = defaultdict(list)
    for clutch in clutches:
        held[clutch.groups[Dimension.DAM], clutch.year].append(clutch)
    return [
        DamSlugs(
            dam,
            year,
            rate_of([c.slugs for c in own], level=level),
            tuple(f"{c.slugs.n}-{c.slugs.k}" for c in own),
        )
        for (dam, year), own in sorted(held.items(), key=lambda item: (item[0][0], -item[0][1]))
    ]


def _slugs_by(clutches: Sequence[CountedClutch], by: Dimension) -> dict[str, list[Tally]]:
    """Slugs of laid eggs by group, in the order groups are listed."""
    held: dict[str, list[Tally]] = defaultdict(list)
    for clutch in clutches:
        held[clutch.groups[by]].append(clutch.slugs)
    return {name: held[name] for name in sorted(held, key=lambda name: _order(by, name))}


def _shown(
    by: Dimension, held: Mapping[str, Sequence[Tally]], rates: SideBySide
) -> Iterator[GroupShown]:
    """The groups of a dimension as they are listed: by name, months as the year goes."""
    known = set(rates.groups)
    for told in sorted(group_rates(held, rates.rules.level), key=lambda g: _order(by, g.name)):
        group = (by.value, told.name)
        inside = group in known
        yield GroupShown(
            told,
            rates.like_for_like(group) if inside else None,
            tuple(name for _, name in rates.together(group)) if inside else (),
        )


def _order(by: Dimension, name: str) -> tuple[int, str]:
    return (list(month_name).index(name) if by is Dimension.MONTH else 0, name.casefold())


def _side_by_side(
    snapshot: Snapshot, clutches: Sequence[CountedClutch], year: int | None
) -> SideBySide:
    """The rates of all groups at once; held while the counts stand."""
    cells = tuple(cell for clutch in clutches for cell in clutch.cells)
    rules = snapshot.settings.rules.rates
    stamp = (cells, rules)
    return snapshot.kept.held(f"rates of {year}", stamp, lambda: SideBySide(cells, rules))


def _bias(told: Sequence[Score]) -> tuple[float, int] | None:
    # What was learned since counts: later seasons stand after first ones.
    at_lay = next((score for score in reversed(told) if score.day == 0), None)
    return None if at_lay is None else (at_lay.bias_days, at_lay.clutches)


def _unweighed(snapshot: Snapshot, clutch: CountedClutch) -> bool:
    if clutch.outcomes is None:
        return False
    boxes = snapshot.boxes_of(clutch.outcomes.clutch, clutch.outcomes.clutch.laid_s)
    return Dimension.MEDIUM in clutch.groups and not any(
        snapshot.box(box.entity_id).weighings for box in boxes
    )
