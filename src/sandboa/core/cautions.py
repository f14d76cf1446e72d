"""What can hurt someone, said once at the moment it matters (handbook 1, section 7)."""

from dataclasses import dataclass
from typing import Final


@dataclass(frozen=True, slots=True)
class Caution:
    """`moment` names the place where it is shown; it is dismissed for good with one tap."""

    moment: str
    text: str


CAUTIONS: Final = (
    Caution(
        "moving the dam",
        "A brooding dam can bite. Locate her head, lift from behind, use a hook or a lid as a "
        "shield; children stay away. Wash your hands after: reptiles carry Salmonella.",
    ),
    Caution(
        "retained egg",
        "A lump that stays, or a dam that strains, weakens or bleeds, is a matter for a reptile "
        "vet, and soon.",
    ),
    Caution(
        "disinfecting",
        "Bleach and disinfectants: dilute by the label, never mix two, rinse and dry before any "
        "egg comes near. No kitchen sink, no food nearby.",
    ),
    Caution(
        "home-built cabinet",
        "Never drill a refrigerator: refrigerant and foam gases burn or poison, and vapours can "
        "kill a whole batch weeks later. Mains and water: residual-current protection, an "
        "over-temperature cut-out separate from the thermostat, a licensed electrician.",
    ),
    Caution(
        "mains and water",
        "Water near mains current: residual-current protection, a cut-out separate from the "
        "thermostat, an electrician for the wiring.",
    ),
)
