"""The water and the air of a box, from what was recorded of it."""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial
from typing import Final

from sandboa.core.air import Oxygen, oxygen
from sandboa.core.box import Closing
from sandboa.core.development import DevelopmentCurve
from sandboa.core.methods import Contact
from sandboa.core.rounds import BoxActKind
from sandboa.core.water.drying import ExchangeRules, loss_g_day, unmeasured_air_sd
from sandboa.core.water.estimate import Exchange, WaterLeft, water_left
from sandboa.core.water.kinds import WaterSignKind
from sandboa.core.water.learning import WeighedBox, closing_exchange
from sandboa.core.water.ledger import MassLedger
from sandboa.core.water.loss_curve import AirOfDay, loss_curve
from sandboa.core.water.mixing import medium_named
from sandboa.core.water.rules import DEFAULT_WATER, WaterRules
from sandboa.core.water.signs import WaterSign
from sandboa.core.water.top_up import TopUp, top_up
from sandboa.records.clutches import Box
from sandboa.services.boxes.air import (
    air_by_day,
    box_air,
    humidity_by_day,
    recent_humidity,
)
from sandboa.services.boxes.mass_ledger import BoxAccount, account_in
from sandboa.services.snapshot.histories import EggHistory
from sandboa.services.snapshot.snapshot import Snapshot

#: g of a box that nobody weighed: top-up by estimate needs the difference only.
_BOX_G: Final = 1_000.0


@dataclass(frozen=True)
class BoxWater:
    """Water and air of a box. `left` is None where the water at set-up is unknown.

    Attributes
    ----------
    medium, closing: as they are now.
    felt: how the medium felt when last looked at, None where nobody felt it since it was watered.
    poured: when water was last added (s) and how much of it (g), None when none was.
    full_g: water it was set up with.
    reference_g: what it would weigh as set up, None when nobody weighed it.
    add: what is missing, by its weighings or by estimate.
    learned_from: other boxes of this closing whose weighings taught the exchange.
    """

    medium: str
    closing: Closing
    full_g: float | None
    left: WaterLeft | None
    ledger: MassLedger
    reference_g: float | None
    add: TopUp | None
    opened_s: float
    air: Oxygen | None
    cabinet_humidity: float | None
    learned_from: int
    felt: str | None = None
    poured: tuple[float, float] | None = None
    rules: WaterRules = DEFAULT_WATER


@dataclass(frozen=True)
class BoxEggs:
    """What the eggs of a box mean for its water and air.

    `curve` is of the box itself since it was set up; `shares` are those developed (0-2) of
    its live eggs; `share_at` says how far most of them were at a time (s).
    """

    curve: DevelopmentCurve
    shares: Sequence[float]
    share_at: Callable[[float], float]


@dataclass(frozen=True)
class _Known:
    """All that is known of a box's water, put together once: for what is, and for what if."""

    account: BoxAccount
    air: list[AirOfDay]
    humidity: dict[int, float]
    prior: Exchange
    learned_from: int
    signs: list[WaterSign]
    rules: ExchangeRules
    water: WaterRules
    as_of_s: float

    def left(self, what_if_g_day: float | None = None) -> WaterLeft | None:
        """What is left; the dates by another loss from now on where one is given."""
        curve = loss_curve(self.air, self.account.closings, self.account.medium, self.rules)
        if what_if_g_day is not None:
            curve = replace(curve, future_g_day=what_if_g_day)
        return water_left(
            self.account.ledger,
            curve,
            self.as_of_s,
            prior=self.prior,
            signs=self.signs,
            rules=self.water,
        )


def _known(snapshot: Snapshot, box: Box, eggs: BoxEggs, as_of_s: float) -> _Known:
    account, in_force = account_in(snapshot, box, as_of_s), snapshot.settings.rules
    begun_s = account.ledger.set_up_s
    cabinet = snapshot.shelf_at(box, as_of_s).cabinet_id
    humidity = humidity_by_day(snapshot, cabinet, begun_s, as_of_s)
    prior, learned_from = closing_exchange(
        weighed_boxes(snapshot, as_of_s),
        account.closing,
        besides=box.entity_id,
        sd_factor=in_force.exchange.sd_factor,
    )
    if not humidity:
        prior = Exchange(prior.mean, math.hypot(prior.sd, unmeasured_air_sd(in_force.water)))
    return _Known(
        account,
        box_air(eggs.curve, humidity, in_force.water.unknown_humidity, begun_s, as_of_s),
        humidity,
        prior,
        learned_from,
        list(_signs(snapshot, box, eggs.share_at, begun_s)),
        in_force.exchange,
        in_force.water,
        as_of_s,
    )


def box_water(snapshot: Snapshot, box: Box, eggs: BoxEggs, as_of_s: float) -> BoxWater | None:
    """Where a box stands at `as_of_s`; None where the dam keeps her eggs, and for other species."""
    if not box.medium or not box.closing:
        return None
    known = _known(snapshot, box, eggs, as_of_s)
    account, left = known.account, known.left()
    opened_s = _opened_s(snapshot, box, as_of_s)
    air = oxygen(
        [min(share, 2.0) for share in eggs.shares],
        account.closing,
        max(as_of_s - opened_s, 0.0),
        air=snapshot.settings.rules.air,
        rules=known.rules,
        learned=_of_the_air(known, left),
    )
    return BoxWater(
        medium=account.medium,
        closing=account.closing,
        full_g=account.ledger.water_g,
        left=left,
        ledger=account.ledger,
        reference_g=account.ledger.reference_g(as_of_s),
        add=None if left is None else _by_estimate(left, account.ledger.water_g or 0.0),
        opened_s=opened_s,
        air=air if eggs.shares else None,
        cabinet_humidity=recent_humidity(known.humidity, as_of_s),
        learned_from=known.learned_from,
        felt=_felt(known),
        poured=max(((p.at_s, p.water_g) for p in account.ledger.pours), default=None),
        rules=known.water,
    )


@dataclass(frozen=True, slots=True)
class OtherClosing:
    """What is asked of a box: another closing, another humidity (0-1) of its cabinet, or both."""

    closing: Closing | None = None
    humidity: float | None = None


def what_if(
    snapshot: Snapshot, box: Box, eggs: BoxEggs, as_of_s: float, other: OtherClosing
) -> WaterLeft | None:
    """The box's water were it closed another way, or its cabinet damper, from now on.

    Its own factor is carried over to the other closing: what made this box
    drier or damper than usual is taken to stay.
    """
    known = _known(snapshot, box, eggs, as_of_s)
    here = known.air[-1]
    return known.left(
        loss_g_day(
            other.closing or known.account.closing,
            known.account.medium,
            here.box_c,
            here.box_c,
            here.cabinet_humidity if other.humidity is None else other.humidity,
            known.rules,
        )
    )


def top_up_by_scale(water: BoxWater, mass_g: float) -> TopUp | None:
    """What to pour into a box that weighs `mass_g` now; None where its reference is unknown."""
    if water.reference_g is None or not water.full_g:
        return None
    # Within the scale's error a box may seem a little heavier than it can be.
    return top_up(
        water.reference_g, min(mass_g, water.reference_g), water.full_g, rules=water.rules
    )


def latest_lid(snapshot: Snapshot, box: Box, as_of_s: float) -> str | None:
    """How wet the lid was at the last look: none, edges, half, raining; wiped is none."""
    looks = [
        (s.seen_s, 0, s.value)
        for s in snapshot.box(box.entity_id).signs
        if s.kind == WaterSignKind.LID
    ]
    looks += [
        (a.at_s, 1, "none")
        for a in snapshot.box(box.entity_id).done
        if a.kind == BoxActKind.WIPED_LID
    ]
    known = [look for look in looks if look[0] <= as_of_s]
    return max(known)[2] if known else None


def on_grid_now(snapshot: Snapshot, box: Box, as_of_s: float) -> bool:
    """Whether the eggs lie on a grid: as set up, unless it was taken out since.

    Boxes recorded without a contact say it by their medium.
    """
    gone = {BoxActKind.REMOVED_GRID, BoxActKind.MOVED_TO_PAPER}
    if any(a.kind in gone and a.at_s <= as_of_s for a in snapshot.box(box.entity_id).done):
        return False
    if box.contact is not None:
        return box.contact == Contact.GRID
    return box.medium is not None and medium_named(box.medium).on_grid


def weighed_boxes(snapshot: Snapshot, as_of_s: float) -> list[WeighedBox]:
    """What every box with two or more weighings taught of its closing.

    Each is worked out once and held until something of it changes. The air of
    these boxes is taken from set points: a degree makes 6 % of the loss,
    against the factor of 2 that is to be learned.
    """
    return snapshot.own.held("weighed boxes", as_of_s, lambda: _weighed_boxes(snapshot, as_of_s))


def _weighed_boxes(snapshot: Snapshot, as_of_s: float) -> list[WeighedBox]:
    taught = []
    for box in snapshot.boxes.values():
        if not snapshot.box(box.entity_id).weighings or not box.medium or not box.closing:
            continue
        account = account_in(snapshot, box, as_of_s)
        # A number that is set touches every clutch.
        stamp = (account, snapshot.last_acts.every_clutch)
        told = snapshot.kept.held(
            f"weighed box {box.entity_id}",
            stamp,
            partial(_taught, snapshot, box, account),
        )
        if told is not None:
            taught.append(told)
    return taught


def _taught(snapshot: Snapshot, box: Box, account: BoxAccount) -> WeighedBox | None:
    ledger = account.ledger
    if len(ledger.weighings) + (ledger.set_up_g is not None) < 2 or not ledger.water_g:
        return None
    last_s = max(w.at_s for w in ledger.weighings)
    cabinet = snapshot.shelf_at(box, last_s).cabinet_id
    humidity = humidity_by_day(snapshot, cabinet, ledger.set_up_s, last_s)
    box_c = snapshot.set_points(cabinet).at(last_s)
    unknown = snapshot.settings.rules.water.unknown_humidity
    air = list(air_by_day(humidity, unknown, ledger.set_up_s, last_s, lambda _a, _b: box_c))
    curve = loss_curve(air, account.closings, account.medium, snapshot.settings.rules.exchange)
    left = water_left(ledger, curve, last_s)
    return None if left is None else WeighedBox(box.entity_id, account.closing, left.exchange)


def _of_the_air(known: _Known, left: WaterLeft | None) -> Exchange:
    """What is known of the box's exchange of air: by its own weighings, else by others'.

    Where nothing measured the cabinet's humidity the weighings speak of both together.
    """
    told = known.prior if left is None else left.exchange
    if known.humidity or left is None:
        return told
    return Exchange(told.mean, math.hypot(told.sd, unmeasured_air_sd(known.water)))


def _felt(known: _Known) -> str | None:
    """The latest feel of the medium by then, where nothing was poured after it."""
    poured_s = max((p.at_s for p in known.account.ledger.pours), default=-math.inf)
    looks = [
        (sign.at_s, sign.value)
        for sign in known.signs
        if sign.kind is WaterSignKind.MEDIUM and poured_s < sign.at_s <= known.as_of_s
    ]
    return max(looks)[1] if looks else None


def _signs(
    snapshot: Snapshot, box: Box, share_at: Callable[[float], float], from_s: float
) -> Iterator[WaterSign]:
    kinds = set(WaterSignKind)
    for sign in snapshot.box(box.entity_id).signs:
        if sign.kind in kinds and from_s <= sign.seen_s:
            yield WaterSign(
                sign.seen_s, WaterSignKind(sign.kind), sign.value, share_at(sign.seen_s)
            )


def _by_estimate(left: WaterLeft, full_g: float) -> TopUp:
    """What is missing by the estimate, as if it had been weighed."""
    return top_up(full_g + _BOX_G, left.water_g + _BOX_G, full_g, rules=left.rules)


def _opened_s(snapshot: Snapshot, box: Box, as_of_s: float) -> float:
    """When the box was last open: set up, a visit, something done at it, an egg looked at in it."""
    held = snapshot.box(box.entity_id)
    moments = [
        *(v.closed_s for v in held.visits),
        *(w.poured_s for w in held.waterings),
        *(a.at_s for a in held.done),
        *(
            moment
            for egg in snapshot.eggs_in(box.entity_id, as_of_s)
            for moment in _touched_here(snapshot.egg(egg.entity_id), as_of_s)
        ),
    ]
    return max((float(m) for m in moments if box.from_s <= m <= as_of_s), default=float(box.from_s))


def _touched_here(egg: EggHistory, as_of_s: float) -> Iterator[float]:
    """When an egg was put into the box it lies in, and last looked at there (s)."""
    stay, looked_s = egg.stay_at(as_of_s), egg.last_look_s(as_of_s)
    came_s = -math.inf if stay is None or stay is egg.stays[0] else float(stay.from_s)
    if came_s > -math.inf:
        yield came_s
    if looked_s is not None and looked_s >= came_s:
        yield looked_s
