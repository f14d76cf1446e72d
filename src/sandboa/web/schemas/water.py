"""Water and air of a box in responses."""

from pydantic import BaseModel, Field

from sandboa.core.box import Closing
from sandboa.core.water.estimate import WaterLeft
from sandboa.core.water.mixing import WaterBy
from sandboa.services.boxes.water import BoxWater
from sandboa.web.schemas.common import Grams, Minute, Moment, ResponseSchema, Share, at_or_none


class MediumResponse(ResponseSchema):
    """A medium: its usual water to dry mass, and what to do."""

    name: str
    ratio: float | None
    water_by: WaterBy = Field(validation_alias="water")
    how: str
    on_grid: bool


class DateBandResponse(ResponseSchema):
    """When it is reached, with its 80 % band; nulls beyond any term."""

    early: Minute | None = Field(validation_alias="early_s")
    middle: Minute | None = Field(validation_alias="middle_s")
    late: Minute | None = Field(validation_alias="late_s")


class WaterLeftResponse(ResponseSchema):
    """Share of the set-up water left with its 80 % band, the loss and the dates."""

    water_g: Grams
    share: Share
    share_low: Share
    share_high: Share
    loss_g_day: Grams
    loss_low_g_day: Grams
    loss_high_g_day: Grams
    top_up_soon: DateBandResponse
    dry: DateBandResponse
    weighings: int


class TopUpResponse(ResponseSchema):
    """What to add, g; `split`: over two days, `today_g` of it now."""

    deficit_g: Grams
    add_g: Grams
    today_g: Grams
    split: bool
    left_out_g: Grams


class OxygenResponse(ResponseSchema):
    """Estimated oxygen in the box with its 80 % band."""

    share: Share
    low: Share
    high: Share
    advise_airing: bool
    may_need_airing: bool


class BoxWaterResponse(BaseModel):
    """`left` and `add` null where the water at set-up is not known."""

    medium: str
    closing: Closing
    full_g: Grams | None
    reference_g: Grams | None
    left: WaterLeftResponse | None
    add: TopUpResponse | None
    opened_at: Moment | None
    air: OxygenResponse | None
    cabinet_humidity: Share | None
    learned_from: int
    last_weighed_g: Grams | None
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
