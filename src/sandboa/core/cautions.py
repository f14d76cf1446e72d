"""What can hurt someone, said once at the moment it matters (rule P10)."""

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
        "mould",
        "Mould spores and antifungal powder harm lungs: no blowing or dry brushing near your "
        "face, gloves and a mask when you powder, and read its label. Rubbing harms good eggs.",
    ),
    Caution(
        "hands on eggs",
        "Clean hands or gloves before each box, and wash them after: Salmonella, and mould "
        "carried from box to box. Do not turn an egg, and do not blow on it.",
    ),
    Caution(
        "blades",
        "Blades near eggs and fingers: blunt-nosed scissors, only at the top, between vessels. "
        "Let an experienced keeper or a vet show you first.",
    ),
    Caution(
        "at the pip",
        "Never cut the cord: free it by moving the animal's loop. A cut vessel bleeds the animal "
        "out. Weak, bleeding or malformed: a reptile vet.",
    ),
    Caution(
        "opening a lost egg",
        "Gloves, a window open, eyes and face away: old eggs burst and stink. Wash hands and "
        "blade after, no kitchen sink. If anything inside moves, stop and cover it again.",
    ),
    Caution(
        "mains and water",
        "Water near mains current: residual-current protection, a cut-out separate from the "
        "thermostat, an electrician for the wiring.",
    ),
)
