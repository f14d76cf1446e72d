"""What a season taught, in at most six sentences, each with its number (rule H).

A sentence about groups is said only where it would hold if every group had
been asked about: with many comparisons one is bound to look striking.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.rates import Comparison, Rate, Tally, compare

MOST_SENTENCES: Final = 6
#: Chance of a wrong call over all groups that were compared (rule H: intervals or nothing).
_WRONG: Final = 0.05
#: Days by which forecasts must have been off to be worth a sentence, and clutches it rests on.
_BIAS_DAYS: Final = 0.5
_BIAS_CLUTCHES: Final = 3
#: Eggs a cause must have cost, by its shares, to be named (assumption).
_COST_EGGS: Final = 1.0

#: By dimension ("medium"), by group ("vermiculite"), the clutches' counts.
Groups = Mapping[str, Mapping[str, Sequence[Tally]]]


@dataclass(frozen=True, slots=True)
class CauseCost:
    """A cause with the eggs it likely cost (sum of its shares), and the clutch it cost most."""

    cause: str
    eggs: float
    code: str
    change: str


@dataclass(frozen=True, slots=True)
class SeasonFacts:
    """What the sentences are made from.

    Attributes
    ----------
    hatched: over all fertile eggs of closed clutches.
    groups: hatched of fertile eggs; `slugs`: slugs of laid eggs, by dam.
    correlation: how alike eggs of one clutch are; `slug_correlation` the same of slugs.
    costs: causes of loss, the dearest first; `lost` eggs in all, `opened` of them.
    bias: (mean error in days of forecasts at lay, positive when too late; clutches), or None.
    unweighed: boxes never weighed, of `boxes`.
    """

    hatched: Rate
    groups: Groups
    slugs: Mapping[str, Sequence[Tally]]
    correlation: float
    slug_correlation: float
    costs: Sequence[CauseCost]
    lost: int
    opened: int
    bias: tuple[float, int] | None
    unweighed: int
    boxes: int


@dataclass(frozen=True, slots=True)
class SeasonFinding:
    """A sentence; `number` is what it rests on, `about` where more of it stands."""

    text: str
    number: str
    about: str


def season_findings(season: SeasonFacts) -> tuple[SeasonFinding, ...]:
    """The sentences, the broadest first; empty before any clutch is closed."""
    if not season.hatched.n:
        return ()
    said = [
        _overall(season.hatched),
        *_cost(season),
        *_differences(season),
        *_slugs(season),
        *_bias(season),
        *_habits(season),
    ]
    return tuple(said[:MOST_SENTENCES])


def _overall(hatched: Rate) -> SeasonFinding:
    share = hatched.share or 0.0
    return SeasonFinding(
        f"{hatched.k} of {hatched.n} fertile eggs hatched, in {_clutches(hatched.clutches)}.",
        f"{_percent(share)}, likely {_percent(hatched.low)} to {_percent(hatched.high)}",
        "hatch rates",
    )


def _cost(season: SeasonFacts) -> Iterator[SeasonFinding]:
    for cost in [c for c in season.costs if c.cause != "unknown"][:2]:
        if cost.eggs < _COST_EGGS:
            continue
        first, _, _ = cost.change.partition(";")
        change = f" {first.rstrip('.')}." if first else ""
        yield SeasonFinding(
            f"{cost.cause[0].upper()}{cost.cause[1:]} took the most, most of it in {cost.code}."
            f"{change}"
            if cost is season.costs[0] or season.costs[0].cause == "unknown"
            else f"Then {cost.cause}, most of it in {cost.code}.{change}",
            f"about {cost.eggs:.1f} of {season.lost} lost eggs",
            f"losses {cost.code}",
        )


def _differences(season: SeasonFacts) -> Iterator[SeasonFinding]:
    """Groups that did better or worse than all others, as far as that can be said."""
    found: list[tuple[float, str, str, Comparison]] = []
    asked = 0
    for dimension, groups in season.groups.items():
        for name, own in groups.items():
            others = [t for other, ts in groups.items() if other != name for t in ts]
            if not own or not others:
                continue
            asked += 1
            told = compare(name, "the others", own, others, season.correlation)
            found.append((max(told.better, 1.0 - told.better), dimension, name, told))
    sure = [f for f in found if f[0] >= 1.0 - _WRONG / max(asked, 1)]
    seen: set[str] = set()
    for chance, dimension, _, told in sorted(sure, key=lambda f: -f[0]):
        if dimension in seen or len(seen) == 2:
            continue
        seen.add(dimension)
        yield SeasonFinding(
            f"By {dimension}: {told.words}",
            f"{_percent(chance)} sure, {asked} groups asked about",
            f"hatch rates {dimension}",
        )


def _slugs(season: SeasonFacts) -> Iterator[SeasonFinding]:
    for name, own in season.slugs.items():
        others = [t for other, ts in season.slugs.items() if other != name for t in ts]
        if not own or not others:
            continue
        told = compare(name, "the others", own, others, season.slug_correlation)
        if told.better >= 1.0 - _WRONG / len(season.slugs):
            slugs, laid = sum(t.k for t in own), sum(t.n for t in own)
            yield SeasonFinding(
                f"{name} laid more slugs than the others: look at her locks, age and weight.",
                f"{slugs} of {laid}",
                "slugs",
            )


def _bias(season: SeasonFacts) -> Iterator[SeasonFinding]:
    if season.bias is None:
        return
    days, clutches = season.bias
    if clutches < _BIAS_CLUTCHES or abs(days) < _BIAS_DAYS:
        return
    way = "earlier" if days > 0 else "later"
    yield SeasonFinding(
        f"Pips came {way} than was forecast at lay; what follows is forecast with that in mind.",
        f"{abs(days):.1f} days over {_clutches(clutches)}",
        "forecasts",
    )


def _habits(season: SeasonFacts) -> Iterator[SeasonFinding]:
    if season.lost > season.opened:
        yield SeasonFinding(
            "Open every egg that failed: without it most causes stay unknown.",
            f"{season.opened} of {season.lost} opened",
            "losses",
        )
    if 2 * season.unweighed > season.boxes:
        yield SeasonFinding(
            "Weigh the boxes: water is guessed where nobody does.",
            "the only box was never weighed"
            if season.boxes == 1
            else f"{season.unweighed} of {season.boxes} boxes never weighed",
            "water",
        )


def _clutches(count: int) -> str:
    return "1 clutch" if count == 1 else f"{count} clutches"


def _percent(share: float) -> str:
    return f"{100 * share:.0f} %"
