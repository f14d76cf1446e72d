"""Signs of an egg: what a keeper sees, smells, feels, and the weight each carries (rule C).

To change what a sign is worth, change its line in `SIGNS`; the test that
guards it is tests/core/test_standing.py. A keeper can override each in settings.
"""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final


class SignKind(StrEnum):
    """What is looked at; only the latest observation of a kind counts."""

    VESSELS = "vessels"
    MOVEMENT = "movement"
    BODY = "body"
    MOULD = "mould"
    SMELL = "smell"
    WET = "wet"
    COLOUR = "colour"
    FEEL = "feel"
    TOUCH = "touch"
    DENTS = "dents"
    SHELL = "shell"
    SIBLINGS = "siblings"


@dataclass(frozen=True, slots=True)
class Sign:
    """One thing to be seen and what it says.

    `weight` is a natural-log likelihood ratio, alive : dead, before the
    factor for dependence. It counts when the observation was made between
    `from_share` and `until_share` developed and not before `from_day` after
    laying.
    """

    kind: SignKind
    value: str
    weight: float
    words: str
    from_share: float = 0.0
    until_share: float = 9.0
    from_day: float = 0.0

    @property
    def key(self) -> str:
        """Name of its weight in the settings."""
        return f"sign.{self.kind}.{self.value}"


def _sign(kind: SignKind, value: str, weight: float, words: str, **limits: float) -> Sign:
    return Sign(kind, value, weight, words, **limits)


#: Weights and stage limits: rule C (keeper practice; assumption).
SIGNS: Final = {
    (sign.kind, sign.value): sign
    for sign in (
        _sign(SignKind.VESSELS, "strong", 2.5, "strong vessels by torch", until_share=0.8),
        _sign(SignKind.VESSELS, "weak", -0.5, "weak vessels by torch", until_share=0.8),
        _sign(SignKind.VESSELS, "none", -3.5, "no vessels by torch", until_share=0.8, from_day=7.0),
        _sign(SignKind.VESSELS, "broken", -3.5, "blood ring or broken vessels"),
        _sign(SignKind.MOVEMENT, "seen", 5.0, "movement seen by torch"),
        _sign(SignKind.BODY, "dark", 1.6, "dark body below, vessels on top", from_share=0.6),
        _sign(SignKind.MOULD, "none", 0.0, "no mould"),
        _sign(SignKind.MOULD, "spot", -0.3, "a spot of mould"),
        _sign(SignKind.MOULD, "patch", -0.8, "a patch of mould"),
        _sign(SignKind.MOULD, "furry", -2.3, "furry mould all over"),
        _sign(SignKind.SMELL, "none", 0.0, "no smell"),
        _sign(SignKind.SMELL, "off", -0.7, "smells off"),
        _sign(SignKind.SMELL, "foul", -3.5, "smells foul"),
        _sign(SignKind.WET, "dry", 0.0, "dry shell"),
        _sign(SignKind.WET, "weeping", -0.9, "wet spot or weeping"),
        _sign(SignKind.WET, "leaking", -2.3, "leaking"),
        _sign(SignKind.COLOUR, "white", 0.2, "clean white"),
        _sign(SignKind.COLOUR, "yellowing", -1.6, "yellowing", until_share=0.6),
        _sign(SignKind.COLOUR, "odd", -1.2, "grey, green, pink or orange areas"),
        _sign(SignKind.FEEL, "firm", 0.3, "feels firm or full", from_share=0.9),
        _sign(SignKind.FEEL, "mushy", -1.9, "feels mushy", from_share=0.9),
        _sign(SignKind.TOUCH, "reacts", 4.0, "reacts to touch when opened"),
        _sign(SignKind.TOUCH, "still", -2.5, "no reaction when opened"),
        _sign(SignKind.SHELL, "clean", 1.2, "looked at, and nothing against it seen"),
        _sign(SignKind.DENTS, "excess", -0.5, "dents ahead of its stage, in this egg only"),
        _sign(SignKind.SIBLINGS, "late", -0.5, "siblings have pipped and this one has not"),
    )
}


@dataclass(frozen=True, slots=True)
class StageLimit:
    """When signs of a kind count: the `field` of a Sign that says so, and its usual value."""

    kind: SignKind
    field: str
    usual: float
    words: str

    @property
    def name(self) -> str:
        """Name of its setting."""
        return f"stage.{self.kind}.{self.field}"

    def limits(self, sign: Sign) -> bool:
        """Whether that sign is limited by it."""
        return sign.kind is self.kind and getattr(sign, self.field) == self.usual


#: Stages at which signs count, as they are in SIGNS (rule C).
STAGE_LIMITS: Final = (
    StageLimit(SignKind.VESSELS, "until_share", 0.8, "Vessels by torch count before"),
    StageLimit(SignKind.VESSELS, "from_day", 7.0, "No vessels by torch counts from day"),
    StageLimit(SignKind.BODY, "from_share", 0.6, "A dark body counts from"),
    StageLimit(SignKind.COLOUR, "until_share", 0.6, "Yellowing counts before"),
    StageLimit(SignKind.FEEL, "from_share", 0.9, "How it feels counts from"),
)

#: Kinds a keeper records at a visit; the others follow from what is recorded elsewhere.
RECORDED_KINDS: Final = (
    SignKind.MOVEMENT,
    SignKind.BODY,
    SignKind.MOULD,
    SignKind.SMELL,
    SignKind.WET,
    SignKind.COLOUR,
    SignKind.FEEL,
    SignKind.TOUCH,
)


#: What eyes, nose and fingers find at an egg's shell without a torch.
SHELL_KINDS: Final = frozenset(
    (SignKind.MOULD, SignKind.SMELL, SignKind.WET, SignKind.COLOUR, SignKind.FEEL)
)
#: Share developed from which an egg may be opened at all, and so touched (assumption).
_OPENED_FROM: Final = 0.9


def asked_from(kind: SignKind) -> float:
    """Share developed from which a kind of sign is asked for: before it, it says nothing."""
    if kind is SignKind.TOUCH:
        return _OPENED_FROM
    return min(sign.from_share for sign in SIGNS.values() if sign.kind is kind)
