"""Water left from physics, weighings and signs; what is learned; what cannot be."""

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.box import Closing
from sandboa.core.errors import NotPlausible
from sandboa.core.water.estimate import Exchange, WaterLeft, water_left
from sandboa.core.water.learning import WeighedBox, closing_exchange
from sandboa.core.water.ledger import (
    MassChange,
    MassLedger,
    Pour,
    Weighing,
    require_plausible_weighing,
    unweighed_egg,
)
from sandboa.core.water.loss_curve import AirOfDay, LossCurve, loss_curve
from sandboa.core.water.rain import rain_advice
from sandboa.core.water.rules import LID_SILENT_FROM
from sandboa.core.water.signs import WaterSign, WaterSignKind
from sandboa.core.water.top_up import rest_of_split, top_up

DAY = 86_400.0
WATER_G = 100.0
SET_UP_G = 1_000.0


def perlite(days: float = 90) -> LossCurve:
    """The example of rule D4: 2.13 g a day."""
    air = [AirOfDay(0.0, days * DAY, 31.5, 0.40)]
    return loss_curve(air, [(0.0, Closing.CRACKED_CORNER)], "perlite")


def told(
    ledger: MassLedger, day: float, what_if_g_day: float | None = None, **more: object
) -> WaterLeft:
    curve = perlite()
    if what_if_g_day is not None:
        curve = replace(curve, future_g_day=what_if_g_day)
    left = water_left(ledger, curve, day * DAY, **more)  # type: ignore[arg-type]
    assert left is not None
    return left


def weighed(*weighings: tuple[float, float], pours: tuple[tuple[float, float], ...] = ()):
    return MassLedger(
        0.0,
        SET_UP_G,
        WATER_G,
        pours=tuple(Pour(d * DAY, g) for d, g in pours),
        weighings=tuple(Weighing(d * DAY, g) for d, g in weighings),
    )


def test_nobody_knows_without_the_water_at_set_up() -> None:
    assert water_left(MassLedger(0.0, SET_UP_G, None), perlite(), 10 * DAY) is None


def test_physics_alone_gives_the_usual_dates_and_a_wide_band() -> None:
    left = told(weighed(), 10)
    assert left.loss_g_day == pytest.approx(2.13, abs=0.02)
    assert left.top_up_soon.middle_s == pytest.approx(23.5 * DAY, abs=0.3 * DAY)
    assert left.dry.middle_s == pytest.approx(35.2 * DAY, abs=0.4 * DAY)
    # A factor of 2 each way is an 80 % band of a factor of 2.4 each way.
    assert left.loss_high_g_day / left.loss_g_day == pytest.approx(2**1.2816, rel=0.02)


def test_two_weighings_move_the_box_to_its_own_loss() -> None:
    """It lost 1.5 g a day where 2.13 was expected; the band closes around it."""
    left = told(weighed((10, 985), (20, 970)), 20)
    assert left.share == pytest.approx(0.70, abs=0.01)
    assert left.loss_g_day == pytest.approx(1.5, abs=0.06)
    assert left.loss_high_g_day / left.loss_low_g_day < 1.7
    assert left.dry.middle_s == pytest.approx((20 + 30) * DAY, abs=1.5 * DAY)
    assert left.weighings == 3


def test_without_a_set_up_mass_two_weighings_still_tell_the_loss() -> None:
    ledger = MassLedger(
        0.0, None, WATER_G, weighings=(Weighing(5 * DAY, 800.0), Weighing(15 * DAY, 790.0))
    )
    left = told(ledger, 15)
    assert left.loss_g_day == pytest.approx(1.0, abs=0.15)
    assert left.weighings == 2


def test_water_poured_counts_and_never_fills_more_than_the_medium_held() -> None:
    assert told(weighed(pours=((10, 15.0),)), 10).share == pytest.approx(0.94, abs=0.01)
    assert told(weighed(pours=((10, 500.0),)), 10).share == 1.0
    # Poured after now: not yet.
    assert told(weighed(pours=((20, 50.0),)), 10).share == pytest.approx(0.787, abs=0.01)


def test_an_egg_taken_out_changes_the_reference_by_its_own_mass() -> None:
    ledger = MassLedger(
        0.0,
        SET_UP_G,
        WATER_G,
        changes=(MassChange(5 * DAY, -80.0),),
        weighings=(Weighing(10 * DAY, 900.0),),
    )
    assert ledger.reference_g(10 * DAY) == 920.0
    assert ledger.deficit_g(ledger.weighings[0]) == 20.0
    # Found that day with the egg still in: it is weighed before anything is done.
    assert ledger.reference_g(5 * DAY) == SET_UP_G
    assert told(ledger, 10).share == pytest.approx(0.80, abs=0.01)


@pytest.mark.parametrize(
    ("kind", "value", "drier"),
    [
        (WaterSignKind.MEDIUM, "dry", True),
        (WaterSignKind.MEDIUM, "drips", False),
        (WaterSignKind.LID, "none", True),
        (WaterSignKind.LID, "raining", False),
        (WaterSignKind.FEEL, "light", True),
    ],
)
def test_signs_move_it_a_little(kind: WaterSignKind, value: str, drier: bool) -> None:
    plain = told(weighed(), 20)
    seen = told(weighed(), 20, signs=[WaterSign(20 * DAY, kind, value)])
    assert (seen.share < plain.share) is drier
    # Wide evidence: two weighings hold against it.
    held = told(weighed((10, 985), (20, 970)), 20)
    both = told(weighed((10, 985), (20, 970)), 20, signs=[WaterSign(20 * DAY, kind, value)])
    assert both.share == pytest.approx(held.share, abs=0.02)


def test_a_wet_lid_late_in_term_says_nothing_of_the_medium() -> None:
    late = WaterSign(20 * DAY, WaterSignKind.LID, "raining", development=0.9)
    assert told(weighed(), 20, signs=[late]) == told(weighed(), 20)


@given(st.floats(0.0, 1.3), st.sampled_from([None, "none", "edges", "half", "raining"]))
def test_a_lid_that_rains_is_the_cabinets_doing_until_the_eggs_give_off_water(
    development: float, lid: str | None
) -> None:
    said = rain_advice(lid, development)
    assert (said is None) == (lid != "raining")
    if said is not None:
        assert "Wipe it" in said
        assert ("normal" in said) == (development >= LID_SILENT_FROM)
        assert ("cabinet swings" in said) == (development < LID_SILENT_FROM)


def test_only_the_latest_of_a_kind_counts_and_the_order_of_entry_does_not() -> None:
    early = WaterSign(5 * DAY, WaterSignKind.MEDIUM, "drips")
    late = WaterSign(18 * DAY, WaterSignKind.MEDIUM, "dry")
    assert told(weighed(), 20, signs=[early, late]) == told(weighed(), 20, signs=[late])
    assert told(weighed(), 20, signs=[late, early]) == told(weighed(), 20, signs=[early, late])


def test_another_closing_from_now_on_moves_the_dates_and_not_the_share() -> None:
    plain = told(weighed((10, 980), (20, 960)), 20)
    sealed = told(weighed((10, 980), (20, 960)), 20, what_if_g_day=0.2)
    assert sealed.share == plain.share
    assert sealed.dry.middle_s is None or sealed.dry.middle_s > plain.dry.middle_s  # type: ignore[operator]


def test_a_change_of_closing_is_split_at_its_moment() -> None:
    air = [AirOfDay(0.0, 20 * DAY, 31.5, 0.40)]
    curve = loss_curve(
        air, [(0.0, Closing.CRACKED_CORNER), (10 * DAY, Closing.SEALED_FILM)], "perlite"
    )
    assert curve.at(10 * DAY) == pytest.approx(21.3, abs=0.1)
    assert curve.at(20 * DAY) - curve.at(10 * DAY) == pytest.approx(21.3 * 10 / 110, abs=0.1)
    assert curve.future_g_day == pytest.approx(2.13 * 10 / 110, abs=0.01)


def test_boxes_of_one_closing_teach_the_next_and_none_teaches_itself() -> None:
    tight = [WeighedBox(n, Closing.CRACKED_CORNER, Exchange(math.log(0.5), 0.1)) for n in range(6)]
    learned, of = closing_exchange(tight, Closing.CRACKED_CORNER)
    assert of == 6
    assert math.exp(learned.mean) == pytest.approx(0.55, abs=0.05)
    assert learned.sd < Exchange().sd
    alone, of = closing_exchange(tight[:1], Closing.CRACKED_CORNER, besides=0)
    assert (of, alone.mean) == (0, 0.0)
    assert alone.sd == pytest.approx(Exchange().sd)
    assert closing_exchange(tight, Closing.LOOSE_LID)[1] == 0
    # One box alone moves it, but not all the way.
    one, _ = closing_exchange(tight[:1], Closing.CRACKED_CORNER)
    assert math.log(0.5) < one.mean < 0.0


def test_a_box_heavier_than_it_was_set_up_is_refused_in_words() -> None:
    with pytest.raises(NotPlausible, match="more than the 1000 g"):
        require_plausible_weighing(weighed(), Weighing(5 * DAY, 1_030.0))
    require_plausible_weighing(weighed(), Weighing(5 * DAY, 1_003.0))


def test_a_box_that_gained_by_itself_is_refused_and_one_that_was_watered_is_not() -> None:
    with pytest.raises(NotPlausible, match="gained 20 g"):
        require_plausible_weighing(weighed((5, 970)), Weighing(8 * DAY, 990.0))
    watered = weighed((5, 970), pours=((5, 20.0),))
    require_plausible_weighing(watered, Weighing(8 * DAY, 989.0))


@given(
    q=st.floats(0.3, 3.0),
    first=st.integers(4, 12),
    second=st.integers(14, 30),
    day=st.integers(30, 60),
)
def test_whatever_is_weighed_the_answer_stays_within_the_box(
    q: float, first: int, second: int, day: int
) -> None:
    masses = [SET_UP_G - min(2.13 * q * d, WATER_G) for d in (first, second)]
    left = told(weighed((first, masses[0]), (second, masses[1])), day)
    assert 0.0 <= left.share_low <= left.share <= left.share_high <= 1.0
    bands = [left.top_up_soon, left.dry]
    for band in bands:
        dates = [
            d if d is not None else math.inf for d in (band.early_s, band.middle_s, band.late_s)
        ]
        assert day * DAY <= dates[0] <= dates[1] <= dates[2]
    soon, dry = (b.middle_s if b.middle_s is not None else math.inf for b in bands)
    assert soon <= dry


@given(st.floats(0.1, 0.95), st.floats(0.1, 0.95), st.integers(1, 80))
def test_a_damper_cabinet_never_dries_a_box_sooner(one: float, other: float, day: int) -> None:
    def left(humidity: float) -> float:
        air = [AirOfDay(0.0, day * DAY, 31.5, humidity)]
        curve = loss_curve(air, [(0.0, Closing.SMALL_HOLES)], "vermiculite")
        found = water_left(MassLedger(0.0, None, WATER_G), curve, day * DAY)
        assert found is not None
        return found.share

    damp, dry = max(one, other), min(one, other)
    assert left(damp) >= left(dry) - 1e-9


def test_air_as_damp_as_the_box_from_now_on_is_no_loss_at_all() -> None:
    still = told(weighed((10, 980), (20, 960)), 20, what_if_g_day=0.0)
    assert still.loss_g_day == 0.0
    assert still.dry.middle_s is None


def test_a_large_top_up_is_poured_in_two_parts_a_keeper_can_pour() -> None:
    whole = top_up(1_000, 935, 100)
    assert (whole.add_g, whole.split, whole.today_g) == (65.0, True, 35.0)
    assert top_up(1_000, 955, 100).today_g == 45.0


def felt(day: float, value: str) -> WaterSign:
    return WaterSign(day * DAY, WaterSignKind.MEDIUM, value, 0.4)


def test_what_is_felt_today_outweighs_a_month_of_reckoning() -> None:
    ledger = weighed((6, 995.0))
    reckoned = told(ledger, 30)
    dry = told(ledger, 30, signs=[felt(30, "barely damp")])
    assert reckoned.share > 0.65
    assert dry.share < 0.5
    assert dry.says_dry
    assert not reckoned.says_dry
    assert dry.share_low < 0.35 < dry.share_high


def test_the_scale_of_today_outweighs_the_hand() -> None:
    ledger = weighed((30, 940.0))
    assert told(ledger, 30, signs=[felt(29, "dry")]).share == pytest.approx(0.40, abs=0.03)


@given(st.sampled_from(["drips", "clumps", "barely damp", "dry"]), st.floats(1, 40))
def test_a_hand_moves_the_water_towards_what_it_felt(value: str, day: float) -> None:
    order = ["dry", "barely damp", "clumps", "drips"]
    shares = [told(weighed(), day, signs=[felt(day, v)]).share for v in order]
    assert shares == sorted(shares)


def test_an_egg_taken_out_unweighed_is_no_lost_water() -> None:
    """The clutch's mean where eggs were weighed, else 85 g, with its own error."""
    assert unweighed_egg(0.0, []).delta_g == -85.0
    assert unweighed_egg(0.0, [70.0, 80.0]).delta_g == -75.0
    taken = MassLedger(
        0.0, SET_UP_G, WATER_G, changes=(unweighed_egg(5 * DAY, []),),
        weighings=(Weighing(6 * DAY, SET_UP_G - 85.0 - 13.0),),
    )  # fmt: skip
    left = told(taken, 6)
    assert left.share == pytest.approx(0.87, abs=0.04)
    assert left.share_high - left.share_low > 0.12


def test_a_true_weighing_after_too_much_water_is_taken() -> None:
    ledger = weighed((1, 995.0), pours=((2, 60.0),))
    require_plausible_weighing(ledger, Weighing(3 * DAY, 1_050.0))
    with pytest.raises(NotPlausible):
        require_plausible_weighing(ledger, Weighing(3 * DAY, 1_090.0))
    assert told(weighed((1, 995.0), (3, 1_050.0), pours=((2, 60.0),)), 3).share == 1.0


def test_the_rest_of_a_split_top_up_comes_the_next_day() -> None:
    missing = top_up(1_000.0, 955.0, 100.0)
    day = 3 * DAY
    assert rest_of_split((day, 35.0), missing, 100.0, 2.0, day + 3_600.0) is None
    due = rest_of_split((day, 35.0), missing, 100.0, 2.0, day + 20 * 3_600.0)
    assert due == (day + 14 * 3_600.0, 45.0)
    assert rest_of_split((day, 35.0), missing, 100.0, 2.0, day + 8 * DAY) is None
    # All that was missing went in at once, and a week's loss is no rest of it.
    week = top_up(1_000.0, 985.0, 100.0)
    assert rest_of_split((day, 70.0), week, 100.0, 15.0, day + 6 * DAY) is None
    assert rest_of_split((day, 10.0), None, 100.0, 0.0, day + DAY) is None
