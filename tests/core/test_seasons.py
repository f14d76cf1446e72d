"""What a season taught: at most six sentences, each with its number, none that chance could say."""

import numpy as np
import pytest

from sandboa.core.pairing.expected import against_expected
from sandboa.core.rates import Tally, intraclass_correlation, rate_of
from sandboa.core.seasons import MOST_SENTENCES, CauseCost, SeasonFacts, season_findings

NOTHING: dict = {"dam": {}, "medium": {}}


def facts(**changes: object) -> SeasonFacts:
    tallies = [Tally(6, 7)] * 6
    values: dict = {
        "hatched": rate_of(tallies),
        "groups": NOTHING,
        "slugs": {},
        "correlation": 0.1,
        "slug_correlation": 0.1,
        "costs": (),
        "lost": 6,
        "opened": 6,
        "bias": None,
        "unweighed": 0,
        "boxes": 6,
    }
    return SeasonFacts(**{**values, **changes})


def texts(season: SeasonFacts) -> list[str]:
    return [said.text for said in season_findings(season)]


def test_a_season_begins_with_what_hatched_and_its_interval() -> None:
    (overall,) = season_findings(facts())
    assert overall.text == "36 of 42 fertile eggs hatched, in 6 clutches."
    assert "likely" in overall.number
    assert season_findings(facts(hatched=rate_of([]))) == ()


def test_the_dearest_cause_is_named_with_what_it_cost_and_what_to_change() -> None:
    costs = (
        CauseCost("unknown", 2.2, "25-01", ""),
        CauseCost("too dry", 3.6, "25-03", "Weigh the boxes; top up in time."),
        CauseCost("malformed", 0.4, "25-05", "Look at the heat."),
    )
    said = season_findings(facts(costs=costs, lost=7))
    assert said[1].text.startswith("Too dry took the most, most of it in 25-03. Weigh the boxes")
    assert said[1].number == "about 3.6 of 7 lost eggs"
    assert said[1].about == "losses 25-03"
    assert not any("malformed" in s.text.lower() for s in said)


def test_a_plain_difference_is_told_and_one_that_chance_could_make_is_not() -> None:
    groups = {"closing": {"lid": [Tally(7, 7)] * 9, "open corner": [Tally(1, 7)] * 5}}
    (_, told) = season_findings(facts(groups=groups))
    assert "lid did better than the others" in told.text
    assert "groups asked about" in told.number
    few = {"closing": {"lid": [Tally(6, 7)], "open corner": [Tally(5, 7)]}}
    assert len(season_findings(facts(groups=few))) == 1


def test_with_many_groups_and_no_difference_hardly_anything_is_called() -> None:
    random = np.random.default_rng(11)
    called = 0
    for _ in range(60):
        tallies = [Tally(int(random.binomial(7, 0.8)), 7) for _ in range(24)]
        groups = {f"by {d}": {f"g{n}": tallies[n::4] for n in range(4)} for d in range(6)}
        season = facts(groups=groups, correlation=intraclass_correlation(tallies))
        called += any("did better" in text for text in texts(season))
    assert called <= 6


def test_a_dam_of_many_slugs_is_named() -> None:
    slugs = {"Tansy": [Tally(4, 7), Tally(5, 8)], **{f"d{n}": [Tally(0, 7)] * 2 for n in range(5)}}
    assert any(text.startswith("Tansy laid more slugs") for text in texts(facts(slugs=slugs)))
    even = {f"d{n}": [Tally(1, 7)] * 2 for n in range(5)}
    assert not any("more slugs" in text for text in texts(facts(slugs=even)))


@pytest.mark.parametrize(
    ("bias", "said"),
    [((1.2, 5), "earlier"), ((-1.2, 5), "later"), ((1.2, 2), None), ((0.2, 9), None), (None, None)],
)
def test_forecasts_that_were_off_are_told_from_three_clutches_on(bias, said) -> None:
    found = [text for text in texts(facts(bias=bias)) if text.startswith("Pips came")]
    assert bool(found) == (said is not None)
    assert all(said in text for text in found)


def test_habits_that_would_help_are_named_and_six_sentences_are_the_most() -> None:
    costs = tuple(CauseCost(c, 3.0, "25-01", "Change it.") for c in ("too dry", "too hot"))
    groups = {
        d: {"a": [Tally(7, 7)] * 9, "b": [Tally(1, 7)] * 6} for d in ("medium", "closing", "shelf")
    }
    season = facts(
        costs=costs, groups=groups, opened=1, unweighed=5, bias=(2.0, 6),
        slugs={"Tansy": [Tally(5, 7)] * 3, **{f"d{n}": [Tally(0, 7)] * 3 for n in range(5)}},
    )  # fmt: skip
    assert len(season_findings(season)) == MOST_SENTENCES
    habits = texts(facts(opened=1, unweighed=5))
    assert any("Open every egg" in text for text in habits)
    assert any("Weigh the boxes" in text for text in habits)


def test_a_house_of_one_box_is_not_told_of_one_of_one() -> None:
    numbers = [said.number for said in season_findings(facts(unweighed=1, boxes=1))]
    assert "the only box was never weighed" in numbers
    assert not any("1 of 1" in number for number in numbers)


def test_what_hatched_is_held_against_what_was_expected() -> None:
    assert against_expected(3, 9, 0.25) == "3 of 9 hatchlings, 2.2 expected: too few to say more"
    assert against_expected(6, 24, 0.25).endswith("as chance has it")
    assert against_expected(16, 24, 0.25).endswith("more than chance explains")
    assert against_expected(0, 24, 0.25).endswith("fewer than chance explains")
    with pytest.raises(ValueError, match="cannot be"):
        against_expected(3, 2, 0.5)
