"""What a label says, without the clutch's whole page."""

from pydantic import Field

from sandboa.web.schemas.common import Moment, ResponseSchema, WindowResponse


class LabelResponse(ResponseSchema):
    """The label of a clutch; `pips` is the window of its typical egg, null where none is told."""

    code: str
    count: str
    parents: str
    laid_at: Moment = Field(validation_alias="laid_s")
    pips: WindowResponse | None
    keeping: str
