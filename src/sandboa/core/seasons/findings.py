"""What a season taught, in at most six sentences, each with its number (rule H).

A sentence about groups is said only where it would hold if every group had
been asked about: with many comparisons one is bound to look striking.
"""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

from sandboa.core.rates import Group, Rate, SideBySide, Tally, compare, jeffreys, sure_words

MOST_SENTENCES: Final = 6
#: Chance of a wrong call over all groups that were compared (rule H: intervals or nothing).
_WRONG: Final = 0.05
#: Days by which forecasts must have been off to be worth a sentence, and clutches it rests on.
_BIAS_DAYS: Final = 0.5
_BIAS_CLUTCHES: Final = 3
#: Differences between groups that are told at most (assumption).
_MOST_DIFFERENCES: Final = 2
#: Clutches of a dam from which resting her is spoken of, and how many times the house's share of
#: slugs the lower end of hers must be (assumption).
_REST_CLUTCHES: Final = 2
_REST_ABOVE: Final = 1.5
_UNKNOWN: Final = "unknown"
#: How a group of a dimension is called in a sentence; its name alone where it is not here.
_GROUP_WORDS: Final = {
    "dam": "the clutches of {}",
    "sire": "the clutches by {}",
    "cabinet": "cabinet {}",
    "month": "clutches of {}",
}
#: Eggs a cause must have cost, by its shares, to be named (assumption).
_COST_EGGS: Final = 1.0


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
    rates: hatch rates of all groups, each with all else as usual.
    slugs: slugs of laid eggs, by dam; `slugs_by_month` the same by month of laying.
    slug_correlation: how alike the eggs of one clutch are in being slugs.
    costs: causes of loss, the dearest first; `lost` eggs in all, `opened` of them.
    bias: (mean error in days of forecasts at lay, positive when too late; clutches), or None.
    unweighed: boxes never weighed, of `boxes`.
    """

    hatched: Rate
    rates: SideBySide
    slugs: Mapping[str, Sequence[Tally]]
    slugs_by_month: Mapping[str, Sequence[Tally]]
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
    """What cost the most eggs; where most of it is not known, that first."""
    unknown = sum(c.eggs for c in season.costs if c.cause == _UNKNOWN)
    named = [c for c in season.costs if c.cause != _UNKNOWN and c.eggs >= _COST_EGGS]
    leads = bool(named) and unknown < named[0].eggs
    if not leads and unknown >= _COST_EGGS:
        rest = "; what can be named cost fewer" if named else ""
        yield SeasonFinding(
            f"Of most lost eggs nobody can say why{rest}.",
            f"about {unknown:.1f} of {season.lost} lost eggs not known",
            "losses",
        )
    for place, cost in enumerate(named[: 2 if leads else 1]):
        first, _, _ = cost.change.partition(";")
        change = f" {first.rstrip('.')}." if first else ""
        name = f"{cost.cause[0].upper()}{cost.cause[1:]}"
        if place == 0 and leads:
            text = f"{name} took the most, most of it in {cost.code}.{change}"
        elif place == 0:
            text = f"Of the rest, {cost.cause} took most, in {cost.code}.{change}"
        else:
            text = f"Then {cost.cause}, most of it in {cost.code}.{change}"
        yield SeasonFinding(
            text,
            f"about {cost.eggs:.1f} of {season.lost} lost eggs",
            f"losses {cost.code}",
        )


def _differences(season: SeasonFacts) -> Iterator[SeasonFinding]:
    """Groups that did better or worse than the others, all else as usual, as far as can be said."""
    rates = season.rates
    asked = [g for g in rates.groups if any(o[0] == g[0] and o != g for o in rates.groups)]
    #: What came together is asked about once, under the dimension that comes first.
    bundles = {tuple(sorted((group, *rates.together(group)))) for group in asked}
    wrong = _WRONG / max(len(bundles), 1)
    found = []
    for bundle in bundles:
        better = rates.better(bundle)
        if max(better, 1.0 - better) >= 1.0 - wrong:
            found.append((max(better, 1.0 - better), better, bundle))
    for _, better, bundle in sorted(found, key=lambda f: (-f[0], f[2]))[:_MOST_DIFFERENCES]:
        counts = rates.counts_words(bundle[0])
        how = "better" if better > 0.5 else "worse"
        text = f"{counts}: {_named(bundle)} did {how} than the others, all else as usual."
        if len(bundle) > 1:
            text += " They came together each time and cannot be told apart."
        yield SeasonFinding(
            text,
            f"{sure_words(better)}, {len(bundles)} groups asked about",
            f"hatch rates {bundle[0][0]}",
        )


def _named(bundle: Sequence[Group]) -> str:
    """ "perlite", or "perlite and the clutches of Chervil"."""
    return " and ".join(_GROUP_WORDS.get(dimension, "{}").format(n) for dimension, n in bundle)


def _slugs(season: SeasonFacts) -> Iterator[SeasonFinding]:
    """A dam, then a month, that laid more slugs than the rest."""
    every = [t for tallies in season.slugs.values() for t in tallies]
    house = sum(t.k for t in every) / max(sum(t.n for t in every), 1)
    for groups, of_dams in ((season.slugs, True), (season.slugs_by_month, False)):
        for name, own in groups.items():
            others = [t for other, ts in groups.items() if other != name for t in ts]
            if not own or not others:
                continue
            told = compare(name, "the others", own, others, season.slug_correlation)
            if told.better < 1.0 - _WRONG / len(groups):
                continue
            slugs, laid = sum(t.k for t in own), sum(t.n for t in own)
            low, high = jeffreys(slugs, laid, season.rates.rules.level)
            if not of_dams:
                text = f"Clutches of {name} held more slugs than the others."
            elif len(own) >= _REST_CLUTCHES and low > _REST_ABOVE * house:
                text = f"{name} laid more slugs than the others: consider resting her a season."
            else:
                text = f"{name} laid more slugs than the others: look at her locks, age and weight."
            number = f"{slugs} of {laid}, likely {_percent(low)} to {_percent(high)}"
            yield SeasonFinding(text, number, "slugs")


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
