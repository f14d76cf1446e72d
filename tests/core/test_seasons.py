"""What a season taught: at most six sentences, each with its number, none that chance could say."""

import numpy as np
import pytest

from sandboa.core.pairing.expected import against_expected
from sandboa.core.rates import Cell, SideBySide, Tally, rate_of
from sandboa.core.seasons import MOST_SENTENCES, CauseCost, SeasonFacts, season_findings


def side_by_side(groups: dict) -> SideBySide:
    """Clutches by dimension and group, each in one group of one dimension only."""
    cells = []
    for dimension, held in groups.items():
        for name, tallies in held.items():
            for tally in tallies:
                cells.append(Cell(len(cells), tally.k, tally.n, ((dimension, name),)))
    return SideBySide(cells)


def facts(**changes: object) -> SeasonFacts:
    tallies = [Tally(6, 7)] * 6
    values: dict = {
        "hatched": rate_of(tallies),
        "rates": SideBySide([]),
        "slugs": {},
        "slugs_by_month": {},
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
        CauseCost("too dry", 3.6, "25-03", "Weigh the boxes; top up in time."),
        CauseCost("unknown", 2.2, "25-01", ""),
        CauseCost("malformed", 0.4, "25-05", "Look at the heat."),
    )
    said = season_findings(facts(costs=costs, lost=7))
    assert said[1].text.startswith("Too dry took the most, most of it in 25-03. Weigh the boxes")
    assert said[1].number == "about 3.6 of 7 lost eggs"
    assert said[1].about == "losses 25-03"
    assert not any("malformed" in s.text.lower() for s in said)


def test_a_plain_difference_is_told_and_one_that_chance_could_make_is_not() -> None:
    groups = {"closing": {"lid": [Tally(7, 7)] * 9, "open corner": [Tally(1, 7)] * 5}}
    (_, *told) = season_findings(facts(rates=side_by_side(groups)))
    assert any("lid did better than the others" in said.text for said in told)
    assert all("groups asked about" in said.number for said in told)
    few = {"closing": {"lid": [Tally(6, 7)], "open corner": [Tally(5, 7)]}}
    assert len(season_findings(facts(rates=side_by_side(few)))) == 1


def test_no_cause_leads_while_more_is_unknown() -> None:
    costs = (
        CauseCost("unknown", 6.1, "25-01", ""),
        CauseCost("too dry", 1.2, "25-03", "Weigh the boxes."),
    )
    _, unknown, named = season_findings(facts(costs=costs, lost=8, opened=8))
    assert unknown.text.startswith("Of most lost eggs nobody can say why")
    assert named.text == "Of the rest, too dry took most, in 25-03. Weigh the boxes."
    assert not any("took the most" in text for text in texts(facts(costs=costs, lost=8)))
    only = (CauseCost("unknown", 3.0, "25-01", ""),)
    (_, unknown, *_) = season_findings(facts(costs=only, lost=3))
    assert unknown.text.startswith("Of most lost eggs")


def test_what_always_came_together_is_said_not_to_be_told_apart() -> None:
    cells = [
        *(Cell(n, 7, 7, (("dam", f"d{n % 3}"), ("medium", "vermiculite"))) for n in range(12)),
        *(Cell(20 + n, 1, 7, (("dam", "Chervil"), ("medium", "perlite"))) for n in range(5)),
    ]
    said = [text for text in texts(facts(rates=SideBySide(cells))) if "Chervil" in text]
    assert said == [
        "5 of 35 against 84 of 84: the clutches of Chervil and perlite did worse than the "
        "others, all else as usual. They came together each time and cannot be told apart."
    ]


def test_nothing_is_a_hundred_per_cent_sure() -> None:
    groups = {"medium": {"a": [Tally(7, 7)] * 40, "b": [Tally(0, 7)] * 40}}
    numbers = [said.number for said in season_findings(facts(rates=side_by_side(groups)))]
    assert any(number.startswith("more than 99 % sure") for number in numbers)
    assert not any("100 % sure" in number for number in numbers)


def test_with_many_groups_and_no_difference_hardly_anything_is_called() -> None:
    random = np.random.default_rng(11)
    called = 0
    for _ in range(60):
        tallies = [Tally(int(random.binomial(7, 0.8)), 7) for _ in range(24)]
        groups = {f"by {d}": {f"g{n}": tallies[n::4] for n in range(4)} for d in range(6)}
        season = facts(rates=side_by_side(groups))
        called += any("did better" in text for text in texts(season))
    assert called <= 6


def test_a_dam_of_many_slugs_is_named() -> None:
    slugs = {"Tansy": [Tally(4, 7), Tally(5, 8)], **{f"d{n}": [Tally(0, 7)] * 2 for n in range(5)}}
    assert any(text.startswith("Tansy laid more slugs") for text in texts(facts(slugs=slugs)))
    said = [text for text in texts(facts(slugs=slugs)) if "Tansy" in text]
    assert said == ["Tansy laid more slugs than the others: consider resting her a season."]
    once = {"Tansy": [Tally(6, 7)], **{f"d{n}": [Tally(0, 7)] * 2 for n in range(5)}}
    assert not any("resting" in text for text in texts(facts(slugs=once))), "one clutch is no proof"
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
        costs=costs, rates=side_by_side(groups), opened=1, unweighed=5, bias=(2.0, 6),
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
