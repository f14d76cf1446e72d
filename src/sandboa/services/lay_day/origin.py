"""Where eggs come from that nobody saw laid: told with the lay day, or later, and corrected."""

from dataclasses import dataclass
from datetime import UTC, datetime

from sandboa.core.act_kinds import ActKind
from sandboa.core.development.earlier_life import UNKNOWN_BEFORE_C
from sandboa.core.errors import NotPlausible
from sandboa.core.laying.origin import (
    OriginKind,
    TorchStage,
    laid_between,
    laid_by_stage,
    require_before,
    stage_share,
)
from sandboa.core.units import require_moment
from sandboa.records.clutches import Box, Clutch, ClutchOrigin, Egg, EggStay, Watering
from sandboa.records.facts import Act, Fact
from sandboa.records.hatching import Cut, Emergence, Pip
from sandboa.records.rounds import Visit
from sandboa.services.acts.errors import NotFound
from sandboa.services.acts.preconditions import (
    clutch_called,
    first_box_of,
    lying_since_s,
    require_not_ahead,
)
from sandboa.services.acts.recording import act
from sandboa.services.lay_day.dam_at_laying import move_with_lay_time


@dataclass(frozen=True, slots=True)
class OriginCommand:
    """What is known of eggs nobody saw laid (see records.clutches.ClutchOrigin); moments in s.

    Laid between two moments, or by a stage seen by torch; neither where `laid_s` is known.
    """

    kind: OriginKind
    laid_s: float | None = None
    laid_from_s: float | None = None
    laid_until_s: float | None = None
    stage: TorchStage | None = None
    stage_seen_s: float | None = None
    arrived_s: float | None = None
    before_c: float | None = None

    @property
    def begins_s(self) -> float:
        """When they lie in a box here: from when they came, else from when they were laid."""
        return laid_s_of(self) if self.arrived_s is None else self.arrived_s


def laid_s_of(said: OriginCommand) -> float:
    """What is taken for the lay time (s); NotPlausible where nothing tells it, or twice."""
    told = [said.laid_s is not None, said.laid_from_s is not None, said.stage is not None]
    if sum(told) != 1:
        raise NotPlausible(
            "laid_at", "say when they were laid, between which two times, or what a torch shows"
        )
    if said.laid_s is not None:
        return said.laid_s
    if said.stage is not None:
        if said.stage_seen_s is None:
            raise NotPlausible("stage_seen_at", "when was that seen by torch?")
        before_c = UNKNOWN_BEFORE_C if said.before_c is None else said.before_c
        return laid_by_stage(stage_share(said.stage), said.stage_seen_s, before_c)
    if said.laid_from_s is None or said.laid_until_s is None:
        raise NotPlausible("laid_until", "between which two times?")
    return laid_between(said.laid_from_s, said.laid_until_s)


def check_origin(said: OriginCommand, now_s: float) -> None:
    """Raise NotPlausible, at its field, for what cannot be true of eggs nobody saw laid."""
    moments = {
        "laid_at": said.laid_s,
        "laid_from": said.laid_from_s,
        "laid_until": said.laid_until_s,
        "stage_seen_at": said.stage_seen_s,
        "arrived_at": said.arrived_s,
    }
    for field, moment_s in moments.items():
        if moment_s is not None:
            require_moment(field, moment_s)
            _require_past(field, moment_s, now_s)
    if said.before_c is not None:
        require_before(said.before_c)
    laid_s = laid_s_of(said)
    if said.kind is OriginKind.FOUND:
        if said.arrived_s is not None or said.before_c is not None:
            raise NotPlausible("arrived_at", "eggs found here did not come from anywhere")
        return
    if said.arrived_s is None:
        raise NotPlausible("arrived_at", "when did they come into their box?")
    latest_s = laid_s if said.laid_until_s is None else said.laid_until_s
    if said.stage is None and said.arrived_s < latest_s:
        raise NotPlausible("arrived_at", "that is before they were laid: check both times")


def write_origin(recording: Act, clutch: Clutch, said: OriginCommand) -> None:
    """Record, or correct, where a clutch comes from, inside an open act."""
    ClutchOrigin.put(
        recording,
        {"clutch_id": clutch.entity_id},
        kind=said.kind.value,
        laid_from_s=_whole(said.laid_from_s),
        laid_until_s=_whole(said.laid_until_s),
        stage=said.stage.value if said.stage else None,
        stage_seen_s=_whole(said.stage_seen_s),
        arrived_s=_whole(said.arrived_s),
        before_c=said.before_c,
    )


def correct_origin(code: str, said: OriginCommand, now_s: float) -> Act:
    """Record or correct where a clutch comes from; its lay time and its box's beginning follow.

    Raises NotFound; NotPlausible as `check_origin`, and for a lay time after something was seen of
    an egg that was open by then.
    """
    clutch = clutch_called(code)
    check_origin(said, now_s)
    laid_s, begins_s = int(laid_s_of(said)), int(said.begins_s)
    _require_before_records(clutch, begins_s)
    require_laid_before_it_pipped(clutch, laid_s)
    with act(
        ActKind.ORIGIN, f"Clutch {clutch.code}: {said.kind}", now_s, clutch.entity_id
    ) as recording:
        began_s = lying_since_s(clutch)
        move_with_lay_time(recording, clutch, laid_s, begins_s)
        write_origin(recording, clutch, said)
        _begin_at(recording, clutch, began_s, begins_s)
        if clutch.laid_s != laid_s:
            clutch.correct(recording, laid_s=laid_s)
    return recording


def forget_origin(code: str, laid_at: datetime, now_s: float) -> Act:
    """A clutch was seen laid after all, at `laid_at`; NotFound where nothing else is recorded."""
    clutch = clutch_called(code)
    held = ClutchOrigin.only(clutch_id=clutch.entity_id)
    if held is None:
        raise NotFound(f"clutch {clutch.code} is recorded as seen laid")
    laid_s = laid_at.timestamp()
    require_moment("laid_at", laid_s)
    _require_past("laid_at", laid_s, now_s)
    _require_before_records(clutch, int(laid_s))
    require_laid_before_it_pipped(clutch, laid_s)
    with act(
        ActKind.ORIGIN, f"Clutch {clutch.code}: seen laid", now_s, clutch.entity_id
    ) as recording:
        began_s = lying_since_s(clutch)
        move_with_lay_time(recording, clutch, int(laid_s), int(laid_s))
        held.retire(recording)
        _begin_at(recording, clutch, began_s, int(laid_s))
        clutch.correct(recording, laid_s=int(laid_s))
    return recording


def laid_at_of(said: OriginCommand) -> datetime:
    """What is taken for the lay time."""
    return datetime.fromtimestamp(int(laid_s_of(said)), UTC)


def require_laid_before_it_pipped(clutch: Clutch, laid_s: float) -> None:
    """Raise NotPlausible when eggs of the clutch pipped, or were out, before that lay time."""
    for egg in Egg.current(clutch_id=clutch.entity_id):
        known = [
            *(p.seen_s for p in Pip.current(egg_id=egg.entity_id)),
            *(e.seen_s for e in Emergence.current(egg_id=egg.entity_id)),
            *(c.at_s for c in Cut.current(egg_id=egg.entity_id)),
        ]
        if known and min(known) <= laid_s:
            raise NotPlausible(
                "laid_at",
                f"egg {egg.number} was open before that: correct its pip first, or the lay time",
            )


def _begin_at(recording: Act, clutch: Clutch, began_s: int, begins_s: int) -> None:
    """The eggs lie in their boxes from another moment on, and their own box stands from then."""
    if began_s == begins_s:
        return
    for egg in Egg.current(clutch_id=clutch.entity_id):
        for stay in EggStay.current(egg_id=egg.entity_id, from_s=began_s):
            stay.correct(recording, from_s=begins_s)
    own = first_box_of(clutch)
    for box in Box.current(entity_id=own.entity_id, from_s=began_s):
        box.correct(recording, from_s=begins_s)


def _require_before_records(clutch: Clutch, begins_s: int) -> None:
    """NotPlausible where the box was visited or watered, or an egg moved, before they would have
    begun to lie here."""
    own = first_box_of(clutch)
    looked_after: tuple[tuple[type[Fact], str], ...] = (
        (Visit, "closed_s"),
        (Watering, "poured_s"),
    )
    for table, column in looked_after:
        early = [row for row in table.current(box_id=own.entity_id) if own.from_s >= clutch.laid_s]
        if any(row.values()[column] < begins_s for row in early):
            raise NotPlausible(
                "arrived_at", f"box {own.name} was seen to before that: correct that first"
            )
    for egg in Egg.current(clutch_id=clutch.entity_id):
        stays = sorted(EggStay.current(egg_id=egg.entity_id), key=lambda stay: stay.from_s)
        if len(stays) > 1 and stays[1].from_s <= begins_s:
            raise NotPlausible(
                "arrived_at", f"egg {egg.number} was put into another box before that"
            )


def _require_past(field: str, moment_s: float, now_s: float) -> None:
    try:
        require_not_ahead(moment_s, now_s)
    except NotPlausible as error:
        raise NotPlausible(field, error.reason) from error


def _whole(moment_s: float | None) -> int | None:
    return None if moment_s is None else int(moment_s)
