"""One number a keeper can set for the house."""

from dataclasses import dataclass
from enum import StrEnum

from sandboa.core.messages import Words


class Quantity(StrEnum):
    """What a number is, so that it can be told in the reader's units."""

    PLAIN = "plain"
    TEMPERATURE = "temperature"
    DIFFERENCE = "temperature difference"
    MASS = "mass"
    SHARE = "share"


@dataclass(frozen=True, slots=True)
class Setting:
    """`default` holds until the keeper sets another value within `limits` (same `unit`).

    `quantity` says how it is turned for a reader; `deep` ones, of which there are many, lie one
    level deeper than the others.
    """

    name: str
    label: Words
    unit: str
    default: float
    limits: tuple[float, float]
    reason: str
    group: str = "House"
    quantity: Quantity = Quantity.PLAIN
    deep: bool = False
