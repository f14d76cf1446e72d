"""Openings recorded, evidence gathered from the house, and the causes that follow."""

import pytest

from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.candling import Disc, Vessels
from sandboa.core.causes import Cause, FindingKind
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import DeathStage, Fate
from sandboa.core.rounds import EggActKind
from sandboa.core.standing import SignKind
from sandboa.services.acts.recording import undo
from sandboa.services.hatching.egg_events import see_emergence, see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates
from sandboa.services.lay_day import EggLaid, lay_clutch
from sandboa.services.losses.loss_list import loss_years, losses_of_year
from sandboa.services.losses.openings import OpeningCommand, record_opening
from sandboa.services.losses.why import clutch_losses
from sandboa.services.rounds.close_visit import close_visit
from sandboa.services.rounds.visit import BoxVisit, EggSeen
from sandboa.services.snapshot.cache import SnapshotCache

LAID_S = NOW_S - 70 * DAY_S
ROUND = "26-01"


def visit(day: float, *eggs: EggSeen, **more: object) -> None:
    at_s = LAID_S + day * DAY_S
    close_visit(
        BoxVisit(f"visit.on.{day}", ROUND, at_s - 60, at_s, eggs=eggs, **more),  # type: ignore[arg-type]
        at_s,
    )


def found(**seen: str) -> dict[FindingKind, frozenset[str]]:
    return {FindingKind(kind): frozenset({value}) for kind, value in seen.items()}


@pytest.fixture
def laid(house: SnapshotCache) -> SnapshotCache:
    """Six eggs, candled on lay day: good ones, one of them underneath, and a slug."""
    eggs = tuple(
        EggLaid(
            0.1 + 0.25 * (n % 4), 0.2 + 0.5 * (n // 4), slug=n == 5,
            vessels=None if n == 5 else Vessels.STRONG,
            disc=None if n == 5 else Disc.UNDER if n == 2 else Disc.TOP,
        )
        for n in range(6)
    )  # fmt: skip
    lay_clutch(lay_day(70.0, eggs=eggs), LAID_S + 60)
    return house


def hatch(*numbers: int) -> None:
    for number in numbers:
        see_pip(ROUND, number, LAID_S + 60 * DAY_S, NOW_S)
        see_emergence(ROUND, number, LAID_S + 61 * DAY_S, NOW_S)


def lead(house: SnapshotCache, number: int) -> Cause:
    lost = clutch_losses(house.current(), ROUND, NOW_S).lost
    return next(e for e in lost if e.end.egg.number == number).causes[0].cause


def test_an_embryo_underneath_is_found_from_lay_day_and_the_opening(laid: SnapshotCache) -> None:
    visit(30.0, EggSeen(3, vessels=Vessels.NONE))
    hatch(1, 2, 4, 5)
    close_clutch(ROUND, NOW_S - DAY_S)
    before = clutch_losses(laid.current(), ROUND, NOW_S).lost[0]
    assert "not opened" in before.missing[0]
    record_opening(
        ROUND, OpeningCommand(3, True, found(stage="mid", position="under", form="normal")),
        NOW_S, NOW_S,
    )  # fmt: skip
    lost = clutch_losses(laid.current(), ROUND, NOW_S).lost[0]
    assert lost.causes[0].cause is Cause.UNDERNEATH
    assert lost.causes[0].share > before.causes[0].share or (
        before.causes[0].cause is not Cause.UNDERNEATH
    )
    # No vessels on day 30: it was dead by then, whatever was said at the end.
    assert lost.end.window.end < 0.52
    assert not any("not opened" in gap for gap in lost.missing)


def test_a_knock_after_death_explains_nothing(laid: SnapshotCache) -> None:
    visit(20.0, EggSeen(4, vessels=Vessels.NONE))
    visit(40.0, EggSeen(4, acts=(EggActKind.DROPPED,)))
    visit(15.0, EggSeen(1, vessels=Vessels.STRONG, acts=(EggActKind.DROPPED,)))
    visit(19.0, EggSeen(1, vessels=Vessels.NONE, signs=((SignKind.WET, "weeping"),)))
    hatch(2, 5)
    close_clutch(ROUND, NOW_S - DAY_S)
    assert lead(laid, 1) is Cause.KNOCKED
    lost = {e.end.egg.number: e for e in clutch_losses(laid.current(), ROUND, NOW_S).lost}
    knocked = next(c for c in lost[4].causes if c.cause is Cause.KNOCKED)
    assert all(ground.score <= 0 for ground in knocked.grounds)


def test_slugs_are_no_losses_of_incubation(laid: SnapshotCache) -> None:
    hatch(1, 2, 3, 4, 5)
    close_clutch(ROUND, NOW_S - DAY_S)
    losses = clutch_losses(laid.current(), ROUND, NOW_S)
    assert (losses.fertile, losses.hatched, losses.lost) == (5, 5, ())
    (slug,) = losses.slugs
    assert slug.causes[0].cause is Cause.INFERTILE
    (line,) = losses_of_year(laid.current(), 2026, NOW_S).lines
    assert (line.count, line.closed) == ("6-1", True)
    assert loss_years(laid.current()) == [2026]


def test_an_egg_that_pipped_and_died_could_not_get_out(laid: SnapshotCache) -> None:
    hatch(1, 2, 3, 4)
    see_pip(ROUND, 5, LAID_S + 60 * DAY_S, NOW_S)
    declare_fates(ROUND, [FateCommand(5, Fate.PIPPED_DIED)], LAID_S + 64 * DAY_S, NOW_S)
    record_opening(ROUND, OpeningCommand(5, True, found(fluid="mouth")), NOW_S, NOW_S)
    assert lead(laid, 5) is Cause.COULD_NOT_GET_OUT


def test_without_any_evidence_the_house_says_unknown(house: SnapshotCache) -> None:
    lay_clutch(lay_day(70.0), LAID_S)
    declare_fates(ROUND, [FateCommand(1, Fate.UNKNOWN)], NOW_S, NOW_S)
    assert lead(house, 1) is Cause.UNKNOWN


def test_openings_are_recorded_whole_corrected_and_undone(laid: SnapshotCache) -> None:
    hatch(1)
    with pytest.raises(NotPlausible, match="has come out"):
        record_opening(ROUND, OpeningCommand(1, True), NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="what became of it"):
        record_opening(ROUND, OpeningCommand(2, True), NOW_S, NOW_S)
    declare_fates(ROUND, [FateCommand(2, Fate.DEAD_IN_EGG, DeathStage.LATE)], NOW_S - DAY_S, NOW_S)
    both = {FindingKind.POSITION: frozenset({"top", "under"})}
    with pytest.raises(NotPlausible, match="cannot both be"):
        record_opening(ROUND, OpeningCommand(2, True, both), NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="was not opened"):
        record_opening(ROUND, OpeningCommand(2, False, found(yolk="hard")), NOW_S, NOW_S)
    with pytest.raises(NotPlausible, match="400"):
        record_opening(ROUND, OpeningCommand(2, True, note="x" * 401), NOW_S, NOW_S)
    record_opening(ROUND, OpeningCommand(2, False), NOW_S, NOW_S)
    assert clutch_losses(laid.current(), ROUND, NOW_S).lost[0].end.opened is False
    first = record_opening(
        ROUND,
        OpeningCommand(2, True, found(yolk="hard", cord="free"), " thick  yolk "),
        NOW_S,
        NOW_S,
    )
    assert "yolk thick or hard" in first.summary
    second = record_opening(ROUND, OpeningCommand(2, True, found(yolk="usual")), NOW_S, NOW_S)
    lost = clutch_losses(laid.current(), ROUND, NOW_S).lost[0]
    assert lost.end.findings == found(yolk="usual")
    undo(second.id, NOW_S)
    lost = clutch_losses(laid.current(), ROUND, NOW_S).lost[0]
    assert lost.end.findings == found(yolk="hard", cord="free")
    assert lost.opening.note == "thick yolk"


def test_a_lost_egg_of_a_closed_clutch_can_still_be_opened(laid: SnapshotCache) -> None:
    hatch(1, 2, 3, 4)
    close_clutch(ROUND, NOW_S - DAY_S)
    record_opening(ROUND, OpeningCommand(5, True, found(cord="around")), NOW_S, NOW_S)
    assert lead(laid, 5) is Cause.CORD
