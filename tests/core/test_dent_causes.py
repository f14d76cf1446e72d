"""Dry box, shell or failing egg: told by the numbers while there is time."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.box import Closing, Shell
from sandboa.core.dimples import BoxDents, Grading, did_not_answer
from sandboa.core.dimples.cause import DentCause, DentedEgg, dent_causes
from sandboa.core.dimples.dry_box import BoxFound, dry_box_advice
from sandboa.core.water.estimate import WaterLeft, water_left
from sandboa.core.water.ledger import MassLedger, Weighing
from sandboa.core.water.loss_curve import AirOfDay, loss_curve
from sandboa.core.water.top_up import top_up

DAY = 86_400.0
#: One egg of six dented, smooth shell, water unknown, nothing else against it.
PLAIN = DentedEgg(1, 6, (), None, None, 2.4)


def likeliest(egg: DentedEgg) -> DentCause:
    return dent_causes(egg)[0].cause


@pytest.mark.parametrize(
    ("egg", "cause"),
    [
        (replace(PLAIN, early_eggs=4, water_share=(0.2, 0.4, 0.6)), DentCause.DRY_BOX),
        (replace(PLAIN, early_eggs=5, water_share=(0.0, 0.1, 0.3)), DentCause.DRY_BOX),
        (replace(PLAIN, shells=(Shell.ROUGH,), water_share=(0.6, 0.8, 0.9)), DentCause.SHELL),
        (replace(PLAIN, other_log_odds=-2.0, water_share=(0.6, 0.8, 0.9)), DentCause.FAILING),
        (PLAIN, DentCause.UNKNOWN),
    ],
)
def test_the_likeliest_cause(egg: DentedEgg, cause: DentCause) -> None:
    assert likeliest(egg) is cause


def test_an_egg_that_answered_water_was_thirsty() -> None:
    answered = dent_causes(replace(PLAIN, early_eggs=3, answered=True))
    assert answered[0].cause is DentCause.DRY_BOX
    assert "+ it rounded out after water" in answered[0].reasons
    silent = {c.cause: c.share for c in dent_causes(replace(PLAIN, early_eggs=3, answered=False))}
    assert silent[DentCause.DRY_BOX] < answered[0].share


def test_reasons_name_the_numbers() -> None:
    (dry, *_) = dent_causes(replace(PLAIN, early_eggs=4, water_share=(0.31, 0.42, 0.55)))
    assert dry.reasons == ("+ 4 of 6 eggs are early", "+ water left about 42 % (31 % to 55 %)")


@given(
    st.integers(1, 8),
    st.sampled_from(list(Shell)),
    st.one_of(st.none(), st.floats(0, 1)),
    st.sampled_from([None, True, False]),
    st.floats(-6, 6),
)
def test_shares_sum_to_one_and_unknown_is_always_among_them(
    early: int, shell: Shell, share: float | None, answered: bool | None, log_odds: float
) -> None:
    water = None if share is None else (share * 0.7, share, min(share * 1.3, 1.0))
    causes = dent_causes(DentedEgg(early, 8, (shell,), water, answered, log_odds))
    assert sum(c.share for c in causes) == pytest.approx(1.0)
    assert {c.cause for c in causes} == set(DentCause)
    assert [c.share for c in causes] == sorted((c.share for c in causes), reverse=True)


@pytest.mark.parametrize(
    ("looks", "now_day", "silent"),
    [
        ([(1, 2), (7, 2)], 8, True),  # looked at again after 5 days, no change
        ([(1, 2), (4, 1)], 8, False),  # it answered
        ([(1, 2)], 8, False),  # nobody has looked since
        ([(1, 2), (4, 2)], 5, False),  # it still has time
    ],
)
def test_when_eggs_did_not_answer(
    looks: list[tuple[float, int]], now_day: float, silent: bool
) -> None:
    history = [Grading(d * DAY, g, 0.4) for d, g in looks]
    assert did_not_answer(history, [2 * DAY], now_day * DAY) is silent


FOUND = BoxFound(31.0)


def test_a_dry_box_is_told_its_grams_and_a_wet_one_to_be_weighed_first() -> None:
    def left(share: float) -> WaterLeft:
        air = [AirOfDay(0.0, 30 * DAY, 31.5, 0.4)]
        curve = loss_curve(air, [(0.0, Closing.CRACKED_CORNER)], "perlite")
        ledger = MassLedger(
            0.0, 1_000.0, 100.0, weighings=(Weighing(20 * DAY, 900.0 + 100 * share),)
        )
        found = water_left(ledger, curve, 20 * DAY)
        assert found is not None
        return found

    dry = str(dry_box_advice(BoxDents(6, 4), left(0.45), top_up(1_000, 945, 100), FOUND))
    assert dry == "4 of 6 eggs dented early, 55 g short. Add 55 ml at 31.0 °C along the side."
    much = str(dry_box_advice(BoxDents(6, 4), left(0.2), top_up(1_000, 920, 100), FOUND))
    assert "Add 40 ml today, the rest tomorrow" in much
    wet = str(dry_box_advice(BoxDents(6, 4), left(0.8), top_up(1_000, 980, 100), FOUND))
    assert "feel the medium before" in wet
    assert "candle" in str(
        dry_box_advice(BoxDents(6, 4), left(0.8), None, BoxFound(31.0, no_answer=True))
    )
    assert "add some" in str(dry_box_advice(BoxDents(6, 4), None, None, FOUND))
