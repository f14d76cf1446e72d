"""A lay day as far as it has come: what every step has gathered, in one document."""

from datetime import datetime
from typing import Annotated, Any, Final

from pydantic import AwareDatetime, ConfigDict, Field, model_validator

from sandboa.core.box import Closing, Shell
from sandboa.core.candling import Disc, Vessels
from sandboa.core.clutch_count import MOST_EGGS
from sandboa.core.errors import NotPlausible
from sandboa.core.lay_day import EggEvent, Lump
from sandboa.core.laying.origin import OriginKind, TorchStage
from sandboa.core.methods import STANDARD, Method
from sandboa.services.acts.strict_model import StrictModel
from sandboa.services.boxes.set_up import BoxCommand
from sandboa.services.lay_day.day import MOST_FURTHER, EggHappening, EggLaid, LayDay
from sandboa.services.lay_day.origin import OriginCommand

Share = Annotated[float, Field(ge=0, le=1)]
Grams = Annotated[float, Field(gt=0, le=50_000)]
Name = Annotated[str, Field(max_length=20_000)]
#: Litres a keeper may have measured the medium by.
_LITRES: Final = Field(gt=0, le=60)


class _Strict(StrictModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class HappeningState(_Strict):
    kind: EggEvent
    at: AwareDatetime


class EggState(_Strict):
    """An egg so far; `looked` once its own screen has been answered."""

    x: Share
    y: Share
    slug: bool = False
    shells: list[Shell] = Field(default=[], max_length=len(Shell))
    vessels: Vessels | None = None
    disc: Disc | None = None
    mass_g: Grams | None = None
    clump: Annotated[int, Field(ge=1, le=MOST_EGGS)] | None = None
    events: list[HappeningState] = Field(default=[], max_length=20)
    looked: bool = False
    box: Annotated[int, Field(ge=0, le=MOST_FURTHER)] = 0

    @model_validator(mode="before")
    @classmethod
    def _one_mark(cls, said: Any) -> Any:
        """A lay day begun before an egg could have several marks says one."""
        if isinstance(said, dict) and "shell" in said:
            one = said["shell"]
            said = {name: value for name, value in said.items() if name != "shell"}
            said["shells"] = [] if one == Shell.SMOOTH else [one]
        return said


class FurtherBoxState(_Strict):
    """A box beside the first; what is null is as in the first."""

    name: Name | None = None
    medium: Annotated[str, Field(max_length=60)] | None = None
    closing: Closing | None = None
    dry_mass_g: Grams | None = None
    water_g: Annotated[float, Field(ge=0, le=20_000)] | None = None
    set_up_mass_g: Grams | None = None


class OriginState(_Strict):
    """Where eggs nobody saw laid come from, as in services.lay_day.origin."""

    kind: OriginKind
    laid_at: AwareDatetime | None = None
    laid_from: AwareDatetime | None = None
    laid_until: AwareDatetime | None = None
    stage: TorchStage | None = None
    stage_seen_at: AwareDatetime | None = None
    arrived_at: AwareDatetime | None = None
    before_c: float | None = None

    def command(self) -> OriginCommand:
        """As it is recorded."""
        return OriginCommand(
            self.kind,
            laid_s=_seconds(self.laid_at),
            laid_from_s=_seconds(self.laid_from),
            laid_until_s=_seconds(self.laid_until),
            stage=self.stage,
            stage_seen_s=_seconds(self.stage_seen_at),
            arrived_s=_seconds(self.arrived_at),
            before_c=self.before_c,
        )


class LayDayState(_Strict):
    """Nothing but dam and time is known at first. Masses in g, null when not weighed.

    `handled_at` is when the eggs were looked at and handled, null for the lay time. `further` are
    boxes beside the first, `into` the name of a box that is there already. `origin` where nobody
    saw them laid: then `laid_at` is the middle of what is known.
    """

    dam: Name
    sire: Name | None = None
    code: Annotated[str, Field(max_length=20)] | None = None
    laid_at: AwareDatetime
    handled_at: AwareDatetime | None = None
    second_clutch: bool = False
    method: Method = STANDARD
    lump: Lump | None = None
    dam_mass_g: Grams | None = None
    marked: bool = False
    eggs: list[EggState] = Field(default=[], max_length=MOST_EGGS)
    dry_mass_g: Grams | None = None
    dry_volume_l: Annotated[float, _LITRES] | None = None
    water_g: Annotated[float, Field(ge=0, le=20_000)] | None = None
    set_up_mass_g: Grams | None = None
    further: list[FurtherBoxState] = Field(default=[], max_length=MOST_FURTHER)
    into: Name | None = None
    cabinet: Name = ""
    shelf: Name = ""
    set_point_c: float | None = None
    origin: OriginState | None = None


def lay_day_of(state: LayDayState) -> LayDay:
    """The lay day to be recorded; NotPlausible names the step at which something is missing."""
    if not state.eggs:
        raise NotPlausible("count", "count the eggs first")
    if state.into is None and not (state.cabinet.strip() and state.shelf.strip()):
        raise NotPlausible("shelf", "which shelf do they go on?")
    if state.into is None and state.set_point_c is None:
        raise NotPlausible("shelf", "what is it set to?")
    maternal = state.method.maternal
    return LayDay(
        dam=state.dam,
        sire=state.sire or None,
        code=state.code or None,
        laid_at=state.laid_at,
        eggs=tuple(_egg(egg, maternal) for egg in state.eggs),
        medium=None if maternal else state.method.medium,
        closing=None if maternal else state.method.closing,
        contact=None if maternal else state.method.contact,
        dry_mass_g=None if maternal else state.dry_mass_g,
        water_g=None if maternal else state.water_g,
        set_up_mass_g=None if maternal else state.set_up_mass_g,
        cabinet=state.cabinet,
        shelf=state.shelf,
        set_point_c=state.method.temperature_c if state.set_point_c is None else state.set_point_c,
        method=state.method,
        lump=state.lump,
        dam_mass_g=state.dam_mass_g,
        second_clutch=state.second_clutch,
        handled_at=state.handled_at,
        further=() if maternal else tuple(_further(box) for box in state.further),
        into=None if maternal else state.into,
        origin=state.origin.command() if state.origin else None,
    )


def _seconds(moment: datetime | None) -> float | None:
    return None if moment is None else moment.timestamp()


def _further(box: FurtherBoxState) -> BoxCommand:
    return BoxCommand(
        name=box.name or None,
        medium=box.medium,
        closing=box.closing,
        dry_mass_g=box.dry_mass_g,
        water_g=box.water_g,
        set_up_mass_g=box.set_up_mass_g,
    )


def _egg(egg: EggState, maternal: bool) -> EggLaid:
    """A slug has no vessels; an egg the dam keeps has not been handled."""
    untouched = egg.slug or maternal
    return EggLaid(
        egg.x,
        egg.y,
        slug=egg.slug,
        shells=tuple(egg.shells),
        vessels=None if untouched else egg.vessels,
        disc=None if untouched else egg.disc,
        mass_g=None if maternal else egg.mass_g,
        clump=None if maternal else egg.clump,
        events=()
        if maternal
        else tuple(EggHappening(e.kind, e.at.timestamp()) for e in egg.events),
        box=0 if maternal else egg.box,
    )
