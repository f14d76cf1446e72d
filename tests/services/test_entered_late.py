"""What is entered late counts as seen when it was seen, never when it was typed."""

import sqlite3
from datetime import UTC, datetime
from pathlib import Path

import pytest

from samples import DAY_S, NOW_S, close_clutch, lay_day
from sandboa.core.box import usual_places
from sandboa.core.candling import Disc, Vessels
from sandboa.core.causes import Cause
from sandboa.core.errors import NotPlausible
from sandboa.core.hatching import DeathStage, Fate
from sandboa.core.lay_day import EggEvent, Lump, Step
from sandboa.core.standing import Standing, StandingScore
from sandboa.records.clutches import Candling, Clutch, DamCheck
from sandboa.records.clutches import EggEvent as EggEventFact
from sandboa.records.database import close_database, open_database
from sandboa.records.facts import Act
from sandboa.services.acts.recording import undo
from sandboa.services.breeding.aftercare import dams_after_laying, last_clutch
from sandboa.services.breeding.commands import tick_aftercare
from sandboa.services.cabinets.commands import (
    CabinetCommand,
    CabinetKind,
    add_cabinet,
    change_set_point,
)
from sandboa.services.clutches.clutch_view import clutch_page
from sandboa.services.clutches.issued_forecasts import keep_due
from sandboa.services.clutches.methods import method_of_clutch
from sandboa.services.hatching.egg_events import see_pip
from sandboa.services.hatching.fates import FateCommand, declare_fates
from sandboa.services.lay_day import (
    EggLaid,
    correct_clutch,
    drafts,
    lay_clutch,
)
from sandboa.services.lay_day.day import EggHappening
from sandboa.services.lay_day.state import EggState
from sandboa.services.losses.why import clutch_losses
from sandboa.services.seasons.counted import counted_clutches
from sandboa.services.seasons.standing_scores import standing_scores
from sandboa.services.snapshot.cache import SnapshotCache
from services.test_database import up_to


def scored(house: SnapshotCache) -> list[StandingScore]:
    """The standings that were kept, against what came of every closed clutch."""
    snapshot = house.current()
    return standing_scores(snapshot, counted_clutches(snapshot, NOW_S + DAY_S))


def candled(*vessels: Vessels | None, disc: Disc | None = Disc.TOP) -> tuple[EggLaid, ...]:
    places = usual_places(len(vessels))
    return tuple(
        EggLaid(x, y, vessels=v, disc=disc if v else None)
        for (x, y), v in zip(places, vessels, strict=True)
    )


def test_a_clutch_entered_days_later_stands_as_if_entered_on_the_day(house: SnapshotCache) -> None:
    """Six days late a weak egg went from watch to sound, and its second candling disappeared."""
    eggs = candled(Vessels.WEAK, Vessels.STRONG, Vessels.STRONG)
    lay_clutch(lay_day(6.0, eggs=eggs), NOW_S)
    lay_clutch(lay_day(6.0, dam="Tansy", eggs=eggs), NOW_S - 6 * DAY_S + 60)
    late, at_once = (clutch_page(house.current(), c, NOW_S).now.eggs[0] for c in ("26-01", "26-02"))
    assert late.standing is not None
    assert at_once.standing is not None
    assert late.standing.alive == at_once.standing.alive
    assert late.standing.standing is Standing.WATCH
    assert late.torchlight.again_from_s is not None
    assert late.torchlight.again_from_s == pytest.approx(at_once.torchlight.again_from_s, abs=1)


def test_the_time_of_handling_can_be_said_and_must_be_possible(house: SnapshotCache) -> None:
    handled = datetime.fromtimestamp(NOW_S - 9.5 * DAY_S, UTC)
    torn = EggHappening(EggEvent.TORN, NOW_S)
    eggs = (EggLaid(0.5, 0.5, vessels=Vessels.STRONG, disc=Disc.TOP, events=(torn,)),)
    lay_clutch(lay_day(10.0, eggs=eggs, handled_at=handled, lump=Lump.NONE), NOW_S)
    (look,), (event,), (felt,) = Candling.current(), EggEventFact.current(), DamCheck.current()
    assert look.seen_s == event.at_s == felt.at_s == handled.timestamp()
    for days_ago, words in ((10.5, "before the eggs were laid"), (-1.0, "future")):
        impossible = datetime.fromtimestamp(NOW_S - days_ago * DAY_S, UTC)
        with pytest.raises(NotPlausible, match=words):
            lay_clutch(lay_day(10.0, dam="Tansy", handled_at=impossible), NOW_S)


def test_a_disc_noted_without_vessels_is_kept(house: SnapshotCache) -> None:
    eggs = (EggLaid(0.5, 0.5, disc=Disc.UNDER),)
    lay_clutch(lay_day(3.0, eggs=eggs), NOW_S)
    (egg,) = clutch_page(house.current(), "26-01", NOW_S).now.eggs
    assert (egg.torchlight.disc, egg.torchlight.vessels) == (Disc.UNDER, Vessels.UNSURE)


def test_not_sure_is_not_not_candled(house: SnapshotCache) -> None:
    lay_clutch(lay_day(3.0, eggs=candled(Vessels.UNSURE, None)), NOW_S)
    unsure, not_candled = clutch_page(house.current(), "26-01", NOW_S).now.eggs
    assert unsure.standing is not None
    assert not_candled.standing is not None
    assert unsure.standing.prior.words == "candled on lay day, and not sure"
    assert not_candled.standing.prior.words == "not candled on lay day"
    assert unsure.standing.alive < not_candled.standing.alive


@pytest.mark.parametrize("entered_days_later", [0.01, 1.25, 40.0])
def test_an_embryo_underneath_is_a_cause_whenever_it_is_entered(
    house: SnapshotCache, entered_days_later: float
) -> None:
    """Recorded 30 h late it fell from 38 % to under 3 % among causes."""
    eggs = candled(Vessels.STRONG, Vessels.STRONG, Vessels.STRONG, Vessels.STRONG)
    under = (EggLaid(0.9, 0.9, vessels=Vessels.STRONG, disc=Disc.UNDER), *eggs)
    laid_s = NOW_S - 70 * DAY_S
    lay_clutch(lay_day(70.0, eggs=under), laid_s + entered_days_later * DAY_S)
    for number in (2, 3, 4, 5):
        see_pip("26-01", number, NOW_S - 10 * DAY_S, NOW_S)
    declare_fates("26-01", [FateCommand(1, Fate.DEAD_IN_EGG, DeathStage.MIDDLE)], NOW_S, NOW_S)
    (lost,) = [
        e for e in clutch_losses(house.current(), "26-01", NOW_S).lost if e.end.egg.number == 1
    ]
    shares = {c.cause: c.share for c in lost.causes}
    assert shares[Cause.UNDERNEATH] > 0.25


def test_a_method_has_the_set_point_of_its_own_day(house: SnapshotCache) -> None:
    add_cabinet(CabinetCommand("North", CabinetKind.BOUGHT, ("lower",)), 30.0,
                NOW_S - 90 * DAY_S, NOW_S)  # fmt: skip
    change_set_point("North", 31.5, NOW_S - 5 * DAY_S, NOW_S)
    laid_at = datetime.fromtimestamp(NOW_S - 40 * DAY_S, UTC)
    draft = drafts.begin("Sorrel", "Flint", laid_at, NOW_S)
    state = drafts.lay_day_now(draft, NOW_S).state.model_copy(
        update={"eggs": [EggState(x=0.5, y=0.5, looked=True)], "cabinet": "North",
                "shelf": "lower", "set_point_c": 31.5}
    )  # fmt: skip
    drafts.save(draft, 1, Step.SHELF, state, NOW_S)
    code, _ = drafts.record(draft, NOW_S)
    clutch = Clutch.only(code=code)
    assert clutch is not None
    assert method_of_clutch(clutch.entity_id).temperature_c == 30.0
    # And the cabinet's record is what it was.
    assert clutch_page(house.current(), code, NOW_S).now.set_points.at(clutch.laid_s) == 30.0
    assert clutch_page(house.current(), code, NOW_S).now.set_point_c == 31.5


def test_a_lay_time_after_a_pip_is_refused(house: SnapshotCache) -> None:
    lay_clutch(lay_day(60.0), NOW_S)
    see_pip("26-01", 2, NOW_S - 2 * DAY_S, NOW_S)
    with pytest.raises(NotPlausible, match="egg 2 was open before that") as refused:
        correct_clutch("26-01", lay_day(1.0), NOW_S)
    assert refused.value.field == "laid_at"
    correct_clutch("26-01", lay_day(58.0), NOW_S)


def test_what_was_seen_at_lay_moves_with_a_corrected_lay_time(house: SnapshotCache) -> None:
    eggs = candled(Vessels.WEAK, Vessels.STRONG)
    lay_clutch(lay_day(10.0, eggs=eggs), NOW_S - 10 * DAY_S + 60)
    correct_clutch("26-01", lay_day(8.0, eggs=eggs), NOW_S)
    assert {c.seen_s for c in Candling.current()} == {int(NOW_S - 8 * DAY_S)}
    (first, *_) = clutch_page(house.current(), "26-01", NOW_S).now.eggs
    assert first.torchlight.vessels is Vessels.WEAK


def test_eggs_that_hatched_did_so_whether_or_not_somebody_saw_it(house: SnapshotCache) -> None:
    eggs = candled(*[Vessels.STRONG] * 5)
    lay_clutch(lay_day(70.0, eggs=eggs), NOW_S - 70 * DAY_S + 60)
    while keep_due(house.current(), NOW_S):
        pass
    close_clutch("26-01", NOW_S, egg1=Fate.HATCHED, egg2=Fate.HATCHED, egg3=Fate.HATCHED_DIED,
                 egg4=Fate.PIPPED_DIED, egg5=Fate.DEAD_IN_EGG)  # fmt: skip
    for score in scored(house):
        assert (score.eggs, score.hatched) == (5, 3)


def flags(house: SnapshotCache, at_s: float) -> list[str]:
    return [flag for dam in dams_after_laying(house.current().herd, at_s) for flag in dam.flags]


def test_a_lump_that_was_left_comes_first_and_grows_graver(house: SnapshotCache) -> None:
    lay_clutch(lay_day(0.1, lump=Lump.LEFT), NOW_S)
    said = [flags(house, NOW_S + days * DAY_S)[0] for days in (0.0, 1.5, 9.0)]
    assert "Leave her alone for some hours" in said[0]
    assert "case for a reptile vet" in said[1]
    assert "dangerous" in said[2]
    assert "9 days ago" in said[2]
    (dam,) = dams_after_laying(house.current().herd, NOW_S + 2 * DAY_S)
    assert dam.items[0].task == "feel again"
    tick_aftercare(last_clutch(house.current().herd, dam.dam), dam.items[0].task, NOW_S + 2 * DAY_S)
    assert not any("lump" in flag for flag in flags(house, NOW_S + 3 * DAY_S))


def test_aftercare_ends(house: SnapshotCache) -> None:
    lay_clutch(lay_day(0.1), NOW_S)
    (soon,) = dams_after_laying(house.current().herd, NOW_S + DAY_S)
    assert {"rinse", "clean"} <= {item.task for item in soon.items}
    (later,) = dams_after_laying(house.current().herd, NOW_S + 30 * DAY_S)
    assert not {"rinse", "clean", "water"} & {item.task for item in later.items}
    assert dams_after_laying(house.current().herd, NOW_S + 101 * DAY_S) == []


_LATE_HOUSE = """
    INSERT INTO entity VALUES (1, 'animal'), (2, 'clutch'), (3, 'cabinet'), (4, 'set_point'),
        (5, 'shelf'), (6, 'box'), (7, 'egg'), (8, 'candling'), (9, 'egg_event'), (10, 'candling');
    INSERT INTO act (id, kind, summary, recorded_s, clutch) VALUES (1, 'lay', 'laid', 900000, 2);
    INSERT INTO act (id, kind, summary, recorded_s, clutch) VALUES (2, 'candle', 'x', 900000, 2);
    INSERT INTO animal (id, entity, act, role, name) VALUES (1, 1, 1, 'dam', 'Sorrel');
    INSERT INTO clutch (id, entity, act, code, dam, laid_s) VALUES (1, 2, 1, '26-01', 1, 100000);
    INSERT INTO egg (id, entity, act, clutch, number, x, y, slug, shell)
        VALUES (1, 7, 1, 2, 1, 0.5, 0.5, 0, 'smooth');
    INSERT INTO candling (id, entity, act, egg, seen_s, vessels)
        VALUES (1, 8, 1, 7, 900000, 'weak'), (2, 10, 2, 7, 900000, 'strong');
    INSERT INTO egg_event (id, entity, act, egg, at_s, kind) VALUES (1, 9, 1, 7, 900000, 'torn');
"""


def test_falsely_dated_lay_day_looks_are_mended_where_the_record_proves_it(
    tmp_path: Path, monkeypatch
) -> None:
    path = up_to("0010", tmp_path, monkeypatch)
    with sqlite3.connect(path) as connection:
        connection.executescript(_LATE_HOUSE)
    connection.close()
    open_database(path)
    # The look recorded on its own, whenever that was, says nothing of lay day.
    assert sorted((c.seen_s, c.vessels) for c in Candling.current()) == [
        (100_000, "weak"), (900_000, "strong"),
    ]  # fmt: skip
    assert [e.at_s for e in EggEventFact.current()] == [100_000]
    (mended,) = Act.select().where(Act.kind == "mended")
    assert mended.summary == (
        "2 looks of lay day of 26-01 dated to its lay time: they had the moment of typing"
    )
    assert mended.clutch_id == 2
    undo(mended.id, NOW_S)
    assert [e.at_s for e in EggEventFact.current()] == [900_000]
    close_database()
