"""Numbers of the core that a screen draws or checks with: told once, never copied."""

from fastapi import APIRouter
from pydantic import BaseModel

from sandboa.core.dimples.stages import ALLOWED_FROM
from sandboa.formats.readings_csv import LARGEST_FILE_BYTES

router = APIRouter(prefix="/api/rules", tags=["rules"])


class DimpleStage(BaseModel):
    """From this share developed on, this turgor grade is normal."""

    development: float
    grade: int


class RulesTold(BaseModel):
    dimple_stages: list[DimpleStage]
    largest_file_bytes: int


@router.get("")
def get_rules() -> RulesTold:
    """The numbers in force."""
    return RulesTold(
        dimple_stages=[DimpleStage(development=d, grade=g) for d, g in ALLOWED_FROM],
        largest_file_bytes=LARGEST_FILE_BYTES,
    )
