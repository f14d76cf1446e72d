"""Most eggs of a box dented early: what the water says, and the grams to add."""

from typing import Final

from sandboa.core.water.estimate import TOP_UP_SHARE, WaterLeft
from sandboa.core.water.top_up import TopUp

#: Share of water by the scale from which a dry box is doubted though eggs are early (assumption).
WET_BY_SCALE: Final = 0.75


def dry_box_advice(
    early_eggs: int,
    live_eggs: int,
    left: WaterLeft | None,
    add: TopUp | None,
    box_c: float,
    *,
    no_answer: bool = False,
    felt: str | None = None,
) -> str:
    """One or two sentences for a box whose eggs are early in half or more.

    Parameters
    ----------
    left, add: what is known of its water and what is missing; None unknown.
    box_c: °C at which water is to be poured.
    no_answer: it was watered, had its 5 days, and eggs did not round out.
    felt: how the medium felt at the last look, where nothing was poured since.
    """
    said = f"{early_eggs} of {live_eggs} eggs dented early"
    if no_answer:
        return f"{said}, and they did not round out after water: candle them, check the climate."
    at_c = f"{box_c:.1f} °C"
    if left is None or add is None:
        return f"{said}: the box is dry. Check the water, add some at {at_c} along the side."
    weighed = left.weighings >= 2
    enough = left.share >= (WET_BY_SCALE if weighed else TOP_UP_SHARE)
    if enough and felt is not None:
        return (
            f"{said}, though the medium was felt to be {felt} and about "
            f"{100 * left.share:.0f} % of the water should be left: candle the dented eggs, "
            "and weigh the box."
        )
    if enough:
        return (
            f"{said}, though about {100 * left.share:.0f} % of the water should be left: "
            f"{'feel the medium' if weighed else 'weigh the box or feel the medium'} "
            f"before you add any, at {at_c}."
        )
    half = " today, the rest tomorrow" if add.split else ""
    return (
        f"{said}, {'' if weighed else 'about '}{add.deficit_g:.0f} g short. "
        f"Add {add.today_g:g} ml{half} at {at_c} along the side."
    )
