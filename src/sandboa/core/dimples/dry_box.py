"""Most eggs of a box dented early: what the water says, and the grams to add."""

from typing import Final

from sandboa.core.dimples.judgement import BoxDents
from sandboa.core.messages import Mass, Message, Share, Temperature, Words
from sandboa.core.water.estimate import WaterLeft
from sandboa.core.water.shares import TOP_UP_SHARE
from sandboa.core.water.top_up import TopUp

#: Share of water by the scale from which a dry box is doubted though eggs are early (assumption).
WET_BY_SCALE: Final = 0.75


def dry_box_advice(
    dents: BoxDents,
    left: WaterLeft | None,
    add: TopUp | None,
    box_c: float,
    *,
    no_answer: bool = False,
    felt: str | None = None,
) -> Words:
    """One or two sentences for a box whose eggs are early in half or more.

    Parameters
    ----------
    left, add: what is known of its water and what is missing; None unknown.
    box_c: °C at which water is to be poured.
    no_answer: it was watered, had its 5 days, and eggs did not round out.
    felt: how the medium felt at the last look, where nothing was poured since.
    """
    said = f"{dents.early_eggs} of {dents.live_eggs} eggs dented early"
    if no_answer:
        return f"{said}, and they did not round out after water: candle them, check the climate."
    warmth = Temperature(box_c)
    if left is None or add is None:
        return Message(
            "{said}: the box is dry. Check the water, add some at {warmth} along the side.",
            said=said, warmth=warmth,
        )  # fmt: skip
    weighed = left.weighings >= 2
    enough = left.share >= (WET_BY_SCALE if weighed else TOP_UP_SHARE)
    if enough and felt is not None:
        return Message(
            "{said}, though the medium was felt to be {felt} and about {share} of the water "
            "should be left: candle the dented eggs, and weigh the box.",
            said=said, felt=felt, share=Share(left.share),
        )  # fmt: skip
    if enough:
        return Message(
            "{said}, though about {share} of the water should be left: {check} before you add "
            "any, at {warmth}.",
            said=said, share=Share(left.share), warmth=warmth,
            check="feel the medium" if weighed else "weigh the box or feel the medium",
        )  # fmt: skip
    return Message(
        "{said}, {about}{short} short. Add {today:g} ml{half} at {warmth} along the side.",
        said=said, about="" if weighed else "about ", short=Mass(add.deficit_g), today=add.today_g,
        half=" today, the rest tomorrow" if add.split else "", warmth=warmth,
    )  # fmt: skip
