"""Water and air of a box in responses."""

from pydantic import BaseModel, Field

from sandboa.core.box import Closing
from sandboa.core.water.estimate import WaterLeft
from sandboa.core.water.mixing import WaterBy
from sandboa.services.boxes.water import BoxWater
from sandboa.web.schemas.common import Moment, ResponseSchema, at_or_none


class MediumResponse(ResponseSchema):
    """A medium: its usual water to dry mass, and what to do."""

    name: str
    ratio: float | None
    water_by: WaterBy = Field(validation_alias="water")
    how: str
    on_grid: bool


class DateBandResponse(ResponseSchema):
    """When it is reached, with its 80 % band; nulls beyond any term."""

    early: Moment | None = Field(validation_alias="early_s")
    middle: Moment | None = Field(validation_alias="middle_s")
    late: Moment | None = Field(validation_alias="late_s")


class WaterLeftResponse(ResponseSchema):
    """Share of the set-up water left with its 80 % band, the loss and the dates."""

    water_g: float
    share: float
    share_low: float
    share_high: float
    loss_g_day: float
    loss_low_g_day: float
    loss_high_g_day: float
    top_up_soon: DateBandResponse
    dry: DateBandResponse
    weighings: int


class TopUpResponse(ResponseSchema):
    """What to add, g; `split`: over two days, `today_g` of it now."""

    deficit_g: float
    add_g: float
    today_g: float
    split: bool
    left_out_g: float


class OxygenResponse(ResponseSchema):
    """Estimated oxygen in the box with its 80 % band."""

    share: float
    low: float
    high: float
    advise_airing: bool
    may_need_airing: bool


class BoxWaterResponse(BaseModel):
    """`left` and `add` null where the water at set-up is not known."""

    medium: str
    closing: Closing
    full_g: float | None
    reference_g: float | None
    left: WaterLeftResponse | None
    add: TopUpResponse | None
    opened_at: Moment | None
    air: OxygenResponse | None
    cabinet_humidity: float | None
    learned_from: int
    last_weighed_g: float | None
    last_weighed_at: Moment | None

    @classmethod
    def of(cls, water: BoxWater) -> "BoxWaterResponse":
        last = max(water.ledger.weighings, key=lambda w: w.at_s, default=None)
        return cls(
            medium=water.medium,
            closing=water.closing,
            full_g=water.full_g,
            reference_g=water.reference_g,
            left=water_left_told(water.left),
            add=TopUpResponse.model_validate(water.add) if water.add else None,
            opened_at=at_or_none(water.opened_s),
            air=OxygenResponse.model_validate(water.air) if water.air else None,
            cabinet_humidity=water.cabinet_humidity,
            learned_from=water.learned_from,
            last_weighed_g=last.mass_g if last else None,
            last_weighed_at=at_or_none(last.at_s) if last else None,
        )


def water_left_told(left: WaterLeft | None) -> WaterLeftResponse | None:
    """None stays None: nobody knows."""
    return None if left is None else WaterLeftResponse.model_validate(left)
