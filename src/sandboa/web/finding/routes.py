"""Anything of the house by its name, from anywhere."""

from typing import Annotated, Final

from fastapi import APIRouter, Query

from sandboa.services.overview.finding import find
from sandboa.web.finding.schemas import FoundResponse
from sandboa.web.house import MomentS, TheHouse
from sandboa.web.security.permissions import LOOK

router = APIRouter(prefix="/api", tags=["finding"])

#: Told at once at most: who sees more types a letter more (assumption).
_MOST: Final = 40


@router.get("/found", dependencies=[LOOK])
def get_found(
    house: TheHouse,
    now_s: MomentS,
    words: Annotated[str, Query(max_length=200)] = "",
    limit: Annotated[int, Query(ge=1, le=_MOST)] = 12,
) -> list[FoundResponse]:
    """Clutches, eggs ("26-04/3"), boxes, animals, cabinets, probes and notes that have every one
    of the `words`, and what may be done with them ("top up 26-04"); the best first."""
    found = find(house.snapshot(), words, now_s, limit)
    return [FoundResponse.model_validate(one) for one in found]
