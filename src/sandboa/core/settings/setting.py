"""One number a keeper can set for the house."""

from dataclasses import dataclass
from enum import StrEnum

from sandboa.core.messages import Difference, Mass, Message, Temperature, Words


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

    Temperatures and differences are in °C and carry no unit of their own: the reader's is told.

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

    def value_words(self, value: float) -> Words:
        """A value of it, as a reader is told it."""
        match self.quantity:
            case Quantity.TEMPERATURE:
                return Message("{value}", value=Temperature(value))
            case Quantity.DIFFERENCE:
                return Message("{value}", value=Difference(value))
            case Quantity.MASS:
                return Message("{value}", value=Mass(value))
            case Quantity.SHARE:
                return f"{100.0 * value:.3g} %"
            case _:
                return f"{value:g} {self.unit}"
