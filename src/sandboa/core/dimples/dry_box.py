"""Most eggs of a box dented early: what the water says, and the grams to add."""

from dataclasses import dataclass

from sandboa.core.dimples.judgement import BoxDents
from sandboa.core.dimples.rules import DEFAULT_DENTS, DentRules
from sandboa.core.messages import Mass, Message, Share, Temperature, Words
from sandboa.core.water.estimate import WaterLeft
from sandboa.core.water.top_up import TopUp


@dataclass(frozen=True, slots=True)
class BoxFound:
    """How a box was found: `box_c` is °C at which water is to be poured.

    `no_answer`: it was watered, had its days, and eggs did not round out. `felt`:
    how the medium felt at the last look, where nothing was poured since.
    """

    box_c: float
    no_answer: bool = False
    felt: str | None = None


def dry_box_advice(
    dents: BoxDents,
    left: WaterLeft | None,
    add: TopUp | None,
    found: BoxFound,
    rules: DentRules = DEFAULT_DENTS,
) -> Words:
    """One or two sentences for a box whose eggs are early in half or more.

    Parameters
    ----------
    left, add: what is known of its water and what is missing; None unknown.
    found: how the box was found.
    """
    said = f"{dents.early_eggs} of {dents.live_eggs} eggs dented early"
    if found.no_answer:
        return f"{said}, and they did not round out after water: candle them, check the climate."
    warmth = Temperature(found.box_c)
    if left is None or add is None:
        return Message(
            "{said}: the box is dry. Check the water, add some at {warmth} along the side.",
            said=said, warmth=warmth,
        )  # fmt: skip
    weighed = left.weighings >= 2
    enough = left.share >= (rules.wet_by_scale if weighed else rules.water.top_up)
    if enough and found.felt is not None:
        return Message(
            "{said}, though the medium was felt to be {felt} and about {share} of the water "
            "should be left: candle the dented eggs, and weigh the box.",
            said=said, felt=found.felt, share=Share(left.share),
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
