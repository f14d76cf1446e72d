"""Requests and responses of this place."""

from pydantic import BaseModel

from sandboa.core.box import Closing
from sandboa.core.lay_day import Step
from sandboa.formats.paper import LabelSheet
from sandboa.web.schemas.common import ResponseSchema


class DimpleStage(BaseModel):
    """From this share developed on, this turgor grade is normal."""

    development: float
    grade: int


class CautionResponse(ResponseSchema):
    """What can hurt someone at that moment."""

    moment: str
    text: str


class StepOrder(BaseModel):
    """The steps of a lay day of that kind; `to_turn`: an egg's disc is not on top."""

    maternal: bool
    to_turn: bool
    steps: list[Step]


class ClimateRules(BaseModel):
    """What temperatures and humidities mean, and by how much a probe errs (1 sd)."""

    fine_off_c: float
    harm_above_c: float
    slow_below_c: float
    saturated_humidity: float
    salt_humidity: float
    checked_probe_sd_c: float
    unchecked_probe_sd_c: float
    recent_days: float
    swing_good_up_to_c: float
    swing_watch_up_to_c: float


class WaterRules(BaseModel):
    """Shares of the set-up water at which to top up, and at which a box counts as dry."""

    top_up: float
    dry: float


class HatchRules(BaseModel):
    """h after the first pip from which a rescue may be, and is, considered; the share developed
    from which an egg is at full term; what is recorded."""

    rescue_hours: tuple[float, float]
    full_term_from: float
    hatchling_g: tuple[float, float]


class GramsRules(BaseModel):
    """What can be true on a scale (g): a refusal is said where the number is typed."""

    box_g: tuple[float, float]
    dam_g: tuple[float, float]
    egg_g: tuple[float, float]
    medium_g: tuple[float, float]
    water_g: tuple[float, float]


class RulesResponse(BaseModel):
    """`torch_signs` are signs, kind.value, on which an egg is candled at the same visit;
    `asked_from` the shares developed from which kinds of signs are asked for."""

    dimple_stages: list[DimpleStage]
    largest_file_bytes: int
    largest_list_bytes: int
    most_eggs: int
    largest_photo_bytes: int
    usual_egg_g: tuple[float, float]
    cautions: list[CautionResponse]
    lay_day_orders: list[StepOrder]
    climate: ClimateRules
    emergency_repeat_s: float
    water_shares: WaterRules
    torch_signs: list[str]
    asked_from: dict[str, float]
    poured_g: tuple[float, float]
    grams: GramsRules
    closings: list[Closing]
    hatch: HatchRules
    largest_package_bytes: int
    labels_per_sheet: dict[LabelSheet, int]
    shortest_passphrase: int
