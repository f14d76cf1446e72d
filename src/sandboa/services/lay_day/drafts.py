"""A lay day under way: begun, saved after every step, found again on any device, recorded."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime

from pydantic import ValidationError

from sandboa.core.act_kinds import ActKind
from sandboa.core.animals import DAM, SIRE
from sandboa.core.candling import TurnAdvice, turn_advice
from sandboa.core.clutch_count import ClutchCount
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import USUAL_LOSS, Step, steps
from sandboa.core.methods import checked
from sandboa.core.names import clean_name
from sandboa.core.units import SECONDS_PER_DAY, SECONDS_PER_HOUR, require_moment
from sandboa.records import lay_drafts
from sandboa.records.animals import Weight
from sandboa.records.clutches import Clutch
from sandboa.records.facts import Act
from sandboa.records.house import Animal
from sandboa.records.lay_drafts import LayDraft
from sandboa.records.photos import Photo
from sandboa.services.acts.errors import Conflict, NotFound
from sandboa.services.acts.preconditions import box_called
from sandboa.services.acts.recording import act
from sandboa.services.acts.standing import undone_among
from sandboa.services.cabinets.commands import place_of_box, set_point_then
from sandboa.services.clutches.methods import chosen_method
from sandboa.services.lay_day.day import check_lay_day, require_handled_between, require_two
from sandboa.services.lay_day.origin import check_origin, laid_at_of
from sandboa.services.lay_day.record import require_asked_about, write_clutch
from sandboa.services.lay_day.rows import suggested_code
from sandboa.services.lay_day.state import LayDayState, OriginState, lay_day_of
from sandboa.services.snapshot.settings import house_settings

#: h after the last save from which a lay day is said to have been left half-finished (assumption).
LEFT_AFTER_HOURS = 12.0


@dataclass(frozen=True, slots=True)
class DamLoss:
    """What laying cost her: weight before (g), share lost, and whether that is usual."""

    before_g: float
    share: float | None
    usual: bool | None


@dataclass(frozen=True, slots=True)
class LayDayNow:
    """A lay day as a screen needs it; `clutch` is its code once it is recorded."""

    id: int
    revision: int
    step: Step
    steps: tuple[Step, ...]
    state: LayDayState
    started_s: float
    saved_s: float
    count: ClutchCount | None
    next_code: str
    turning: tuple[TurnAdvice | None, ...]
    dam_loss: DamLoss | None
    found_again: str | None
    clutch: str | None


def begin(
    dam: str,
    sire: str | None,
    laid_at: datetime,
    now_s: float,
    *,
    second_clutch: bool = False,
    origin: OriginState | None = None,
) -> int:
    """Begin a lay day; returns its id. With an `origin` the lay time is what that makes of it.

    Raises NotPlausible for a name or time that cannot be, Conflict for a sire
    as dam or when a lay day of hers is open already, Question when she laid
    within 60 days.
    """
    name = clean_name("dam", dam)
    father = clean_name("sire", sire) if sire and sire.strip() else None
    require_two(name, father)
    if origin is not None:
        check_origin(origin.command(), now_s)
        laid_at = laid_at_of(origin.command())
    _require_time(laid_at, now_s)
    her = _known(name, DAM)
    if father is not None:
        _known(father, SIRE)
    for other in open_drafts():
        if _state(other).dam.casefold() == name.casefold():
            raise Conflict(f"a lay day of {name} is open already: go on with it, or set it aside")
    if her is not None:
        require_asked_about(her.entity_id, her.name, laid_at.timestamp(), second_clutch)
    state = LayDayState(
        dam=her.name if her else name,
        sire=father,
        laid_at=laid_at,
        second_clutch=second_clutch,
        method=chosen_method(),
        origin=origin,
    )
    return lay_drafts.new_draft(int(now_s), Step.PREPARE, state.model_dump_json()).id


def save(draft_id: int, revision: int, step: Step, state: LayDayState, now_s: float) -> int:
    """Keep the state after a step; returns the new revision.

    Raises Conflict when another device has saved since `revision` or the
    clutch is recorded already; NotPlausible for values that cannot be true.
    Nothing is kept then.
    """
    draft = _draft(draft_id)
    if _code(draft) is not None:
        raise Conflict("this clutch is recorded: correct it on its page")
    clean_name("dam", state.dam)
    for field in ("sire", "cabinet", "shelf"):
        # Names may be missing for now; what is typed must be one.
        if (typed := getattr(state, field)) and typed.strip():
            clean_name(field, typed)
    _require_time(state.laid_at, now_s)
    require_handled_between(state.handled_at, state.laid_at.timestamp(), now_s)
    state = state.model_copy(update={"method": checked(state.method, house_settings().rules.clock)})
    kept = lay_drafts.save_draft(
        draft_id, revision, int(now_s), step.value, state.model_dump_json()
    )
    if not kept:
        raise Conflict("this lay day was carried on from another device: here is how it stands")
    return revision + 1


def lay_day_now(draft_id: int, now_s: float) -> LayDayNow:
    """How a lay day stands at `now_s`; NotFound when there is none such."""
    return _now(_draft(draft_id), now_s)


def open_lay_days(now_s: float, *, aside: bool = False) -> list[LayDayNow]:
    """Those begun and neither recorded nor set aside, or those set aside; oldest first."""
    return [_now(draft, now_s) for draft in open_drafts(aside=aside)]


def record(draft_id: int, now_s: float) -> tuple[str, Act]:
    """Turn the draft into a clutch, in one act with its photos; returns its code.

    Raises NotPlausible with the step at which something is missing or cannot
    be, Conflict when it is recorded already, Question as `lay_clutch` does.
    The draft opens again when the act is undone.
    """
    draft = _draft(draft_id)
    if _code(draft) is not None:
        raise Conflict("this clutch is recorded already")
    day = lay_day_of(_state(draft))
    if day.into is not None:
        cabinet, shelf = place_of_box(box_called(day.into), day.laid_at.timestamp())
        day = replace(day, cabinet=cabinet.name, shelf=shelf.name)
    set_to_c = set_point_then(day.cabinet, day.laid_at.timestamp())
    if set_to_c is not None:
        # The cabinet's own record says what it was set to; what it is set to today is another day.
        day = replace(day, set_point_c=set_to_c)
    check_lay_day(day, now_s)
    with act(ActKind.LAY, "", now_s) as laying:
        clutch = write_clutch(laying, day)
        for photo in Photo.current(owner_id=draft_id):
            photo.correct(laying, owner_id=clutch.entity_id)
        lay_drafts.mark_recorded(draft_id, laying)
    return clutch.code, laying


def set_aside(draft_id: int, aside: bool) -> None:
    """Put a lay day away that came to nothing, or take it up again; nothing is lost.

    Raises NotFound for no such lay day, Conflict when another of the same dam is open.
    """
    draft = _draft(draft_id)
    her = _state(draft).dam
    if draft.set_aside and not aside and her.casefold() in dams_laying():
        raise Conflict(f"a lay day of {her} is open already: go on with that, or set it aside")
    lay_drafts.put_aside(draft_id, aside)


def require_states() -> None:
    """Read the state of every lay day there is; ValidationError for one that cannot be read."""
    for draft in lay_drafts.all_drafts():
        _state(draft)


def moment(now_s: float) -> datetime:
    """Now as a lay time, to the minute before."""
    return datetime.fromtimestamp(now_s - now_s % 60, UTC)


def dams_laying() -> set[str]:
    """Names, case folded, of dams with a lay day under way."""
    return {_state(draft).dam.casefold() for draft in open_drafts()}


def open_drafts(*, aside: bool = False) -> list[LayDraft]:
    """Drafts that are neither recorded nor set aside, or those that are set aside."""
    drafts = lay_drafts.drafts_kept(aside=aside)
    acts = [a for a in (lay_drafts.recording_act(d) for d in drafts) if a is not None]
    undone = undone_among(acts)
    return [d for d in drafts if d.recorded_by_id is None or d.recorded_by_id in undone]


def _now(draft: LayDraft, now_s: float) -> LayDayNow:
    state = _state(draft)
    laid_s = state.laid_at.timestamp()
    turning = tuple(
        turn_advice(egg.disc, laid_s, now_s) if egg.disc and not egg.slug else None
        for egg in state.eggs
    )
    code = _code(draft)
    return LayDayNow(
        id=draft.id,
        revision=draft.revision,
        step=Step(draft.step),
        steps=steps(maternal=state.method.maternal, to_turn=any(turning)),
        state=state,
        started_s=draft.started_s,
        saved_s=draft.saved_s,
        count=ClutchCount(len(state.eggs), sum(e.slug for e in state.eggs)) if state.eggs else None,
        next_code=suggested_code(state.laid_at.year),
        turning=turning,
        dam_loss=_dam_loss(state),
        found_again=None if code else _found_again(draft, laid_s, now_s),
        clutch=code,
    )


def _found_again(draft: LayDraft, laid_s: float, now_s: float) -> str | None:
    """What to say of a lay day that was left half-finished, else None."""
    if now_s - draft.saved_s < LEFT_AFTER_HOURS * SECONDS_PER_HOUR:
        return None
    days = (now_s - draft.saved_s) / SECONDS_PER_DAY
    since = f"{days:.0f} days ago" if days >= 1.5 else "a day ago" if days >= 0.75 else "earlier"
    if now_s - laid_s > SECONDS_PER_DAY:
        return (
            f"Left half-finished {since}; all that was entered is here. The eggs are more than a "
            "day old: do not turn any. What you saw and did counts as seen when they were laid, "
            "unless you say when; correct the lay time if it is wrong."
        )
    return f"Left half-finished {since}; all that was entered is here."


def _dam_loss(state: LayDayState) -> DamLoss | None:
    """Her weight before laying, and what she lost, when it is known."""
    her = next((a for a in Animal.current() if a.name.casefold() == state.dam.casefold()), None)
    if her is None:
        return None
    laid_s = state.laid_at.timestamp()
    before = [w for w in Weight.current(animal_id=her.entity_id) if w.at_s <= laid_s]
    if not before:
        return None
    last = max(before, key=lambda w: w.at_s)
    if state.dam_mass_g is None:
        return DamLoss(last.mass_g, None, None)
    share = 1.0 - state.dam_mass_g / last.mass_g
    return DamLoss(last.mass_g, share, USUAL_LOSS[0] <= share <= USUAL_LOSS[1])


def _draft(draft_id: int) -> LayDraft:
    draft = lay_drafts.draft_numbered(draft_id)
    if draft is None:
        raise NotFound("there is no such lay day")
    return draft


def _code(draft: LayDraft) -> str | None:
    """Code of the recorded clutch, None while there is none or its act is undone."""
    recording = lay_drafts.recording_act(draft)
    if recording is None or undone_among([recording]):
        return None
    clutch = Clutch.now(recording.clutch_id) if recording.clutch_id else None
    return clutch.code if clutch else None


def _state(draft: LayDraft) -> LayDayState:
    try:
        return LayDayState.model_validate_json(draft.state)
    except ValidationError as error:  # pragma: no cover - a draft of an older version
        raise Conflict("this lay day was begun with an older Sandboa: begin it again") from error


def _known(name: str, role: str) -> Animal | None:
    """The animal of that name, if it is recorded; Conflict when it has the other role."""
    for animal in Animal.current():
        if animal.name.casefold() == name.casefold():
            if animal.role != role:
                raise Conflict(
                    f"{animal.name} is recorded as a {animal.role}: a {role} needs another name"
                )
            return animal
    return None


def _require_time(laid_at: datetime, now_s: float) -> None:
    laid_s = laid_at.timestamp()
    require_moment("laid_at", laid_s)
    if laid_s > now_s:
        raise NotPlausible("laid_at", "laid in the future: check the date and the time")
