"""The water and the air of a clutch's box, from what was recorded of it."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

from sandboa.core.air import Oxygen, oxygen
from sandboa.core.box import Closing
from sandboa.core.development import DevelopmentCurve
from sandboa.core.rounds import BoxActKind
from sandboa.core.units import SECONDS_PER_DAY
from sandboa.core.water import (
    Exchange,
    MassLedger,
    TopUp,
    WaterLeft,
    WaterSign,
    WaterSignKind,
    WeighedBox,
    closing_exchange,
    loss_curve,
    loss_g_day,
    top_up,
    water_left,
)
from sandboa.journal.box_account import account_in
from sandboa.journal.box_air import air_by_day, box_air, humidity_by_day, recent_humidity
from sandboa.journal.egg_judgements import last_look_s
from sandboa.journal.house_now import Facts, HouseNow
from sandboa.records.clutches import Box, Clutch

#: g of a box that nobody weighed: top-up by estimate needs the difference only.
_BOX_G: Final = 1_000.0


@dataclass(frozen=True)
class BoxWater:
    """Water and air of a box. `left` is None where the water at set-up is unknown.

    Attributes
    ----------
    medium, closing: as they are now; `closing_since_s` from when.
    full_g: water it was set up with.
    reference_g: what it would weigh as set up, None when nobody weighed it.
    heaviest_g: more than this on the scale cannot be; None when not known.
    add: what to pour now: by the scale where it was weighed at this visit, else by estimate.
    learned_from: other boxes of this closing whose weighings taught the exchange.
    """

    medium: str
    closing: Closing
    closing_since_s: float
    full_g: float | None
    left: WaterLeft | None
    ledger: MassLedger
    reference_g: float | None
    add: TopUp | None
    opened_s: float
    air: Oxygen | None
    cabinet_humidity: float | None
    box_c: float
    learned_from: int


def box_water(
    house: HouseNow,
    facts: Facts,
    clutch: Clutch,
    curve: DevelopmentCurve,
    live_eggs: int,
    share_developed: float,
    as_of_s: float,
) -> BoxWater | None:
    """Where a box stands at `as_of_s`; None where the dam keeps her eggs."""
    box = facts.boxes[clutch.entity]
    if not box.medium or not box.closing:
        return None
    account = account_in(facts, clutch, as_of_s)
    humidity = humidity_by_day(house, facts, facts.shelf_at(box, as_of_s).cabinet, as_of_s)
    air = box_air(curve, humidity, account.ledger.set_up_s, as_of_s)
    rules = facts.settings.rules
    prior, learned_from = closing_exchange(
        weighed_boxes(house, facts, as_of_s), account.closing, besides=box.entity
    )
    left = water_left(
        account.ledger,
        loss_curve(air, account.closings, account.medium, rules.exchange),
        as_of_s,
        prior=prior,
        signs=list(_signs(facts, box, curve, account.ledger.set_up_s)),
    )
    opened_s = _opened_s(facts, clutch, box, as_of_s)
    return BoxWater(
        medium=account.medium,
        closing=account.closing,
        closing_since_s=account.closings[-1][0],
        full_g=account.ledger.water_g,
        left=left,
        ledger=account.ledger,
        reference_g=account.ledger.reference_g(as_of_s),
        add=None if left is None else _by_estimate(left, account.ledger.water_g or 0.0),
        opened_s=opened_s,
        air=oxygen(
            live_eggs,
            min(share_developed, 2.0),
            account.closing,
            max(as_of_s - opened_s, 0.0),
            free_air_l=rules.free_air_l,
            rules=rules.exchange,
        )
        if live_eggs
        else None,
        cabinet_humidity=recent_humidity(humidity, as_of_s),
        box_c=air[-1].box_c,
        learned_from=learned_from,
    )


def what_if(
    house: HouseNow,
    facts: Facts,
    clutch: Clutch,
    curve: DevelopmentCurve,
    as_of_s: float,
    closing: Closing | None,
    humidity: float | None,
) -> WaterLeft | None:
    """The box's water were it closed another way, or its cabinet damper, from now on.

    Its own factor is carried over to the other closing: what made this box
    drier or damper than usual is taken to stay.
    """
    box = facts.boxes[clutch.entity]
    account = account_in(facts, clutch, as_of_s)
    by_day = humidity_by_day(house, facts, facts.shelf_at(box, as_of_s).cabinet, as_of_s)
    air = box_air(curve, by_day, account.ledger.set_up_s, as_of_s)
    rules = facts.settings.rules.exchange
    prior, _ = closing_exchange(
        weighed_boxes(house, facts, as_of_s), account.closing, besides=box.entity
    )
    here = air[-1]
    rate = loss_g_day(
        closing or account.closing,
        account.medium,
        here.box_c,
        here.box_c,
        here.cabinet_humidity if humidity is None else humidity,
        rules,
    )
    return water_left(
        account.ledger,
        loss_curve(air, account.closings, account.medium, rules),
        as_of_s,
        prior=prior,
        signs=list(_signs(facts, box, curve, account.ledger.set_up_s)),
        what_if_g_day=rate,
    )


def top_up_by_scale(water: BoxWater, mass_g: float) -> TopUp | None:
    """What to pour into a box that weighs `mass_g` now; None where its reference is unknown."""
    if water.reference_g is None or not water.full_g:
        return None
    # Within the scale's error a box may seem a little heavier than it can be.
    return top_up(water.reference_g, min(mass_g, water.reference_g), water.full_g)


def latest_lid(facts: Facts, box: Box, as_of_s: float) -> str | None:
    """How wet the lid was at the last look: none, edges, half, raining; wiped is none."""
    looks = [
        (s.seen_s, 0, s.value)
        for s in facts.box_signs.get(box.entity, [])
        if s.kind == WaterSignKind.LID
    ]
    looks += [
        (a.at_s, 1, "none")
        for a in facts.box_done.get(box.entity, [])
        if a.kind == BoxActKind.WIPED_LID
    ]
    known = [look for look in looks if look[0] <= as_of_s]
    return max(known)[2] if known else None


def weighed_boxes(house: HouseNow, facts: Facts, as_of_s: float) -> list[WeighedBox]:
    """What every box with two or more weighings taught of its closing; held for the day.

    The air of these boxes is taken from set points: a degree makes 6 % of the
    loss, against the factor of 2 that is to be learned.
    """

    def learn() -> list[WeighedBox]:
        return [
            learned
            for clutch in facts.clutches
            if facts.weighings.get(facts.boxes[clutch.entity].entity)
            and (learned := _taught(house, facts, clutch, as_of_s)) is not None
        ]

    return house.held("weighed boxes", (facts.version, int(as_of_s // SECONDS_PER_DAY)), learn)


def _taught(house: HouseNow, facts: Facts, clutch: Clutch, as_of_s: float) -> WeighedBox | None:
    box = facts.boxes[clutch.entity]
    if not box.medium or not box.closing:
        return None
    account = account_in(facts, clutch, as_of_s)
    ledger = account.ledger
    if len(ledger.weighings) + (ledger.set_up_g is not None) < 2 or not ledger.water_g:
        return None
    last_s = max(w.at_s for w in ledger.weighings)
    cabinet = facts.shelf_at(box, last_s).cabinet
    humidity = humidity_by_day(house, facts, cabinet, as_of_s)
    box_c = facts.set_points[cabinet].at(last_s)
    air = list(air_by_day(humidity, ledger.set_up_s, last_s, lambda _a, _b: box_c))
    curve = loss_curve(air, account.closings, account.medium, facts.settings.rules.exchange)
    left = water_left(ledger, curve, last_s, prior=Exchange())
    return None if left is None else WeighedBox(box.entity, account.closing, left.exchange)


def _signs(facts: Facts, box: Box, curve: DevelopmentCurve, from_s: float) -> Iterator[WaterSign]:
    kinds = set(WaterSignKind)
    for sign in facts.box_signs.get(box.entity, []):
        if sign.kind in kinds and from_s <= sign.seen_s:
            yield WaterSign(
                sign.seen_s, WaterSignKind(sign.kind), sign.value, curve.at(sign.seen_s)
            )


def _by_estimate(left: WaterLeft, full_g: float) -> TopUp:
    """What is missing by the estimate, as if it had been weighed."""
    return top_up(full_g + _BOX_G, left.water_g + _BOX_G, full_g)


def _opened_s(facts: Facts, clutch: Clutch, box: Box, as_of_s: float) -> float:
    """When the box was last open: a visit, or something done at it."""
    moments = [
        float(clutch.laid_s),
        *(v.closed_s for v in facts.visits.get(clutch.entity, [])),
        *(w.poured_s for w in facts.waterings.get(box.entity, [])),
        *(a.at_s for a in facts.box_done.get(box.entity, [])),
        *(
            seen_s
            for egg in facts.eggs.get(clutch.entity, [])
            if (seen_s := last_look_s(facts, egg, as_of_s)) is not None
        ),
    ]
    return max((m for m in moments if m <= as_of_s), default=float(clutch.laid_s))
